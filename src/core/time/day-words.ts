import type { Instant } from "../kernel/instant";
import { type ZonedDay, zonedDay } from "./zoned-day";

const WEEKDAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"] as const;
const MONTHS = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
] as const;

/** The calendar day of `at` seen from `now` in an IANA time zone: today, yesterday, tomorrow, a weekday near by, else a date. */
export function dayInWords(at: Instant, now: Instant, zone: string): string {
  return words(zonedDay(at, zone), zonedDay(now, zone));
}

/** A day given as 2026-08-27 in words: "27 August 2026"; a text that is no day as it stands. */
export function calendarDayInWords(day: string): string {
  const [, year, month, date] = /^(\d{4})-(\d\d)-(\d\d)$/.exec(day) ?? [];
  const name = MONTHS[Number(month) - 1];
  return name === undefined ? day : `${Number(date)} ${name} ${year}`;
}

/** Day and time together: "today 10:14", "Tue 10:14", "3 Sep". Times of long ago are left out. */
export function dayAndTime(at: Instant, now: Instant, zone: string): string {
  const [then, today] = [zonedDay(at, zone), zonedDay(now, zone)];
  const day = words(then, today);
  return Math.abs(then.number - today.number) < 7 ? `${day} ${two(then.hour)}:${two(then.minute)}` : day;
}

/** With weekday, date and time, for choosing: "Fri 28 Nov, 08:00"; the year where it is another. */
export function dayAndTimeInFull(at: Instant, now: Instant, zone: string): string {
  const [then, today] = [zonedDay(at, zone), zonedDay(now, zone)];
  const year = then.year === today.year ? "" : ` ${then.year}`;
  const month = (MONTHS[then.month - 1] ?? "").slice(0, 3);
  return `${WEEKDAYS[then.weekday]} ${then.day} ${month}${year}, ${two(then.hour)}:${two(then.minute)}`;
}

/** The heading of a group of days, coarser the longer ago: "Today", "Yesterday", "Earlier this week", "Last week", a month. */
export function dayHeading(at: Instant, now: Instant, zone: string): string {
  const [then, today] = [zonedDay(at, zone), zonedDay(now, zone)];
  const days = today.number - then.number;
  if (days <= 0) return "Today";
  if (days === 1) return "Yesterday";
  const monday = today.number - today.weekday;
  if (then.number >= monday) return "Earlier this week";
  if (then.number >= monday - 7) return "Last week";
  if (then.year === today.year && then.month === today.month) return "Earlier this month";
  const month = MONTHS[then.month - 1] ?? "";
  return then.year === today.year ? month : `${month} ${then.year}`;
}

/** How far past a day something is, counted in calendar days of the zone: "due today", "1 day overdue"; null when it is not due yet. */
export function overdueInWords(until: Instant, now: Instant, zone: string): string | null {
  if (until > now) return null;
  const days = zonedDay(now, zone).number - zonedDay(until, zone).number;
  if (days === 0) return "due today";
  return days === 1 ? "1 day overdue" : `${days} days overdue`;
}

function words(then: ZonedDay, today: ZonedDay): string {
  const days = then.number - today.number;
  if (days === 0) return "today";
  if (days === -1) return "yesterday";
  if (days === 1) return "tomorrow";
  if (days > -7 && days < 7) return WEEKDAYS[then.weekday] ?? "";
  const date = `${then.day} ${(MONTHS[then.month - 1] ?? "").slice(0, 3)}`;
  return then.year === today.year ? date : `${date} ${then.year}`;
}

function two(number: number): string {
  return String(number).padStart(2, "0");
}
