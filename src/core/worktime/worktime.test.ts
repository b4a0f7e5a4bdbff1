import { describe, expect, it } from "vitest";
import { dateOf, type Instant, instant, readInstant } from "../kernel/instant";
import { calendarDay, dayAtHour, endOfCalendarDay } from "../time/calendar-day";
import { endOfWorkingDay } from "./add-working-days";

const at = (text: string): Instant => readInstant(text) ?? instant(Number.NaN);
const iso = (moment: Instant | null) => (moment === null ? null : dateOf(moment).toISOString());

it.each([
  ["2026-11-24T10:00:00Z", 0, "2026-11-24"],
  ["2026-11-24T10:00:00Z", 2, "2026-11-26"],
  ["2026-11-27T10:00:00Z", 1, "2026-11-30"],
  ["2026-11-28T10:00:00Z", 1, "2026-11-30"],
])("%s and %d working days end on %s", (from, days, day) => {
  expect(calendarDay(endOfWorkingDay(at(from), days, "Europe/London"), "Europe/London")).toBe(day);
});

it.each([-1, 1.5, Number.NaN, 1_001])("%d is no count of working days", (days) => {
  expect(() => endOfWorkingDay(at("2026-11-24T10:00:00Z"), days, "UTC")).toThrow(RangeError);
});

describe("a day of the calendar", () => {
  it("is that of the zone", () => {
    expect(calendarDay(at("2026-11-24T23:30:00Z"), "Asia/Tokyo")).toBe("2026-11-25");
    expect(iso(dayAtHour("2026-07-01", 8, "Europe/London"))).toBe("2026-07-01T07:00:00.000Z");
    expect(iso(endOfCalendarDay("2026-12-01", "America/New_York"))).toBe("2026-12-02T04:59:59.999Z");
  });
  it.each(["2026-02-30", "2026-13-01", "tomorrow", "", "2026-1-1"])("is not %j", (text) => {
    expect(dayAtHour(text, 8, "UTC")).toBeNull();
    expect(endOfCalendarDay(text, "UTC")).toBeNull();
  });
});

it.each([
  ["2026-11-24T10:00:00Z", "2026-11-24T10:00:00.000Z"],
  ["2026-11-24T10:00+01:00", "2026-11-24T09:00:00.000Z"],
  ["2026-11-24T10:00:00", null],
  ["2026-11-24", null],
  ["2026-99-24T10:00:00Z", null],
])("the instant %s is %s", (text, moment) => expect(iso(readInstant(text))).toBe(moment));
