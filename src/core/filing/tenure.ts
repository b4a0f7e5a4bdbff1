import type { Label } from "./lesson";
import type { CasesByPeriod } from "./owned";

// So likely what somebody has passes to another from one period to the next.
const PASSES_ON = 0.03;
// Of what belongs to it, whoever has it gets so much beyond their usual share: half where it is shared, nearly all where it is theirs.
const WAYS_TO_HOLD = [0.5, 0.8, 0.95];
// Nobody is thought to have less than this of everything, nor all others together.
const LEAST_SHARE = 0.01;

type Usual = (label: Label) => number;
type Period = readonly [period: number, cases: readonly (readonly [label: Label, cases: number])[]];

/**
 * The share that each is likely to have of the next case of something that somebody has, and that passes from one to another
 * at times that nobody tells, given the cases until a period: who has it is followed from period to period (the forward
 * algorithm of a hidden Markov model; Rabiner 1989), for each of some ways to hold it, which count as much as they explain
 * what came (Bayesian model averaging; Hoeting et al. 1999). `usual` is the share that each has of everything.
 */
export function shareByTenure(cases: CasesByPeriod, until: number, usual: Usual): (label: Label) => number {
  const periods = inOrder(cases);
  const least = (label: Label) => Math.max(LEAST_SHARE, usual(label));
  const ways = WAYS_TO_HOLD.map((held) => ({ held, ...followed(periods, until, held, least) }));
  const most = Math.max(...ways.map(({ explained }) => explained));
  const weights = ways.map(({ explained }) => Math.exp(explained - most));
  const sum = weights.reduce((all, one) => all + one, 0);
  return (label) =>
    ways.reduce((share, { held, has }, at) => {
      const own = held * has(label) + (1 - held) * least(label);
      return share + ((weights[at] ?? 0) / sum) * own;
    }, 0);
}

function inOrder(cases: CasesByPeriod): Period[] {
  const periods = new Map<number, [Label, number][]>();
  for (const [label, all] of cases)
    for (const [period, count] of all) {
      const there = periods.get(period) ?? [];
      there.push([label, count]);
      periods.set(period, there);
    }
  return [...periods].toSorted(([a], [b]) => a - b);
}

// All that had no case are one, as nothing tells them apart.
const OTHERS: unique symbol = Symbol("all others");
type Holder = Label | typeof OTHERS;

/** How likely each is to have it in the end, and how well that explains the cases, as a logarithm. */
function followed(periods: readonly Period[], until: number, held: number, usual: Usual) {
  const start = startOf(periods, usual);
  let belief: ReadonlyMap<Holder, number> = start;
  let explained = 0;
  let last = periods[0]?.[0] ?? until;
  for (const [period, cases] of periods) {
    belief = passedOn(belief, start, period - last);
    last = period;
    // Against somebody else having it each case speaks for its owner; in logarithms, as of a thousand cases it is no number.
    const scores = new Map<Holder, number>([...belief].map(([holder, one]) => [holder, Math.log(one)]));
    for (const [label, count] of cases) {
      const elsewhere = (1 - held) * usual(label);
      scores.set(label, (scores.get(label) ?? 0) + count * Math.log(1 + held / elsewhere));
      explained += count * Math.log(elsewhere);
    }
    const most = Math.max(...scores.values());
    const powers = new Map<Holder, number>([...scores].map(([holder, score]) => [holder, Math.exp(score - most)]));
    const sum = [...powers.values()].reduce((all, one) => all + one, 0);
    explained += most + Math.log(sum);
    belief = new Map<Holder, number>([...powers].map(([holder, power]) => [holder, power / sum]));
  }
  const now = passedOn(belief, start, until - last);
  const ofOthers = (now.get(OTHERS) ?? 0) / (start.get(OTHERS) ?? 1);
  return { explained, has: (label: Label) => now.get(label) ?? ofOthers * usual(label) };
}

function startOf(periods: readonly Period[], usual: Usual): Map<Holder, number> {
  const labels = new Set(periods.flatMap(([, cases]) => cases.map(([label]) => label)));
  const shares = [...labels].map((label) => [label, usual(label)] as const);
  const seen = shares.reduce((all, [, share]) => all + share, 0);
  const others = Math.max(LEAST_SHARE, 1 - seen);
  return new Map<Holder, number>(
    [...shares, [OTHERS, others] as const].map(([holder, share]) => [holder, share / (seen + others)]),
  );
}

function passedOn(belief: ReadonlyMap<Holder, number>, start: ReadonlyMap<Holder, number>, periods: number) {
  const kept = (1 - PASSES_ON) ** periods;
  return new Map<Holder, number>(
    [...belief].map(([holder, one]) => [holder, kept * one + (1 - kept) * (start.get(holder) ?? 0)]),
  );
}
