import { tz } from "@date-fns/tz";
import { add, type Duration } from "date-fns";
import { type Instant, instantOf } from "../kernel/instant";
import { spanOn, type WorkingHours } from "../worktime/working-hours";

/** How far from the day that a series is about its letters can go. */
const SERIES_STEPS = [
  "month-before",
  "two-weeks-before",
  "week-before",
  "three-days-before",
  "day-before",
  "on-day",
  "day-after",
  "week-after",
  "month-after",
] as const;
export type SeriesStep = (typeof SERIES_STEPS)[number];

const FROM_DAY: Readonly<Record<SeriesStep, Duration>> = {
  "month-before": { months: -1 },
  "two-weeks-before": { weeks: -2 },
  "week-before": { weeks: -1 },
  "three-days-before": { days: -3 },
  "day-before": { days: -1 },
  "on-day": { days: 0 },
  "day-after": { days: 1 },
  "week-after": { weeks: 1 },
  "month-after": { months: 1 },
};

/** A step of a series, and when its letter goes. */
export type SeriesMoment = { readonly step: SeriesStep; readonly at: Instant };

// Longer than any holidays.
const MOST_DAYS_AWAY = 21;

/**
 * When the letters of a series go that is about the day of `about` (in the zone of the hours): each when the office opens on
 * the day of its step, counted in calendar days, months as calendars have them (a month before 31 March is the end of February). Where
 * it is closed then, on the working day before; on the one after where it is a step behind the day. A step for which there is
 * none is left out.
 */
export function seriesMoments(about: Instant, hours: WorkingHours): SeriesMoment[] {
  return SERIES_STEPS.flatMap((step) => {
    const day = instantOf(add(about, FROM_DAY[step], { in: tz(hours.zone) }));
    const opens = openingNear(day, step.endsWith("after") ? 1 : -1, hours);
    return opens === null ? [] : [{ step, at: opens }];
  });
}

function openingNear(day: Instant, way: 1 | -1, hours: WorkingHours): Instant | null {
  for (let days = 0; days <= MOST_DAYS_AWAY; days += 1) {
    const span = spanOn(instantOf(add(day, { days: days * way }, { in: tz(hours.zone) })), hours);
    if (span !== null) return span.opens;
  }
  return null;
}

/** The most letters of one series. */
export const MOST_IN_SERIES = SERIES_STEPS.length;
