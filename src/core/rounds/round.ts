import { TZDate } from "@date-fns/tz";
import type { RoundId } from "../kernel/ids";
import { DAY, type Instant, instantOf } from "../kernel/instant";
import { zonedDay } from "../time/zoned-day";
import type { WorkingHours } from "../worktime/hours";

/** Hours at which mail that rules hold back is let into the tray. */
export type Round = {
  readonly id: RoundId;
  readonly name: string;
  /** On each working day, in minutes after midnight of the tray's own clock, in order. */
  readonly times: readonly number[];
};

// Longer than any office is closed that has a next working day at all.
const DAYS_LOOKED_AT = 400;

/** The first moment of a round after another moment; null in a tray that has no working day within 400 days. */
export function nextRound({ times }: Pick<Round, "times">, after: Instant, hours: WorkingHours): Instant | null {
  const today = zonedDay(after, hours.zone).number;
  for (let ahead = 0; ahead <= DAYS_LOOKED_AT; ahead += 1) {
    const moment = momentsOn(today + ahead, times, hours).find((at) => at > after);
    if (moment !== undefined) return moment;
  }
  return null;
}

/** The last moment of a round that is over at another moment, or is that moment; null in a tray without a working day within 400 days. */
export function lastRound({ times }: Pick<Round, "times">, now: Instant, hours: WorkingHours): Instant | null {
  const today = zonedDay(now, hours.zone).number;
  for (let ago = 0; ago <= DAYS_LOOKED_AT; ago += 1) {
    const moment = momentsOn(today - ago, times, hours).findLast((at) => at <= now);
    if (moment !== undefined) return moment;
  }
  return null;
}

/**
 * Whether what has been held since a moment is to be let in: a round came since, or none will ever come. It is asked anew
 * each time, so that other times, holidays or clocks change what is held already.
 */
export function isRoundOver(
  round: Pick<Round, "times">,
  heldSince: Instant,
  now: Instant,
  hours: WorkingHours,
): boolean {
  const last = lastRound(round, now, hours);
  return (last !== null && last >= heldSince) || nextRound(round, now, hours) === null;
}

// A time that the clocks skip is as much later as they do; one that they have twice is one of the two.
function momentsOn(day: number, times: readonly number[], { zone, week, holidays }: WorkingHours): Instant[] {
  const date = new Date(day * DAY);
  const isWorkingDay = week[(date.getUTCDay() + 6) % 7] != null && !holidays.includes(date.toISOString().slice(0, 10));
  if (!isWorkingDay) return [];
  const [year, month, dayOfMonth] = [date.getUTCFullYear(), date.getUTCMonth(), date.getUTCDate()];
  return times
    .map((minutes) => instantOf(new TZDate(year, month, dayOfMonth, Math.floor(minutes / 60), minutes % 60, 0, zone)))
    .toSorted((a, b) => a - b);
}
