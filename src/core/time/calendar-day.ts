import { TZDate, tz } from "@date-fns/tz";
import { endOfDay, format, isValid } from "date-fns";
import { type Instant, instantOf } from "../kernel/instant";

/** The calendar day of a moment in an IANA time zone, as ISO 8601 `YYYY-MM-DD`. */
export function calendarDay(at: Instant, zone: string): string {
  return format(at, "yyyy-MM-dd", { in: tz(zone) });
}

function partsOf(day: string): [number, number, number] | null {
  const [, year, month, date] = /^(\d{4})-(\d\d)-(\d\d)$/.exec(day) ?? [];
  return year === undefined ? null : [Number(year), Number(month) - 1, Number(date)];
}

/** The moment of a day and an hour in a zone; null when the text is no day of the calendar. Hours that a change of clocks skips move on. */
export function dayAtHour(day: string, hour: number, zone: string): Instant | null {
  return dayAtTime(day, hour * 60, zone);
}

/** The same for a time of day, in minutes after midnight; null for a time before it. */
export function dayAtTime(day: string, minutes: number, zone: string): Instant | null {
  const parts = partsOf(day);
  if (parts === null || minutes < 0) return null;
  const at = new TZDate(parts[0], parts[1], parts[2], Math.floor(minutes / 60), minutes % 60, 0, zone);
  return isValid(at) && at.getMonth() === parts[1] && at.getDate() === parts[2] ? instantOf(at) : null;
}

/** The last moment of a day in a zone; null when the text is no day of the calendar. */
export function endOfCalendarDay(day: string, zone: string): Instant | null {
  const noon = dayAtHour(day, 12, zone);
  return noon === null ? null : instantOf(endOfDay(noon, { in: tz(zone) }));
}
