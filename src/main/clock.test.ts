import { describe, expect, it } from "vitest";
import { DAY, HOUR } from "../core/kernel/instant";
import { clock } from "./clock";

describe("the clock", () => {
  it("shows the machine's time until it is put ahead, and never goes back", () => {
    const one = clock();
    expect(Math.abs(one.now() - Date.now())).toBeLessThan(1_000);
    one.putAhead(3 * DAY);
    one.putAhead(-HOUR);
    one.putAhead(HOUR);
    expect(Math.round((one.now() - Date.now()) / HOUR)).toBe(73);
    expect(one.now() - one.onTheMachine(one.now())).toBe(73 * HOUR);
  });
});
