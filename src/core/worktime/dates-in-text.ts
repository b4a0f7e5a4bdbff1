import { TZDate } from "@date-fns/tz";
import * as chrono from "chrono-node";
import { type Instant, instantOf } from "../kernel/instant";
import { zonedDay } from "../standing/zoned-day";
import { type DayEdge, spanOn, type WorkingHours } from "./working-hours";

/** A date that a text names: the moment it means, and the words it was named with. */
export type DateMention = { readonly at: Instant; readonly words: string; readonly hasTime: boolean };

/** A moment on a calendar and clock, before it is known whether that clock ever shows it. */
export type ClockTime = {
  readonly year: number;
  readonly month: number;
  readonly day: number;
  /** Null where only a day is named. */
  readonly hour: number | null;
  readonly minute: number;
  readonly words: string;
  /** "In two hours": counted from now, which in a letter is its writer's now and hardly ever a date to work by. */
  readonly isSpan: boolean;
};

const LANGUAGES = [chrono.en.GB, chrono.de.casual, chrono.fr.casual, chrono.nl.casual, chrono.es.casual];
// Reading a date takes a fraction of a millisecond a line; nobody names a date to work by after this much text.
const MAX_CHARACTERS = 4_000;
const CLOSED_DAY = { opens: 8, closes: 17 } as const;

/**
 * The dates that a text names, in order of the text, seen from `now` on the clock of `hours.zone`: English with the day
 * before the month, then German, French, Dutch and Spanish where English finds none. A day without a time means the
 * opening on it or its closing, as `edge` says. What names no day ("at ten", "two hours") is left out.
 */
export function datesIn(text: string, now: Instant, hours: WorkingHours, edge: DayEdge = "opens"): DateMention[] {
  return clockTimesIn(text, now, hours.zone).flatMap((named) => {
    if (named.isSpan) return [];
    const at = named.hour === null ? edgeOf(named, hours, edge) : clockInstant(named, hours.zone);
    return at === null ? [] : [{ at, words: named.words, hasTime: named.hour !== null }];
  });
}

/** What a text names as days and times, in the first of the languages that finds any. */
export function clockTimesIn(text: string, now: Instant, zone: string): ClockTime[] {
  const reference = { instant: new Date(now), timezone: offsetMinutes(now, zone) };
  for (const language of LANGUAGES) {
    const found = language.parse(text.slice(0, MAX_CHARACTERS), reference, { forwardDate: true });
    const named = found.filter(({ start }) => namesDay(start)).map(({ start, text: words }) => timeOf(start, words));
    if (named.length > 0) return named;
  }
  return [];
}

function namesDay(start: chrono.ParsedComponents): boolean {
  return start.isCertain("day") || start.isCertain("weekday");
}

function timeOf(start: chrono.ParsedComponents, words: string): ClockTime {
  return {
    year: start.get("year") ?? 0,
    month: start.get("month") ?? 0,
    day: start.get("day") ?? 0,
    hour: start.isCertain("hour") ? (start.get("hour") ?? null) : null,
    minute: start.isCertain("hour") ? (start.get("minute") ?? 0) : 0,
    words: words.trim(),
    isSpan: start.tags().has("result/relativeDateAndTime"),
  };
}

/** The moment when the clock of a zone shows this; null where it never does, as the clocks skip it or the day is none. */
export function clockInstant({ year, month, day, hour, minute }: ClockTime, zone: string): Instant | null {
  const at = instantOf(new TZDate(year, month - 1, day, hour ?? 0, minute, 0, zone));
  const shown = zonedDay(at, zone);
  const same = shown.day === day && shown.month === month && (hour === null || shown.hour === hour);
  return same && shown.minute === minute ? at : null;
}

/** When the office opens or closes on a named day; eight or seventeen o'clock where it is closed; null for no day. */
export function edgeOf(named: ClockTime, hours: WorkingHours, edge: DayEdge): Instant | null {
  // Noon is a time that every day has.
  const noon = clockInstant({ ...named, hour: 12, minute: 0 }, hours.zone);
  if (noon === null) return null;
  const span = spanOn(noon, hours);
  return span?.[edge] ?? clockInstant({ ...named, hour: CLOSED_DAY[edge], minute: 0 }, hours.zone);
}

function offsetMinutes(at: Instant, zone: string): number {
  return -new TZDate(at, zone).getTimezoneOffset();
}
