import { TZDate } from "@date-fns/tz";
import { DAY, HOUR, type Instant, instant, instantOf, MINUTE } from "../kernel/instant";
import { zonedDay } from "../standing/zoned-day";

/** When an office is open on a weekday, in minutes after midnight of its own clock. */
export type OpenHours = { readonly from: number; readonly to: number };

/** The hours of a tray: a week, Monday first, null for a day it is closed; its holidays as `YYYY-MM-DD`. */
export type WorkingHours = {
  /** IANA time zone that the hours are meant in. */
  readonly zone: string;
  readonly week: readonly (OpenHours | null)[];
  readonly holidays: readonly string[];
};

/** Monday to Friday from eight to five, no holidays. */
export function usualHours(zone: string): WorkingHours {
  const open = { from: 8 * 60, to: 17 * 60 };
  return { zone, week: [open, open, open, open, open, null, null], holidays: [] };
}

/** A stretch in which the office is open. */
export type OpenSpan = { readonly opens: Instant; readonly closes: Instant };

/** The side of a working day that a date means: its beginning, for what is taken up then; its end, for what is due by then. */
export type DayEdge = keyof OpenSpan;

// A tray that is closed for longer than this has no next opening that anybody could plan for.
const MAX_DAYS_AHEAD = 1_000;

/** The open spans from a moment on, the first one ending after it; none where the office never opens. */
export function* openSpans(from: Instant, hours: WorkingHours): Generator<OpenSpan> {
  const start = zonedDay(from, hours.zone);
  for (let ahead = 0; ahead < MAX_DAYS_AHEAD; ahead += 1) {
    const span = spanOfDay(start.year, start.month, start.day + ahead, hours);
    if (span !== null && span.closes > from) yield span;
  }
}

/** When the office is open on the day of a moment; null when it is closed all that day. */
export function spanOn(at: Instant, hours: WorkingHours): OpenSpan | null {
  const { year, month, day } = zonedDay(at, hours.zone);
  return spanOfDay(year, month, day, hours);
}

// Day numbers past the end of a month run on into the next, as those of Date do.
function spanOfDay(year: number, month: number, day: number, { zone, week, holidays }: WorkingHours): OpenSpan | null {
  const date = new Date(Date.UTC(year, month - 1, day));
  if (holidays.includes(date.toISOString().slice(0, 10))) return null;
  const open = week[(date.getUTCDay() + 6) % 7] ?? null;
  if (open === null || open.to <= open.from) return null;
  const at = (minutes: number) =>
    instantOf(new TZDate(date.getUTCFullYear(), date.getUTCMonth(), date.getUTCDate(), 0, minutes, 0, zone));
  return { opens: at(open.from), closes: at(open.to) };
}

/** The next moment at which the office opens, after `from`; null when it never does. */
export function nextOpening(from: Instant, hours: WorkingHours): Instant | null {
  for (const { opens } of openSpans(from, hours)) if (opens > from) return opens;
  return null;
}

/** When the office closes today; null when it is closed by now, or all day. */
export function closesToday(now: Instant, hours: WorkingHours): Instant | null {
  for (const { closes } of openSpans(now, hours)) {
    return zonedDay(closes, hours.zone).number === zonedDay(now, hours.zone).number ? closes : null;
  }
  return null;
}

/**
 * The moment when so many working hours have passed: closed time does not count. Throws a RangeError when the hours are
 * not from 0 to 10,000; gives null for an office that does not open that long.
 */
export function addWorkingHours(from: Instant, count: number, hours: WorkingHours): Instant | null {
  if (!(count >= 0 && count <= 10_000)) throw new RangeError(`${count} is no count of working hours`);
  let left = count * HOUR;
  for (const { opens, closes } of openSpans(from, hours)) {
    const begins = Math.max(opens, from);
    if (closes - begins >= left) return instant(begins + left);
    left -= closes - begins;
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
  for (const span of openSpans(from, hours)) {
    if (zonedDay(span.opens, hours.zone).number === today) continue;
    left -= 1;
    if (left === 0) return span;
  }
  return null;
}

/** The time within working hours between two moments, in milliseconds; 0 when `to` is not after `from`. */
export function workingTimeBetween(from: Instant, to: Instant, hours: WorkingHours): number {
  let total = 0;
  for (const { opens, closes } of openSpans(from, hours)) {
    if (opens >= to) break;
    total += Math.max(0, Math.min(closes, to) - Math.max(opens, from));
  }
  return total;
}

/** `08:30` as minutes after midnight; null when it is no time of day. 24:00 is the end of the day. */
export function readTimeOfDay(text: string): number | null {
  const [, hour, minute] = /^(\d{1,2}):(\d\d)$/.exec(text.trim()) ?? [];
  const minutes = Number(hour) * 60 + Number(minute);
  return hour !== undefined && Number(minute) < 60 && minutes * MINUTE <= DAY ? minutes : null;
}
