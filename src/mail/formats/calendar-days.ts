import ICAL from "ical.js";
import { officeTexts } from "../../texts/en/office";
import { type Said, saidOf } from "../../texts/said";

/** The days of a calendar file, and what could not be read of it, each by the line where it begins. */
export type CalendarDays = {
  /** `YYYY-MM-DD`, each once, in order. */
  readonly days: readonly string[];
  readonly problems: readonly { readonly line: number; readonly words: Said }[];
};

const said = saidOf(officeTexts);

// A file of public holidays has some hundred entries, and none of them lasts for a season.
const MAX_EVENTS = 2_000;
const MAX_DAYS_EACH = 60;
const MAX_YEARS = 5;

/**
 * The days that the events of an iCalendar file (RFC 5545) are on, those of repeating ones for five years from `from`
 * (`YYYY-MM-DD`). An event that cannot be read is named with its line; the others count.
 */
export function calendarDays(text: string, from: string): CalendarDays {
  const days = new Set<string>();
  const problems: { line: number; words: Said }[] = [];
  const events = eventsOf(text);
  if (events.length === 0) return { days: [], problems: [{ line: 1, words: said("office.noEventInIt") }] };
  if (events.length > MAX_EVENTS)
    problems.push({ line: 1, words: said("office.onlyTheFirstEvents", { most: MAX_EVENTS }) });
  for (const { line, lines } of events.slice(0, MAX_EVENTS)) {
    try {
      for (const day of daysOf(lines, from)) days.add(day);
    } catch {
      problems.push({ line, words: said("office.eventHasNoDate") });
    }
  }
  return { days: [...days].toSorted(), problems };
}

type EventLines = { readonly line: number; readonly lines: readonly string[] };

// Read one by one, as one that is broken would take the others along.
function eventsOf(text: string): EventLines[] {
  const events: EventLines[] = [];
  let open: { line: number; lines: string[] } | null = null;
  for (const [at, line] of text.split(/\r?\n/).entries()) {
    if (/^BEGIN:VEVENT\s*$/i.test(line)) open = { line: at + 1, lines: [] };
    open?.lines.push(line);
    if (open !== null && /^END:VEVENT\s*$/i.test(line)) {
      events.push(open);
      open = null;
    }
  }
  return open === null ? events : [...events, open];
}

function daysOf(lines: readonly string[], from: string): string[] {
  const event = new ICAL.Event(new ICAL.Component(ICAL.parse(lines.join("\r\n"))));
  if (event.startDate === null || Number.isNaN(event.startDate.toJSDate().getTime())) throw new Error("no date");
  const length = Math.min(MAX_DAYS_EACH, lengthOf(event));
  if (!event.isRecurring()) return stretch(event.startDate, length);
  const last = `${Number(from.slice(0, 4)) + MAX_YEARS}${from.slice(4)}`;
  const days: string[] = [];
  const repeated = event.iterator();
  for (let next = repeated.next(); next !== null && next !== undefined; next = repeated.next()) {
    const day = dayOf(next);
    if (day > last) break;
    if (day >= from) days.push(...stretch(next, length));
  }
  return days;
}

function lengthOf({ startDate, endDate }: ICAL.Event): number {
  if (endDate === null || endDate === undefined) return 1;
  const days = (Date.parse(dayOf(endDate)) - Date.parse(dayOf(startDate))) / 86_400_000;
  // The end of a whole day is the day after it (RFC 5545 3.6.1).
  return Math.max(1, startDate.isDate ? days : days + 1);
}

function stretch(start: ICAL.Time, length: number): string[] {
  const begins = Date.parse(dayOf(start));
  return Array.from({ length }, (_, at) => new Date(begins + at * 86_400_000).toISOString().slice(0, 10));
}

function dayOf({ year, month, day }: ICAL.Time): string {
  return [String(year).padStart(4, "0"), String(month).padStart(2, "0"), String(day).padStart(2, "0")].join("-");
}
