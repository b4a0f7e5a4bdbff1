import { DAY, type Instant } from "../kernel/instant";

// Who answers for what changes: what was decided counts half as much after so long.
const HALF_LIFE = 30 * DAY;
const PERIOD = 20 * DAY;

/** So many periods back, what was decided counts for hardly anything, and is not asked about. */
export const ASKED_PERIODS = 14;

/** The period that a moment lies in, by which it is counted. */
export function periodOf(at: Instant): number {
  return Math.floor(at / PERIOD);
}

/** How much a case of a period counts now, from 0 to 1. */
export function fadedTo(period: number, now: Instant): number {
  return 2 ** ((-Math.max(0, periodOf(now) - period) * PERIOD) / HALF_LIFE);
}
