import { notificationsTexts } from "../../texts/en/notifications";
import { type Said, saidOf } from "../../texts/said";
import { DAY, type Instant, later } from "../kernel/instant";
import { LOOSE_END_NAMES, LOOSE_ENDS, type LooseEndKind } from "../loose-ends/loose-end";
import { calendarDay } from "../time/calendar-day";
import { zonedDay } from "../time/zoned-day";
import { nextOpening, type WorkingHours } from "../worktime/working-hours";

const said = saidOf(notificationsTexts);

/** A week that is to be summed up: the Monday that it ends before (ISO 8601), and its first and last moment. */
export type EndedWeek = { readonly monday: string; readonly from: Instant; readonly to: Instant };

/** The last week that is over, once the office has opened since; null before, and for one that never opens. */
export function endedWeek(now: Instant, hours: WorkingHours): EndedWeek | null {
  const today = zonedDay(now, hours.zone);
  const midnight = later(now, -((today.hour * 60 + today.minute) * 60_000 + (now % 60_000)));
  // Noon keeps to its day where the clocks change at night.
  const monday = calendarDay(later(midnight, DAY / 2 - today.weekday * DAY), hours.zone);
  const to = later(midnight, -today.weekday * DAY);
  const opens = nextOpening(later(to, -1), hours);
  return opens === null || opens > now ? null : { monday, from: later(to, -7 * DAY), to };
}

/** What was done in a week, and what would be forgotten at its end. */
export type WeekFigures = {
  readonly arrived: number;
  readonly answered: number;
  readonly settled: number;
  readonly ends: ReadonlyMap<LooseEndKind, number>;
};

const KINDS_NAMED = 3;

/** The week in one line: what came and went, then the loose ends, of which the most frequent are named. */
export function weekInWords({ arrived, answered, settled, ends }: WeekFigures): Said {
  const named = LOOSE_ENDS.map((kind) => ({ kind, count: ends.get(kind) ?? 0 }))
    .filter(({ count }) => count > 0)
    .toSorted((a, b) => b.count - a.count);
  const count = named.reduce((sum, one) => sum + one.count, 0);
  if (count === 0) return said("notifications.week", { arrived, answered, settled });
  const all = named
    .slice(0, KINDS_NAMED)
    .map((one) => said("notifications.looseEndsOfAKind", { count: one.count, kind: LOOSE_END_NAMES[one.kind] }));
  return said("notifications.weekWithLooseEnds", { arrived, answered, settled, count, ends: { all, by: "comma" } });
}
