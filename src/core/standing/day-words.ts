import { tz } from "@date-fns/tz";
import { differenceInCalendarDays, differenceInCalendarISOWeeks, format } from "date-fns";
import type { Instant } from "../kernel/instant";

/** The calendar day of `at` seen from `now` in an IANA time zone: today, yesterday, tomorrow, a weekday near by, else a date. */
export function dayInWords(at: Instant, now: Instant, zone: string): string {
  const days = differenceInCalendarDays(at, now, { in: tz(zone) });
  if (days === 0) return "today";
  if (days === -1) return "yesterday";
  if (days === 1) return "tomorrow";
  if (days > -7 && days < 7) return format(at, "EEE", { in: tz(zone) });
  return dateInWords(at, now, zone);
}

/** Day and month, with the year where it is not the year of `now`. */
export function dateInWords(at: Instant, now: Instant, zone: string): string {
  const sameYear = format(at, "yyyy", { in: tz(zone) }) === format(now, "yyyy", { in: tz(zone) });
  return format(at, sameYear ? "d MMM" : "d MMM yyyy", { in: tz(zone) });
}

/** The heading of a group of days, coarser the longer ago: "Today", "Yesterday", "Earlier this week", "Last week", a month. */
export function dayHeading(at: Instant, now: Instant, zone: string): string {
  const days = differenceInCalendarDays(now, at, { in: tz(zone) });
  if (days <= 0) return "Today";
  if (days === 1) return "Yesterday";
  const weeks = differenceInCalendarISOWeeks(now, at, { in: tz(zone) });
  if (weeks === 0) return "Earlier this week";
  if (weeks === 1) return "Last week";
  const sameMonth = format(at, "yyyy-MM", { in: tz(zone) }) === format(now, "yyyy-MM", { in: tz(zone) });
  if (sameMonth) return "Earlier this month";
  const sameYear = format(at, "yyyy", { in: tz(zone) }) === format(now, "yyyy", { in: tz(zone) });
  return format(at, sameYear ? "LLLL" : "LLLL yyyy", { in: tz(zone) });
}

/** Hours and minutes of the day, 24 hours. */
export function timeOfDay(at: Instant, zone: string): string {
  return format(at, "HH:mm", { in: tz(zone) });
}

/** Day and time together: "today 10:14", "Tue 10:14", "3 Sep". Times of long ago are left out. */
export function dayAndTime(at: Instant, now: Instant, zone: string): string {
  const days = Math.abs(differenceInCalendarDays(at, now, { in: tz(zone) }));
  return days < 7 ? `${dayInWords(at, now, zone)} ${timeOfDay(at, zone)}` : dayInWords(at, now, zone);
}

/** How far past a day something is, counted in calendar days of the zone: "today", "1 day over"; null when it is not due yet. */
export function overdueInWords(until: Instant, now: Instant, zone: string): string | null {
  if (until > now) return null;
  const days = differenceInCalendarDays(now, until, { in: tz(zone) });
  if (days === 0) return "due today";
  return days === 1 ? "1 day over" : `${days} days over`;
}
