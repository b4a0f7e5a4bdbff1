import { tzOffset } from "@date-fns/tz";
import { DAY, type Instant, instant, MINUTE } from "../kernel/instant";
import type { OpenHours, OpenSpan, WorkingHours } from "./hours";

/** The open spans of a calendar year of an office, in order, with how long it was open before each. */
export type YearTable = {
  readonly spans: readonly OpenSpan[];
  /** Open time of the year before each span, in milliseconds, and of the whole year after the last. */
  readonly before: readonly number[];
  readonly total: number;
};

const tables = new WeakMap<WorkingHours, Map<number, YearTable>>();

/** The table of a year, worked out once for these hours: what follows is looked up in it. */
export function yearTable(year: number, hours: WorkingHours): YearTable {
  const known = tables.get(hours) ?? new Map<number, YearTable>();
  tables.set(hours, known);
  const table = known.get(year) ?? madeTable(year, hours);
  known.set(year, table);
  return table;
}

function madeTable(year: number, hours: WorkingHours): YearTable {
  const spans = spansOfYear(year, hours);
  let total = 0;
  const before = spans.map(({ opens, closes }) => {
    const sofar = total;
    total += closes - opens;
    return sofar;
  });
  return { spans, before, total };
}

// The clock of a zone runs evenly between two changes. In each such stretch a local day is a day of UTC, moved.
function spansOfYear(year: number, hours: WorkingHours): OpenSpan[] {
  const holidays = new Set(hours.holidays);
  const spans: OpenSpan[] = [];
  for (const { from, to, offset } of stretchesOf(year, hours.zone)) {
    for (let day = Math.floor((from + offset) / DAY) * DAY; day < to + offset; day += DAY) {
      const date = new Date(day);
      if (date.getUTCFullYear() !== year || holidays.has(date.toISOString().slice(0, 10))) continue;
      for (const part of partsOfDay(hours.week[(date.getUTCDay() + 6) % 7] ?? null)) {
        const opens = Math.max(from, day - offset + part.from * MINUTE);
        const closes = Math.min(to, day - offset + part.to * MINUTE);
        if (closes > opens) addSpan(spans, instant(opens), instant(closes), from);
      }
    }
  }
  return spans;
}

// What a change of the clocks cuts in two is one span all the same.
function addSpan(spans: OpenSpan[], opens: Instant, closes: Instant, stretch: number): void {
  const last = spans.at(-1);
  if (last !== undefined && last.closes === opens && opens === stretch) {
    spans[spans.length - 1] = { opens: last.opens, closes };
  } else spans.push({ opens, closes });
}

function partsOfDay(open: OpenHours | null): { readonly from: number; readonly to: number }[] {
  if (open === null || open.to <= open.from) return [];
  let from = open.from;
  const parts: { from: number; to: number }[] = [];
  for (const pause of (open.breaks ?? []).toSorted((a, b) => a.from - b.from)) {
    if (pause.from > from) parts.push({ from, to: Math.min(pause.from, open.to) });
    from = Math.max(from, pause.to);
  }
  return from < open.to ? [...parts, { from, to: open.to }] : parts;
}

type Stretch = { readonly from: number; readonly to: number; readonly offset: number };

// A year of any zone, with the days at its edges that are of it elsewhere.
function stretchesOf(year: number, zone: string): Stretch[] {
  const end = Date.UTC(year + 1, 0, 1) + DAY;
  const stretches: Stretch[] = [];
  let from = Date.UTC(year, 0, 1) - DAY;
  let offset = offsetAt(from, zone);
  for (let at = from + DAY; at <= end; at += DAY) {
    if (offsetAt(at, zone) === offset) continue;
    const change = changeBetween(at - DAY, at, offset, zone);
    stretches.push({ from, to: change, offset });
    from = change;
    offset = offsetAt(change, zone);
  }
  return [...stretches, { from, to: end, offset }];
}

function changeBetween(before: number, after: number, offset: number, zone: string): number {
  let [low, high] = [before, after];
  while (high - low > MINUTE) {
    const middle = low + Math.floor((high - low) / MINUTE / 2) * MINUTE;
    if (offsetAt(middle, zone) === offset) low = middle;
    else high = middle;
  }
  return high;
}

function offsetAt(at: number, zone: string): number {
  return tzOffset(zone, new Date(at)) * MINUTE;
}

/** The place of the first span that ends after a moment; the number of spans where none does. */
export function placeAfter({ spans }: YearTable, at: Instant): number {
  let [low, high] = [0, spans.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((spans[middle]?.closes ?? 0) > at) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** How long the office was open in the year up to a moment, in milliseconds. */
export function openBefore(table: YearTable, at: Instant): number {
  const place = placeAfter(table, at);
  const span = table.spans[place];
  if (span === undefined) return table.total;
  return (table.before[place] ?? 0) + Math.max(0, at - span.opens);
}

/** The moment at which the office has been open for so long in the year; null when it is not that long. */
export function momentAfter(table: YearTable, open: number): Instant | null {
  if (open > table.total) return null;
  let [low, high] = [0, table.spans.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    const end = table.before[middle + 1] ?? table.total;
    if (end >= open) high = middle;
    else low = middle + 1;
  }
  const span = table.spans[low];
  return span === undefined ? null : instant(span.opens + open - (table.before[low] ?? 0));
}
