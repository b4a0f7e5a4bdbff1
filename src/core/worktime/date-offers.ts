import { TZDate } from "@date-fns/tz";
import { timeTexts } from "../../texts/en/time";
import { type Said, saidOf } from "../../texts/said";
import { type Instant, instantOf } from "../kernel/instant";
import { zonedDay } from "../time/zoned-day";
import { type DateMention, datesIn } from "./dates-in-text";
import { closesToday, type DayEdge, nextOpening, type WorkingHours, workingDayAfter } from "./working-hours";

const said = saidOf(timeTexts);

/** A moment that is offered for a rest or a follow-up, and why. */
export type DateOffer = { readonly label: Said; readonly at: Instant };

// What a thread names further away than this is hardly meant as a date to work by.
const MAX_MENTIONS = 3;

/**
 * The moments to offer now: those that the office's hours give, then those that the texts of the thread name, none in the
 * past and none twice, the soonest first. A day named without a time means the opening on it, or eight o'clock where the office is closed.
 */
export function dateOffers(
  now: Instant,
  hours: WorkingHours,
  texts: readonly string[],
  edge: DayEdge = "opens",
): DateOffer[] {
  const inDays = (days: number) => workingDayAfter(now, days, hours)?.[edge] ?? null;
  const offers: (DateOffer | null)[] = [
    offer(said("time.beforeWeCloseToday"), closesToday(now, hours)),
    edge === "opens"
      ? offer(said("time.nextOpening"), nextOpening(now, hours))
      : offer(said("time.nextWorkingDay"), inDays(1)),
    offer(said("time.inWorkingDays", { count: 2 }), inDays(2)),
    offer(said("time.inWorkingDays", { count: 5 }), inDays(5)),
    offer(said("time.inWorkingDays", { count: 10 }), inDays(10)),
    offer(said("time.endOfTheMonth"), endOfMonth(now, hours)),
    ...mentions(now, hours, texts, edge),
  ];
  const kept: DateOffer[] = [];
  for (const one of offers) {
    if (one !== null && one.at > now && !kept.some(({ at }) => at === one.at)) kept.push(one);
  }
  return kept.toSorted((a, b) => a.at - b.at);
}

function offer(label: Said, at: Instant | null): DateOffer | null {
  return at === null ? null : { label, at };
}

function mentions(now: Instant, hours: WorkingHours, texts: readonly string[], edge: DayEdge): DateOffer[] {
  const found = texts.flatMap((text) => datesIn(text, now, hours, edge));
  const coming = found.filter(({ at }) => at > now).toSorted((a, b) => a.at - b.at);
  const named = new Map<Instant, DateMention>();
  for (const mention of coming) if (!named.has(mention.at)) named.set(mention.at, mention);
  return [...named.values()]
    .slice(0, MAX_MENTIONS)
    .map(({ at, words }) => ({ label: said("time.theyName", { words }), at }));
}

/** The closing of the last working day of the month of `now`; null for an office that never opens. */
export function endOfMonth(now: Instant, hours: WorkingHours): Instant | null {
  const { year, month } = zonedDay(now, hours.zone);
  const last = zonedDay(instantOf(new TZDate(year, month, 0, 12, 0, 0, hours.zone)), hours.zone).day;
  for (let day = last; day > 0; day -= 1) {
    const morning = instantOf(new TZDate(year, month - 1, day, 0, 0, 0, hours.zone));
    const closes = closesToday(morning, hours);
    if (closes !== null) return closes;
  }
  return null;
}
