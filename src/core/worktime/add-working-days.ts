import { tz } from "@date-fns/tz";
import { addBusinessDays, endOfDay } from "date-fns";
import { type Instant, instantOf } from "../kernel/instant";

/**
 * The end of the working day that is `days` working days (Monday to Friday) after the day of `from`, in an IANA time zone.
 * Throws a RangeError for a count that is not a whole number from 0 to 1,000.
 */
export function endOfWorkingDay(from: Instant, days: number, zone: string): Instant {
  if (!Number.isInteger(days) || days < 0 || days > 1_000) throw new RangeError(`${days} is no count of working days`);
  return instantOf(endOfDay(addBusinessDays(from, days, { in: tz(zone) }), { in: tz(zone) }));
}
