import { describe, expect, it } from "vitest";
import { dateOfDay, dayOfDate, wordsOfDay } from "./day-words";

describe("a calendar day on the screen", () => {
  it("is said with its weekday and year, and comes back from a calendar as it was", () => {
    expect(wordsOfDay("2026-12-04")).toBe("Fri 4 Dec 2026");
    expect(dayOfDate(dateOfDay("2026-12-04") ?? new Date(0))).toBe("2026-12-04");
  });
  it.each(["", "soon", "2026-02-30", "2026-13-01", "26-12-04"])("“%s” is none, and stays as it was typed", (text) => {
    expect(dateOfDay(text)).toBeUndefined();
    expect(wordsOfDay(text)).toBe(text);
  });
});
