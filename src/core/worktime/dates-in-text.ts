import { TZDate } from "@date-fns/tz";
import * as chrono from "chrono-node";
import { DAY, type Instant, instantOf } from "../kernel/instant";
import { zonedDay } from "../time/zoned-day";
import { type DayEdge, spanOn, type WorkingHours } from "./working-hours";

/**
 * A date that a text names: the moment it means, and the words it was named with. `other` is what the same words mean to
 * others: figures to those who write the month first ("3/4"), a day of the week to those who count from another week ("next
 * Friday", or "Friday" on a Friday); null where only one reading makes a date.
 */
export type DateMention = {
  readonly at: Instant;
  readonly other: Instant | null;
  readonly words: string;
  readonly hasTime: boolean;
};

/** A moment on a calendar and clock, before it is known whether that clock ever shows it. */
export type ClockTime = {
  readonly year: number;
  readonly month: number;
  readonly day: number;
  /** Null where only a day is named. */
  readonly hour: number | null;
  readonly minute: number;
  readonly words: string;
  /** Named by its day of the week alone. */
  readonly isWeekday: boolean;
  /** "In two hours": counted from now, which in a letter is its writer's now and hardly ever a date to work by. */
  readonly isSpan: boolean;
};

// "The 8th", which is the next one there is, and hours in words.
const english = chrono.en.GB.clone();
const HOURS = ["one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"];
english.parsers.push(
  {
    pattern: () =>
      /\bthe (\d{1,2})(?:st|nd|rd|th)\b(?! (?:of|jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec|floor|time|edition|century))/i,
    extract: ({ refDate }, match) => {
      const day = Number(match[1]);
      if (day < 1 || day > 31) return null;
      const month = refDate.getMonth() + (day < refDate.getDate() ? 1 : 0);
      const named = new Date(refDate.getFullYear(), month, day);
      return { day: named.getDate(), month: named.getMonth() + 1, year: named.getFullYear() };
    },
  },
  {
    pattern: () =>
      new RegExp(
        `\\b(?:at|around|about) (${HOURS.join("|")}|noon)(?: o['’]clock)?(?![ -][a-z]*(?:percent|pieces|metres|hundred))\\b`,
        "i",
      ),
    extract: (_, match) => {
      const word = (match[1] ?? "").toLowerCase();
      const hour = word === "noon" ? 12 : HOURS.indexOf(word) + 1;
      // Nobody means the small hours who writes from an office.
      return { hour: hour < 7 ? hour + 12 : hour, minute: 0 };
    },
  },
);

const LANGUAGES = [english, chrono.de.casual, chrono.fr.casual, chrono.nl.casual, chrono.es.casual];
// What the library reads as a date and is none: the beginning of a month in another language ("4 d"), little words that
// are days there ("do"), and days that no calendar knows ("the day", "in the week").
const NO_DATE = /^(?:\d+ ?[a-z]|[a-z]{1,2}\.?|(?:in |on |at )?(?:the|a|this very) (?:day|week|month|year))$/i;
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
    const at = momentOf(named, hours, edge);
    if (at === null) return [];
    return [{ at, other: otherReading(named, now, hours, edge), words: named.words, hasTime: named.hour !== null }];
  });
}

/** The moment that is named: its own time, else the edge of its day; null for a day or a time that there is not. */
export function momentOf(named: ClockTime, hours: WorkingHours, edge: DayEdge): Instant | null {
  return named.hour === null ? edgeOf(named, hours, edge) : clockInstant(named, hours.zone);
}

// With points between them the day comes first everywhere (ISO 8601 is the only other way, and has its own marks).
const TWO_NUMBERS = /\b(\d{1,2})\/(\d{1,2})(\/\d{2,4})?\b/;

