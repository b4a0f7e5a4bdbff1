import { EVERYTHING } from "./features";
import { DECIDED, type Label } from "./lesson";

/** By feature: how often each label was given where it was there; `*` how often anything was decided. */
export type Counts = ReadonlyMap<string, ReadonlyMap<Label, number>>;

/** In how many of how many cases. */
export type Told = { readonly was: number; readonly of: number };

const NOTHING_TOLD: Told = { was: 0, of: 0 };

/** How often each label was given where a feature was; undefined for a feature that was never there. */
export type Labelled = ReadonlyMap<Label, number> | undefined;

/** In how many of the cases with a feature a label was given. */
export function told(counts: Counts, feature: string, label: Label): Told {
  return toldIn(counts.get(feature), label);
}

/** The same where the feature was looked up already, for many labels. */
export function toldIn(labels: Labelled, label: Label): Told {
  return labels === undefined ? NOTHING_TOLD : { was: labels.get(label) ?? 0, of: labels.get(DECIDED) ?? 0 };
}

// Of what was never given, a fiftieth of one case is imagined.
const NEVER = 0.02;

/** The share of all cases in which a label was given, a little more than none. */
export function usualShare(counts: Counts, label: Label): number {
  const { was, of } = told(counts, EVERYTHING, label);
  return clamped((was + NEVER) / (of + 1));
}

/** A share with so many imagined cases of the usual one beside what was counted. */
export const drawn = ({ was, of }: Told, usual: number, imagined: number): number =>
  (was + imagined * usual) / (of + imagined);

const LEAST = 1e-4;
export const clamped = (share: number): number => Math.min(1 - LEAST, Math.max(LEAST, share));
export const logOdds = (share: number): number => Math.log(clamped(share) / (1 - clamped(share)));
export const likelihood = (score: number): number => 1 / (1 + Math.exp(-score));

/** What a share says against the usual one, in log odds. */
export function saysOdds(one: Told, usual: number, imagined: number, usualOdds = logOdds(usual)): number {
  return one.of === 0 ? 0 : logOdds(drawn(one, usual, imagined)) - usualOdds;
}

/** How scores share out a certainty of one between those of whom one is right (softmax). */
export function sharedOut(scores: readonly number[]): number[] {
  const most = Math.max(...scores);
  const powers = scores.map((score) => Math.exp(score - most));
  const sum = powers.reduce((all, one) => all + one, 0);
  return powers.map((power) => power / sum);
}

export const between = (least: number, value: number, most: number): number => Math.min(most, Math.max(least, value));
