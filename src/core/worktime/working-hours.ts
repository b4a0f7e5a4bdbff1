import { tz } from "@date-fns/tz";
import { startOfDay } from "date-fns";
import { DAY, HOUR, type Instant, instantOf, MINUTE } from "../kernel/instant";
import { zonedDay } from "../time/zoned-day";
import type { OpenSpan, WorkingHours } from "./hours";
import { momentAfter, openBefore, placeAfter, yearTable } from "./open-table";

export type { DayPart, OpenHours, OpenSpan, WorkingHours } from "./hours";

/** Monday to Friday from eight to five, no holidays. */
export function usualHours(zone: string): WorkingHours {
  const open = { from: 8 * 60, to: 17 * 60 };
  return { zone, week: [open, open, open, open, open, null, null], holidays: [] };
}

/** The side of a working day that a date means: its beginning, for what is taken up then; its end, for what is due by then. */
export type DayEdge = keyof OpenSpan;

// A tray that is closed for longer than this has no next opening that anybody could plan for.
const MAX_YEARS_AHEAD = 8;

/** The open spans from a moment on, the first one ending after it; none where the office never opens. */
function* openSpans(from: Instant, hours: WorkingHours): Generator<OpenSpan> {
  const year = zonedDay(from, hours.zone).year;
  for (let ahead = 0; ahead <= MAX_YEARS_AHEAD; ahead += 1) {
    const table = yearTable(year + ahead, hours);
    for (let at = ahead === 0 ? placeAfter(table, from) : 0; at < table.spans.length; at += 1) {
      const span = table.spans[at];
      if (span !== undefined) yield span;
    }
  }
}

// The same by days, whatever their breaks; the first day may have begun before.
function* openDays(from: Instant, hours: WorkingHours): Generator<OpenSpan & { readonly day: number }> {
  let sofar: (OpenSpan & { readonly day: number })[] = [];
  for (const { opens, closes } of openSpans(startOf(from, hours), hours)) {
    const day = zonedDay(opens, hours.zone).number;
    const [same] = sofar.filter((one) => one.day === day);
    if (same === undefined) yield* sofar;
    sofar = [{ day, opens: same?.opens ?? opens, closes }];
  }
  yield* sofar;
}

function startOf(at: Instant, hours: WorkingHours): Instant {
  return instantOf(startOfDay(at, { in: tz(hours.zone) }));
}

/** When the office opens first and closes last on the day of a moment; null when it is closed all that day. */
export function spanOn(at: Instant, hours: WorkingHours): OpenSpan | null {
  const [day] = openDays(at, hours);
  return day?.day === zonedDay(at, hours.zone).number ? { opens: day.opens, closes: day.closes } : null;
}

/** Whether an office ever opens, with the week and the holidays that it has. */
export function everOpens(hours: WorkingHours, from: Instant): boolean {
  for (const _ of openSpans(from, hours)) return true;
  return false;
}

/** Whether the office is open at a moment. */
export function isOpenAt(at: Instant, hours: WorkingHours): boolean {
  const [span] = openSpans(at, hours);
  return span !== undefined && span.opens <= at;
}

/** The next moment at which the office opens, after `from`; null when it never does. */
export function nextOpening(from: Instant, hours: WorkingHours): Instant | null {
  for (const { opens } of openSpans(from, hours)) if (opens > from) return opens;
  return null;
}

/** When the office closes today; null when it is closed by now, or all day. */
export function closesToday(now: Instant, hours: WorkingHours): Instant | null {
  const closes = spanOn(now, hours)?.closes ?? null;
  return closes !== null && closes > now ? closes : null;
}

/**
 * The moment when so many working hours have passed: closed time does not count. Throws a RangeError when the hours are
 * not from 0 to 10,000; gives null for an office that does not open that long.
 */
export function addWorkingHours(from: Instant, count: number, hours: WorkingHours): Instant | null {
  if (!(count >= 0 && count <= 10_000)) throw new RangeError(`${count} is no count of working hours`);
  return addWorkingTime(from, Math.round(count * HOUR), hours);
}

/** The same for a time in milliseconds; nothing added to closed time is the next opening. */
export function addWorkingTime(from: Instant, time: number, hours: WorkingHours): Instant | null {
  const year = zonedDay(from, hours.zone).year;
  let left = openBefore(yearTable(year, hours), from) + time;
  for (let ahead = 0; ahead <= MAX_YEARS_AHEAD; ahead += 1) {
    const table = yearTable(year + ahead, hours);
    const moment = momentAfter(table, left);
    if (moment !== null) return time === 0 && !isOpenAt(from, hours) ? nextOpening(from, hours) : moment;
    left -= table.total;
  }
  return null;
}

/**
 * The span of the working day that is so many working days after the day of `from`, which counts as none itself. Throws a
 * RangeError when `days` is not a whole number from 1 to 500; gives null for an office that does not open that often.
 */
export function workingDayAfter(from: Instant, days: number, hours: WorkingHours): OpenSpan | null {
  if (!Number.isInteger(days) || days < 1 || days > 500) throw new RangeError(`${days} is no count of working days`);
  const today = zonedDay(from, hours.zone).number;
  let left = days;
  for (const { day, opens, closes } of openDays(from, hours)) {
    if (day === today) continue;
    left -= 1;
    if (left === 0) return { opens, closes };
  }
  return null;
}

/** The time within working hours between two moments, in milliseconds; 0 when `to` is not after `from`. */
export function workingTimeBetween(from: Instant, to: Instant, hours: WorkingHours): number {
  if (to <= from) return 0;
  const [first, last] = [zonedDay(from, hours.zone).year, zonedDay(to, hours.zone).year];
  let total = openBefore(yearTable(last, hours), to) - openBefore(yearTable(first, hours), from);
  for (let year = first; year < last; year += 1) total += yearTable(year, hours).total;
  return total;
}

/**
 * The moment from which so much working time, in milliseconds, has passed until `now`; the latest of them, while it is open.
 * Null for an office that was not open that long within eight years.
 */
export function workingTimeAgo(now: Instant, time: number, hours: WorkingHours): Instant | null {
  const year = zonedDay(now, hours.zone).year;
  let left = time - openBefore(yearTable(year, hours), now);
  if (left <= 0) return momentAfter(yearTable(year, hours), -left);
  for (let ago = 1; ago <= MAX_YEARS_AHEAD; ago += 1) {
    const table = yearTable(year - ago, hours);
    if (left <= table.total) return momentAfter(table, table.total - left);
    left -= table.total;
  }
  return null;
}

/** `08:30` as minutes after midnight; null when it is no time of day. 24:00 is the end of the day. */
export function readTimeOfDay(text: string): number | null {
  const [, hour, minute] = /^(\d{1,2}):(\d\d)$/.exec(text.trim()) ?? [];
  const minutes = Number(hour) * 60 + Number(minute);
  return hour !== undefined && Number(minute) < 60 && minutes * MINUTE <= DAY ? minutes : null;
}

/** Minutes after midnight as they are written: `08:30`. */
export function writtenTimeOfDay(minutes: number): string {
  return [Math.floor(minutes / 60), minutes % 60].map((part) => String(part).padStart(2, "0")).join(":");
}
