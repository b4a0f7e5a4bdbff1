import { tz } from "@date-fns/tz";
import { add } from "date-fns";
import { recordsTexts } from "../../texts/en/records";
import { timeTexts } from "../../texts/en/time";
import { type Listed, type Said, saidOf } from "../../texts/said";
import { dateOf, type Instant, instantOf } from "../kernel/instant";
import { err, ok, type Result } from "../kernel/result";

const said = saidOf(recordsTexts, timeTexts);

/** How long something is kept: whole years, months, weeks and days. */
export type Period = { readonly years: number; readonly months: number; readonly weeks: number; readonly days: number };

const MAX_YEARS = 500;
const DURATION = /^P(?=\d)(?:(\d{1,4})Y)?(?:(\d{1,4})M)?(?:(\d{1,4})W)?(?:(\d{1,5})D)?$/;

/**
 * Reads a duration of ISO 8601 (5.5.2.2) in whole days or more: `P10Y`, `P1Y6M`, `P8W`. Refuses times of the day, nothing
 * at all, and more than 500 years, in a sentence.
 */
export function readPeriod(text: string): Result<Period, Said> {
  const match = DURATION.exec(text.trim().toUpperCase());
  if (match === null) return err(said("records.writeHowLongAsP10y"));
  const [years = 0, months = 0, weeks = 0, days = 0] = match.slice(1).map((part) => Number(part ?? 0));
  if (years + months + weeks + days === 0) return err(said("records.nothingIsKeptForNo"));
  if (years + months / 12 + weeks / 52 + days / 365 > MAX_YEARS)
    return err(said("records.atMostYears", { most: MAX_YEARS }));
  return ok({ years, months, weeks, days });
}

/** The moment a period after another, by the calendar of an IANA time zone: a month after 31 January is the end of February. */
export function afterPeriod(from: Instant, period: Period, zone: string): Instant {
  return instantOf(add(dateOf(from), period, { in: tz(zone) }));
}

/** A period in words: "10 years", "1 year and 6 months". */
export function periodInWords({ years, months, weeks, days }: Period): Listed {
  const parts = [
    said("records.years", { count: years }),
    said("records.months", { count: months }),
    said("records.weeks", { count: weeks }),
    said("time.days", { count: days }),
  ].filter(({ values }) => values.count !== 0);
  return { all: parts, by: "and" };
}
