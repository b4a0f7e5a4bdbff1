import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DAY, HOUR, type Instant, instant, later, MINUTE, readInstant } from "../kernel/instant";
import { zonedDay } from "../time/zoned-day";
import {
  addWorkingTime,
  everOpens,
  isOpenAt,
  type OpenHours,
  spanOn,
  type WorkingHours,
  workingDayAfter,
  workingTimeAgo,
  workingTimeBetween,
} from "./working-hours";

// Clocks that change at one, at two, at midnight, by half an hour, on another half of the year, and not at all.
const ZONES = [
  "Europe/London",
  "America/New_York",
  "Asia/Beirut",
  "Australia/Lord_Howe",
  "America/Santiago",
  "Asia/Kolkata",
  "Africa/Cairo",
];

const at = (text: string): Instant => readInstant(text) ?? instant(Number.NaN);

const part = fc
  .tuple(fc.integer({ min: 0, max: 1_439 }), fc.integer({ min: 1, max: 1_440 }))
  .map(([from, length]) => ({ from, to: Math.min(1_440, from + length) }));
const day: fc.Arbitrary<OpenHours | null> = fc.oneof(
  { weight: 1, arbitrary: fc.constant(null) },
  { weight: 2, arbitrary: part },
  {
    weight: 2,
    arbitrary: fc.tuple(part, fc.array(part, { maxLength: 2 })).map(([open, breaks]) => ({ ...open, breaks })),
  },
);
const hours: fc.Arbitrary<WorkingHours> = fc.record({
  zone: fc.constantFrom(...ZONES),
  week: fc.array(day, { minLength: 7, maxLength: 7 }),
  holidays: fc.subarray(["2025-03-30", "2025-10-27", "2025-12-25", "2026-01-01", "2026-03-30", "2026-10-26"]),
});
// Around the changes of the clocks and the turns of the year, where it matters.
const DAYS = [
  "2025-03-09",
  "2025-03-30",
  "2025-04-06",
  "2025-04-25",
  "2025-09-07",
  "2025-10-26",
  "2025-11-02",
  "2025-12-31",
  "2026-03-29",
];
const moment = fc
  .tuple(fc.constantFrom(...DAYS), fc.integer({ min: -2_880, max: 2_880 }))
  .map(([date, minutes]) => later(at(`${date}T00:00:00Z`), minutes * MINUTE));

/** Whether the wall clock shows a minute in which the office is open: nothing but a look at it. */
function isOpenMinute(minute: number, { zone, week, holidays }: WorkingHours): boolean {
  const { year, month, day: date, weekday, hour, minute: past } = zonedDay(instant(minute), zone);
  if (holidays.includes([year, month, date].map((part) => String(part).padStart(2, "0")).join("-"))) return false;
  const open = week[weekday] ?? null;
  const shown = hour * 60 + past;
  if (open === null || shown < open.from || shown >= open.to) return false;
  return !(open.breaks ?? []).some((pause) => shown >= pause.from && shown < pause.to);
}

function countMinutes(from: Instant, to: Instant, given: WorkingHours): number {
  let count = 0;
  for (let minute: number = from; minute < to; minute += MINUTE) if (isOpenMinute(minute, given)) count += 1;
  return count;
}

describe("working time", () => {
  // 10,000 intervals: 500 offices, 20 intervals of some hours each.
  it("between two moments is what counting the minutes on the wall clock gives", { timeout: 120_000 }, () => {
    const interval = fc.tuple(moment, fc.integer({ min: 0, max: 240 }));
    fc.assert(
      fc.property(hours, fc.array(interval, { minLength: 20, maxLength: 20 }), (given, intervals) => {
        for (const [from, minutes] of intervals) {
          const to = later(from, minutes * MINUTE);
          expect(workingTimeBetween(from, to, given)).toBe(countMinutes(from, to, given) * MINUTE);
        }
      }),
      { numRuns: 500 },
    );
  });

  it("over whole days is what counting the minutes gives", { timeout: 120_000 }, () => {
    fc.assert(
      fc.property(hours, moment, fc.integer({ min: 1_000, max: 6_000 }), (given, from, minutes) => {
        const to = later(from, minutes * MINUTE);
        expect(workingTimeBetween(from, to, given)).toBe(countMinutes(from, to, given) * MINUTE);
      }),
      { numRuns: 20 },
    );
  });

  it("that is added is the time between, and ends while it is open", () => {
    fc.assert(
      fc.property(hours, moment, fc.integer({ min: 1, max: 6_000 }), (given, from, minutes) => {
        const until = addWorkingTime(from, minutes * MINUTE, given);
        // An office that hardly ever opens has not opened that long in eight years.
        if (until === null)
          expect(workingTimeBetween(from, later(from, 8 * 365 * DAY), given)).toBeLessThan(minutes * MINUTE);
        if (until === null) return;
        expect(workingTimeBetween(from, until, given)).toBe(minutes * MINUTE);
        expect(isOpenAt(later(until, -MINUTE), given)).toBe(true);
      }),
      { numRuns: 500 },
    );
  });

  it("that has passed until now began where it is as long", () => {
    fc.assert(
      fc.property(hours, moment, fc.integer({ min: 1, max: 6_000 }), (given, now, minutes) => {
        const from = workingTimeAgo(now, minutes * MINUTE, given);
        if (from === null)
          expect(workingTimeBetween(later(now, -8 * 365 * DAY), now, given)).toBeLessThan(minutes * MINUTE);
        else expect(workingTimeBetween(from, now, given)).toBe(minutes * MINUTE);
      }),
      { numRuns: 300 },
    );
  });

  it("is open where the wall clock says so", () => {
    fc.assert(
      fc.property(hours, moment, (given, minute) => {
        expect(isOpenAt(minute, given)).toBe(isOpenMinute(minute, given));
      }),
      { numRuns: 500 },
    );
  });
});

describe("a day with a break", () => {
  const office: WorkingHours = {
    zone: "Europe/London",
    week: [1, 2, 3, 4, 5].map(() => ({ from: 480, to: 1_020, breaks: [{ from: 720, to: 780 }] })).concat([]),
    holidays: [],
  };

  it("is one day, from its first opening to its last closing", () => {
    expect(spanOn(at("2026-11-25T12:30:00Z"), office)).toEqual({
      opens: at("2026-11-25T08:00:00Z"),
      closes: at("2026-11-25T17:00:00Z"),
    });
    expect(workingDayAfter(at("2026-11-25T12:30:00Z"), 1, office)?.opens).toBe(at("2026-11-26T08:00:00Z"));
    expect(workingTimeBetween(at("2026-11-25T08:00:00Z"), at("2026-11-25T17:00:00Z"), office)).toBe(8 * HOUR);
    expect(isOpenAt(at("2026-11-25T12:00:00Z"), office)).toBe(false);
  });

  it("leaves nothing of a week of breaks", () => {
    const always = { from: 0, to: 1_440, breaks: [{ from: 0, to: 1_440 }] };
    const never = { ...office, week: Array.from({ length: 7 }, () => always) };
    expect(everOpens(never, at("2026-11-25T12:00:00Z"))).toBe(false);
    expect(addWorkingTime(at("2026-11-25T12:00:00Z"), HOUR, never)).toBeNull();
  });
});
