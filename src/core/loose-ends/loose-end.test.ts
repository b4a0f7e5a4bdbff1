import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import { DAY, instant, later } from "../kernel/instant";
import { isLooseEnd, LOOSE_END_NAMES, LOOSE_ENDS, looseEndInWords, REMEDIES } from "./loose-end";

const now = instant(100 * DAY);

describe("a loose end", () => {
  it.each(LOOSE_ENDS)("%s says why, since when, and what can be done", (kind) => {
    const words = looseEndInWords(kind, later(now, -3 * DAY), now);
    expect(inEnglish(words)).toContain("3 days");
    expect(LOOSE_END_NAMES[kind]).not.toBe("");
    expect(REMEDIES[kind].length).toBeGreaterThan(0);
    expect(isLooseEnd(kind)).toBe(true);
  });

  it("is none of another name, and none before its time", () => {
    expect(isLooseEnd("toString")).toBe(false);
    expect(inEnglish(looseEndInWords("overdue", later(now, DAY), now))).not.toContain("-");
  });
});
