import type { Instant } from "../kernel/instant";
import { ASKED_PERIODS, fadedTo, periodOf } from "./fading";
import { DECIDED, type Label } from "./lesson";
import type { Counts } from "./shares";

/** How many cases each owner had in each period, of what has one feature. */
export type CasesByPeriod = ReadonlyMap<Label, readonly (readonly [period: number, cases: number])[]>;

/** Who owned what has some features, as it is known in a period. */
export type Owned = {
  readonly period: number;
  readonly cases: ReadonlyMap<string, CasesByPeriod>;
  /** The same with each case counting less the longer ago it was, `*` being all of them. */
  readonly faded: Counts;
};

/** What was counted, as it is known at a moment: what is too long ago is left out. */
export function ownedAt(counted: ReadonlyMap<string, CasesByPeriod>, now: Instant): Owned {
  const period = periodOf(now);
  const cases = new Map([...counted].map(([feature, labels]) => [feature, lately(labels, period)]));
  return { period, cases, faded: new Map([...cases].map(([feature, labels]) => [feature, faded(labels, now)])) };
}

function lately(labels: CasesByPeriod, period: number): CasesByPeriod {
  return new Map(
    [...labels].map(([label, all]) => [label, all.filter(([at, cases]) => cases > 0 && at > period - ASKED_PERIODS)]),
  );
}

function faded(labels: CasesByPeriod, now: Instant): Map<Label, number> {
  const counts = new Map(
    [...labels].map(([label, all]) => [label, all.reduce((sum, [at, cases]) => sum + cases * fadedTo(at, now), 0)]),
  );
  const all = [...counts.values()].reduce((sum, one) => sum + one, 0);
  return counts.set(DECIDED, all);
}
