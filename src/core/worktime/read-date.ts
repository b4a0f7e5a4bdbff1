import { timeTexts } from "../../texts/en/time";
import { type Said, saidOf } from "../../texts/said";
import type { Instant } from "../kernel/instant";
import { err, ok, type Result } from "../kernel/result";
import { calendarDay } from "../time/calendar-day";
import { endOfMonth } from "./date-offers";
import { type ClockTime, clockTimesIn, momentOf, otherReading } from "./dates-in-text";
import {
  addWorkingHours,
  closesToday,
  type DayEdge,
  nextOpening,
  type WorkingHours,
  workingDayAfter,
} from "./working-hours";

const said = saidOf(timeTexts);

/** Why a text is no date to work by. */
export type DateProblem = "empty" | "not-understood" | "past" | "no-such-time" | "closed-for-good";

type OwnWords = readonly [
  pattern: RegExp,
  at: (now: Instant, hours: WorkingHours, count: number, edge: DayEdge) => Instant | null,
];

// Words about the office's own hours, which no library of dates knows.
const OWN_WORDS: readonly OwnWords[] = [
  [/^(?:in )?(\d{1,3}) working days?$/, (now, hours, days, edge) => inWorkingDays(now, hours, days, edge)],
  [/^(?:in )?(\d{1,3}) working hours?$/, (now, hours, count) => addWorkingHours(now, count, hours)],
  [/^(?:before we close|close|closing)(?: today)?$/, (now, hours) => closesToday(now, hours)],
  [/^next opening$/, (now, hours) => nextOpening(now, hours)],
  [/^next working day$/, (now, hours, _, edge) => inWorkingDays(now, hours, 1, edge)],
  [/^end of (?:the |this )?month$/, (now, hours) => endOfMonth(now, hours)],
];

/**
 * The moment that somebody means who enters a date: words about working time ("in 3 working days", "next opening",
 * "before we close", "end of month"), else a date in words or figures ("fri 10", "12 Dec", "2026-12-12 14:30"), seen from
 * `now` on the clock of the office. A day alone means its opening
 * or its closing, as `edge` says. The past, and a time that the clocks skip, are
 * problems and never moved.
 */
export function readDate(
  text: string,
  now: Instant,
  hours: WorkingHours,
  edge: DayEdge = "opens",
): Result<Instant, DateProblem> {
  const words = text.trim().toLowerCase().replace(/\s+/g, " ");
  if (words === "") return err("empty");
  for (const [pattern, meaning] of OWN_WORDS) {
    const found = pattern.exec(words);
    if (found === null) continue;
    const at = meaning(now, hours, Number(found[1] ?? 0), edge);
    return at === null ? err("closed-for-good") : notPast(at, now);
  }
  const named = namedIn(words, now, hours);
  if (named === undefined) return err("not-understood");
  const at = momentOf(named, hours, edge);
  return at === null ? err("no-such-time") : notPast(at, now);
}

/**
 * The calendar day (`YYYY-MM-DD`, in the zone of the office) that somebody means: the same words and figures as a moment
 * has, without their hour. A day that is over is right as well ("yesterday", "3 Nov 2025").
 */
export function readDay(text: string, now: Instant, hours: WorkingHours): Result<string, DateProblem> {
  const words = text.trim().toLowerCase().replace(/\s+/g, " ");
  if (words === "") return err("empty");
  for (const [pattern, meaning] of OWN_WORDS) {
    const found = pattern.exec(words);
    if (found === null) continue;
    const at = meaning(now, hours, Number(found[1] ?? 0), "opens");
    return at === null ? err("closed-for-good") : ok(calendarDay(at, hours.zone));
  }
  const named = namedIn(words, now, hours);
  if (named === undefined) return err("not-understood");
  const parts = [named.year, named.month, named.day].map((part, at) => String(part).padStart(at === 0 ? 4 : 2, "0"));
  return ok(parts.join("-"));
}

function namedIn(words: string, now: Instant, hours: WorkingHours): ClockTime | undefined {
  return clockTimesIn(withHour(words), now, hours.zone)[0];
}

/** The other moment that a date may mean, to those who write the month first ("3/4") or count from another week ("next fri"); null where there is one reading. */
export function otherDate(text: string, now: Instant, hours: WorkingHours, edge: DayEdge = "opens"): Instant | null {
  const named = namedIn(text.trim().toLowerCase(), now, hours);
  const other = named === undefined ? null : otherReading(named, now, hours, edge);
  return other !== null && other > now ? other : null;
}

function inWorkingDays(now: Instant, hours: WorkingHours, days: number, edge: DayEdge): Instant | null {
  return days >= 1 && days <= 500 ? (workingDayAfter(now, days, hours)?.[edge] ?? null) : null;
}

function notPast(at: Instant, now: Instant): Result<Instant, DateProblem> {
  return at > now ? ok(at) : err("past");
}

// "fri 10" means ten o'clock to somebody who types it; to a library it is a day and a number.
function withHour(words: string): string {
  return words.replace(
    /^((?:next )?(?:mon|tue|wed|thu|fri|sat|sun)[a-z]*|today|tomorrow) (\d{1,2})(?:[.:](\d\d))?$/,
    (_, day: string, hour: string, minute = "00") => `${day} at ${hour}:${minute}`,
  );
}

/** A problem with a date as the person who entered it reads it. */
export function dateProblemInWords(problem: DateProblem): Said {
  switch (problem) {
    case "empty":
      return said("time.sayUntilWhen");
    case "not-understood":
      return said("time.thatIsNoDate");
    case "past":
      return said("time.thatIsPast");
    case "no-such-time":
      return said("time.thereIsNoSuchTime");
    case "closed-for-good":
      return said("time.hoursGiveNoSuchTime");
  }
}
