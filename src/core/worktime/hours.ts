import type { Instant } from "../kernel/instant";

/** A stretch of a day, in minutes after midnight of the office's own clock. */
export type DayPart = { readonly from: number; readonly to: number };

/** When an office is open on a weekday, but for its breaks. */
export type OpenHours = DayPart & { readonly breaks?: readonly DayPart[] };

/** The hours of a tray: a week, Monday first, null for a day it is closed; its holidays as `YYYY-MM-DD`. */
export type WorkingHours = {
  /** IANA time zone that the hours are meant in. */
  readonly zone: string;
  readonly week: readonly (OpenHours | null)[];
  readonly holidays: readonly string[];
};

/** A stretch in which the office is open. */
export type OpenSpan = { readonly opens: Instant; readonly closes: Instant };