// The Friday of this week to some, of the week after to others; with the week said there is no doubt.
const NEXT = /\b(?:next|nächste[nrs]?|prochaine?|volgende|próxim[oa])\b(?! (?:week|woche|semaine|semana))/iu;
const WHICH_WEEK = /\b(?:this|diese[nrs]?|ce|cette|deze|este|week|woche|semaine|semana)\b/iu;

/** The other moment that a date may mean, as a `DateMention` has it; null where there is one reading. */
export function otherReading(named: ClockTime, now: Instant, hours: WorkingHours, edge: DayEdge): Instant | null {
  return monthFirst(named, now, hours, edge) ?? ofAnotherWeek(named, now, hours, edge);
}

function monthFirst(named: ClockTime, now: Instant, hours: WorkingHours, edge: DayEdge): Instant | null {
  const [, first = "", second = "", year] = TWO_NUMBERS.exec(named.words) ?? [];
  if (first === second || Number(first) !== named.day || Number(second) !== named.month) return null;
  const swapped = { ...named, day: named.month, month: named.day };
  const at = momentOf(swapped, hours, edge);
  if (at === null || at > now || year !== undefined) return at;
  return momentOf({ ...swapped, year: swapped.year + 1 }, hours, edge);
}

function ofAnotherWeek(named: ClockTime, now: Instant, hours: WorkingHours, edge: DayEdge): Instant | null {
  if (!named.isWeekday) return null;
  const today = zonedDay(now, hours.zone);
  const daysOff =
    (Date.UTC(named.year, named.month - 1, named.day) - Date.UTC(today.year, today.month - 1, today.day)) / DAY;
  if (NEXT.test(named.words)) return daysOff > 7 ? momentOf(daysLater(named, -7), hours, edge) : null;
  return daysOff === 0 && !WHICH_WEEK.test(named.words) ? momentOf(daysLater(named, 7), hours, edge) : null;
}

function daysLater(named: ClockTime, days: number): ClockTime {
  const day = new Date(Date.UTC(named.year, named.month - 1, named.day + days));
  return { ...named, year: day.getUTCFullYear(), month: day.getUTCMonth() + 1, day: day.getUTCDate() };
}

/** What a text names as days and times, in the first of the languages that finds any. */
export function clockTimesIn(text: string, now: Instant, zone: string): ClockTime[] {
  const reference = { instant: new Date(now), timezone: offsetMinutes(now, zone) };
  for (const language of LANGUAGES) {
    const found = language.parse(text.slice(0, MAX_CHARACTERS), reference, { forwardDate: true });
    const named = found
      .filter(({ start, text: words }) => namesDay(start) && !NO_DATE.test(words))
      .map(({ start, text: words }) => timeOf(start, words));
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
    isWeekday: start.isCertain("weekday") && !start.isCertain("day"),
    isSpan: start.tags().has("result/relativeDateAndTime"),
  };
}

/** The moment when the clock of a zone shows this; null where it never does, as the clocks skip it or the day is none. */
function clockInstant({ year, month, day, hour, minute }: ClockTime, zone: string): Instant | null {
  const at = instantOf(new TZDate(year, month - 1, day, hour ?? 0, minute, 0, zone));
  const shown = zonedDay(at, zone);
  const same = shown.day === day && shown.month === month && (hour === null || shown.hour === hour);
  return same && shown.minute === minute ? at : null;
}

/** When the office opens or closes on a named day; eight or seventeen o'clock where it is closed; null for no day. */
function edgeOf(named: ClockTime, hours: WorkingHours, edge: DayEdge): Instant | null {
  // Noon is a time that every day has.
  const noon = clockInstant({ ...named, hour: 12, minute: 0 }, hours.zone);
  if (noon === null) return null;
  const span = spanOn(noon, hours);
  return span?.[edge] ?? clockInstant({ ...named, hour: CLOSED_DAY[edge], minute: 0 }, hours.zone);
}

function offsetMinutes(at: Instant, zone: string): number {
  return -new TZDate(at, zone).getTimezoneOffset();
}
