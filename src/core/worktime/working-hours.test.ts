import { describe, expect, it } from "vitest";
import { HOUR, type Instant, instant, readInstant } from "../kernel/instant";
import {
  addWorkingHours,
  closesToday,
  nextOpening,
  readTimeOfDay,
  spanOn,
  usualHours,
  type WorkingHours,
  workingDayAfter,
  workingTimeBetween,
} from "./working-hours";

const at = (text: string): Instant => readInstant(text) ?? instant(Number.NaN);
const london: WorkingHours = { ...usualHours("Europe/London"), holidays: ["2026-12-25", "2026-12-28"] };
const never: WorkingHours = { zone: "UTC", week: [null, null, null, null, null, null, null], holidays: [] };
// A Wednesday, after closing.
const evening = at("2026-11-25T18:00:00Z");

describe("working hours", () => {
  it.each<[string, Instant | null, string | null]>([
    ["next opening in the evening", nextOpening(evening, london), "2026-11-26T08:00:00Z"],
    ["next opening before it opens", nextOpening(at("2026-11-25T07:59:00Z"), london), "2026-11-25T08:00:00Z"],
    ["next opening while it is open", nextOpening(at("2026-11-25T08:00:00Z"), london), "2026-11-26T08:00:00Z"],
    [
      "next opening over a weekend and holidays",
      nextOpening(at("2026-12-24T17:30:00Z"), london),
      "2026-12-29T08:00:00Z",
    ],
    ["closing today", closesToday(at("2026-11-25T10:00:00Z"), london), "2026-11-25T17:00:00Z"],
    ["closing when it is closed by now", closesToday(evening, london), null],
    ["closing on a Saturday", closesToday(at("2026-11-28T10:00:00Z"), london), null],
    ["an office that never opens", nextOpening(evening, never), null],
    ["two working days on", workingDayAfter(evening, 2, london)?.opens ?? null, "2026-11-27T08:00:00Z"],
    ["five working days on", workingDayAfter(evening, 5, london)?.closes ?? null, "2026-12-02T17:00:00Z"],
    [
      "three working hours into the next day",
      addWorkingHours(at("2026-11-25T16:00:00Z"), 3, london),
      "2026-11-26T10:00:00Z",
    ],
    ["no working hours at all", addWorkingHours(at("2026-11-25T16:00:00Z"), 0, london), "2026-11-25T16:00:00Z"],
    ["working hours of an office that never opens", addWorkingHours(evening, 1, never), null],
    [
      "a summer opening, an hour earlier in UTC",
      nextOpening(at("2026-07-01T20:00:00Z"), london),
      "2026-07-02T07:00:00Z",
    ],
  ])("%s", (_, found, expected) => expect(found).toBe(expected === null ? null : at(expected)));

  it("count the time between two moments only where the office was open", () => {
    expect(workingTimeBetween(at("2026-11-27T16:00:00Z"), at("2026-11-30T09:00:00Z"), london)).toBe(2 * HOUR);
    expect(workingTimeBetween(evening, at("2026-11-25T17:00:00Z"), london)).toBe(0);
  });

  it("say when a day is closed", () => {
    expect(spanOn(at("2026-12-25T12:00:00Z"), london)).toBeNull();
    expect(spanOn(at("2026-12-24T12:00:00Z"), london)).toMatchObject({ opens: at("2026-12-24T08:00:00Z") });
  });

  it("refuse counts that are none", () => {
    expect(() => addWorkingHours(evening, -1, london)).toThrow(RangeError);
    expect(() => workingDayAfter(evening, 0, london)).toThrow(RangeError);
    expect(() => workingDayAfter(evening, 1.5, london)).toThrow(RangeError);
  });

  it.each([
    ["8:30", 510],
    ["24:00", 1_440],
    ["24:01", null],
    ["9:60", null],
    ["nine", null],
  ])("%s is a time of day", (text, minutes) => expect(readTimeOfDay(text)).toBe(minutes));
});
