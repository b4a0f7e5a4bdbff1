import { DAY, HOUR, type Instant, MINUTE } from "../kernel/instant";
import { isOpenAt, nextOpening, type WorkingHours } from "../worktime/working-hours";

// Of somebody outside one knows the clock that her letters are dated with (RFC 5322 3.3), and no more: offices are open then.
const OPENS = 8 * HOUR;
const CLOSES = 18 * HOUR;
const SATURDAY = 6;

/** When it is working time for somebody whose clock is so many minutes ahead of UTC, from a moment on: that moment, or the next morning of a weekday. */
export function theyAreThere(from: Instant, offsetMinutes: number): Instant {
  const shown = from + offsetMinutes * MINUTE;
  const midnight = Math.floor(shown / DAY) * DAY;
  const isAtWork = (day: number) => new Date(day).getUTCDay() % SATURDAY !== 0;
  if (isAtWork(midnight) && shown < midnight + CLOSES) return (from + Math.max(0, midnight + OPENS - shown)) as Instant;
  let day = midnight + DAY;
  while (!isAtWork(day)) day += DAY;
  return (day + OPENS - offsetMinutes * MINUTE) as Instant;
}

/** When the next working day of somebody begins whose clock is so many minutes ahead of UTC: always after `now`. */
export function theirNextMorning(now: Instant, offsetMinutes: number): Instant {
  const midnight = Math.floor((now + offsetMinutes * MINUTE) / DAY) * DAY;
  const opensToday = (midnight + OPENS - offsetMinutes * MINUTE) as Instant;
  return theyAreThere(opensToday > now ? opensToday : ((opensToday + DAY) as Instant), offsetMinutes);
}

// Enough for any two weeks that have an hour in common.
const MOST_STEPS = 30;

/**
 * The first moment from `from` on that is working time for the office and for somebody outside, `offsetMinutes` being how
 * far her clock is ahead of UTC, null where it is not known. Null for an office that never opens; where the two are never
 * at work together, the office's hours count.
 */
export function firstForBoth(from: Instant, hours: WorkingHours, offsetMinutes: number | null): Instant | null {
  const ours = (at: Instant) => (isOpenAt(at, hours) ? at : nextOpening(at, hours));
  const first = ours(from);
  if (offsetMinutes === null || first === null) return first;
  let at = first;
  for (let step = 0; step < MOST_STEPS; step += 1) {
    const theirs = theyAreThere(at, offsetMinutes);
    const both = ours(theirs);
    if (both === null) return null;
    if (both === at) return at;
    at = both;
  }
  return first;
}
