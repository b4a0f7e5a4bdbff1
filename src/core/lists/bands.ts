import { TZDate } from "@date-fns/tz";
import { listTexts } from "../../texts/en/list";
import { saidOf, type Wording } from "../../texts/said";
import { AGE_BUCKET_ENDS, AGE_BUCKET_NAMES } from "../flow/age-buckets";
import { type Instant, instantOf, later } from "../kernel/instant";
import { dayHeading } from "../time/day-words";
import { zonedDay } from "../time/zoned-day";

const said = saidOf(listTexts);

/** A stretch of time with a name: from (included) to (not included); null has no end on that side. */
export type Band = {
  readonly key: string;
  readonly name: Wording;
  readonly from: Instant | null;
  readonly to: Instant | null;
};

const MONTHS_NAMED = 12;

/** Midnight of the day so many days after the day of `at`, in a zone. */
function midnight(at: Instant, days: number, zone: string): Instant {
  const { year, month, day } = zonedDay(at, zone);
  return instantOf(new TZDate(year, month - 1, day + days, 0, 0, 0, zone));
}

/** The days that a list is grouped by, newest first, without gaps: today, yesterday, weeks, months, then everything before. */
export function dayBands(now: Instant, zone: string): Band[] {
  const today = zonedDay(now, zone);
  const monday = midnight(now, -today.weekday, zone);
  const month = (back: number) => instantOf(new TZDate(today.year, today.month - 1 - back, 1, 0, 0, 0, zone));
  const starts = [midnight(now, 0, zone), midnight(now, -1, zone), monday, midnight(now, -today.weekday - 7, zone)];
  for (let back = 0; back < MONTHS_NAMED; back += 1) starts.push(month(back));
  const bands: Band[] = [];
  let to: Instant | null = null;
  for (const from of starts) {
    if (to !== null && from >= to) continue;
    bands.push({ key: `d${bands.length}`, name: dayHeading(from, now, zone), from, to });
    to = from;
  }
  return [...bands, { key: `d${bands.length}`, name: said("list.earlierAsHeading"), from: null, to }];
}

/** By when something is due, soonest first; what has no date stands in no band. */
export function dueBands(now: Instant, zone: string): Band[] {
  const day = (days: number) => midnight(now, days, zone);
  const toMonday = 7 - zonedDay(now, zone).weekday;
  const edges: readonly (readonly [key: string, name: Wording, to: Instant | null])[] = [
    ["over", said("list.overdue"), now],
    ["today", said("list.today"), day(1)],
    ["tomorrow", said("list.tomorrow"), day(2)],
    ["week", said("list.laterThisWeek"), day(toMonday)],
    ["next-week", said("list.nextWeek"), day(toMonday + 7)],
    ["later", said("list.furtherOut"), null],
  ];
  const bands: Band[] = [];
  let from: Instant | null = null;
  for (const [key, name, to] of edges) {
    if (from !== null && to !== null && to <= from) continue;
    bands.push({ key, name, from, to });
    from = to;
  }
  return bands;
}

/** How long conversations have been in their standing, youngest first: the buckets of the flow bar. */
export function ageBands(now: Instant): Band[] {
  const ends = AGE_BUCKET_ENDS.map((age) => later(now, -age));
  return AGE_BUCKET_NAMES.map((name, at) => ({
    key: `a${at}`,
    name,
    from: ends[at] ?? null,
    to: ends[at - 1] ?? null,
  }));
}

/** The band that a moment lies in; null when it lies in none. */
export function bandOf(at: Instant, bands: readonly Band[]): Band | null {
  return bands.find(({ from, to }) => (from === null || at >= from) && (to === null || at < to)) ?? null;
}
