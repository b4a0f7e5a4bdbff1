import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DAY, HOUR, type Instant, MINUTE, readInstant } from "../kernel/instant";
import type { WorkingHours } from "../worktime/working-hours";
import { isOpenAt } from "../worktime/working-hours";
import { firstForBoth, theirNextMorning, theyAreThere } from "./recipient-hours";

const at = (text: string) => readInstant(`${text}:00Z`) ?? (0 as Instant);
const day = { from: 8 * 60, to: 17 * 60 };
const HOURS: WorkingHours = { zone: "UTC", week: [day, day, day, day, day, null, null], holidays: [] };

describe("working time of somebody outside", () => {
  // 26 November 2026 is a Thursday.
  it.each([
    ["2026-11-26T10:00", 0, "2026-11-26T10:00"],
    ["2026-11-26T05:30", 0, "2026-11-26T08:00"],
    ["2026-11-26T18:00", 0, "2026-11-27T08:00"],
    ["2026-11-27T18:30", 0, "2026-11-30T08:00"],
    ["2026-11-28T10:00", 0, "2026-11-30T08:00"],
    ["2026-11-26T10:00", 9 * 60, "2026-11-26T23:00"],
    ["2026-11-26T10:00", -5 * 60, "2026-11-26T13:00"],
  ])("from %s at %d minutes ahead is %s", (from, offset, then) =>
    expect(theyAreThere(at(from), offset)).toBe(at(then)),
  );
});

describe("the next morning of somebody outside", () => {
  it.each([
    ["2026-11-26T10:00", 0, "2026-11-27T08:00"],
    ["2026-11-26T05:30", 0, "2026-11-26T08:00"],
    ["2026-11-26T08:00", 0, "2026-11-27T08:00"],
    ["2026-11-27T08:30", 0, "2026-11-30T08:00"],
    ["2026-11-28T03:00", 0, "2026-11-30T08:00"],
    ["2026-11-26T10:00", 9 * 60, "2026-11-26T23:00"],
    ["2026-11-26T10:00", -5 * 60, "2026-11-26T13:00"],
    ["2026-11-27T20:00", -8 * 60, "2026-11-30T16:00"],
  ])("after %s at %d minutes ahead is %s", (now, offset, then) =>
    expect(theirNextMorning(at(now), offset)).toBe(at(then)),
  );
});

describe("the first moment for both", () => {
  it.each([
    ["2026-11-26T09:00", null, "2026-11-26T09:00"],
    ["2026-11-26T19:00", null, "2026-11-27T08:00"],
    ["2026-11-26T09:00", -5 * 60, "2026-11-26T13:00"],
    ["2026-11-27T12:00", -8 * 60, "2026-11-27T16:00"],
    ["2026-11-27T16:30", 60, "2026-11-27T16:30"],
    ["2026-11-27T16:30", 120, "2026-11-30T08:00"],
    // Somebody who comes when we go: there is no common hour, and ours count.
    ["2026-11-26T09:00", -12 * 60, "2026-11-26T09:00"],
  ])("from %s at %s is %s", (from, offset, then) => expect(firstForBoth(at(from), HOURS, offset)).toBe(at(then)));

  // By trying every quarter of an hour of a week.
  function firstByTrying(from: Instant, offset: number): number | null {
    const quarter = 15 * MINUTE;
    for (let t = Math.ceil(from / quarter) * quarter; t < from + 7 * DAY; t += quarter)
      if (isOpenAt(t as Instant, HOURS) && theyAreThere(t as Instant, offset) === t) return t;
    return null;
  }

  it("is in our hours, and in theirs where there is any such hour within a week", () => {
    const offsets = fc.integer({ min: -12 * 4, max: 14 * 4 }).map((quarters) => quarters * 15);
    fc.assert(
      fc.property(fc.nat(400 * 24 * 60), offsets, (minutes, offset) => {
        const from = (at("2026-01-01T00:00") + minutes * MINUTE) as Instant;
        const found = firstForBoth(from, HOURS, offset) ?? (0 as Instant);
        expect(found >= from && isOpenAt(found, HOURS)).toBe(true);
        const first = firstByTrying(from, offset);
        if (first === null) return;
        expect(theyAreThere(found, offset)).toBe(found);
        expect(first - found).toBeGreaterThanOrEqual(0);
        expect(firstByTrying((Math.floor(found / (15 * MINUTE)) * 15 * MINUTE) as Instant, offset)).toBeLessThanOrEqual(
          found,
        );
      }),
      { numRuns: 300 },
    );
  });

  it("is none for an office that never opens", () => {
    const never = { ...HOURS, week: HOURS.week.map(() => null) } as unknown as WorkingHours;
    expect(firstForBoth(at("2026-11-26T09:00"), never, 2 * (HOUR / MINUTE))).toBeNull();
  });
});
