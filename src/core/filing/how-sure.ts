import { BANDS, calibration, NO_RECORD } from "./calibration";
import type { Evidence, ProposalKind } from "./evidence";

/** How sure a proposal has to be, by what an error costs whoever decides: one more key, or a look at each. */
export const HOW_SURE = ["often", "sure"] as const;
export type HowSure = (typeof HOW_SURE)[number];

/** From which confidence on something is said. */
export const LEAST: { readonly [H in HowSure]: Readonly<Record<ProposalKind, number>> } = {
  sure: { file: 0.8, categorise: 0.8, assign: 0.75, settle: 0.8 },
  often: { file: 0.35, categorise: 0.48, assign: 0.35, settle: 0.5 },
};

/** Shares from 0 to 1: how much of what was decided would have been proposed, and how much of what is proposed is right. */
export type HowOften = { readonly proposed: number; readonly right: number };

// Of fewer outcomes no share is worth saying.
const MIN_OUTCOMES = 30;

/** What a tray's track records say of a choice; null where too little came of what was proposed. */
export function howOften(records: Evidence["records"], howSure: HowSure): HowOften | null {
  const sum = { said: 0, right: 0, decided: 0, all: 0 };
  for (const kind of Object.keys(LEAST[howSure]) as ProposalKind[]) {
    const record = records[kind] ?? NO_RECORD;
    const taken = calibration(record);
    for (const [at, { said, right }] of record.entries()) {
      sum.all += said;
      sum.decided += right;
      if (taken((at + 0.5) / BANDS) < LEAST[howSure][kind]) continue;
      sum.said += said;
      sum.right += right;
    }
  }
  if (sum.all < MIN_OUTCOMES || sum.said === 0 || sum.decided === 0) return null;
  return { proposed: sum.right / sum.decided, right: sum.right / sum.said };
}
