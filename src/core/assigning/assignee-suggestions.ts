import type { MemberId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";

/** Of so many conversations that somebody dealt with, those that one colleague did. */
export type Share = { readonly hers: number; readonly all: number };

/** What speaks for and against a colleague taking a conversation. */
export type Candidate = {
  readonly memberId: MemberId;
  readonly withPerson: Share;
  readonly withRecord: Share;
  readonly withCategory: Share;
  /** As `loadOf` weighs it. */
  readonly load: number;
  readonly open: number;
  /** Until when she is away; null when she is not. */
  readonly awayUntil: Instant | null;
  /** When her next working hours begin; null when she is at work now. */
  readonly atWorkFrom: Instant | null;
};

export type AssigneeSuggestions = Candidate & {
  readonly score: number;
  /** True for who has least on the desk of all who are there. */
  readonly hasLeast: boolean;
};

const WEIGHTS = { person: 0.5, record: 0.3, category: 0.2 } as const;
// Two imagined conversations of nobody's: one of one says less than nine of ten.
const IMAGINED = 2;
// Who knows the matter well takes it even with a full desk; between those who do not, the load decides.
const MOST_FOR_LOAD = 0.2;
const NOT_AT_WORK = 0.1;

/**
 * Colleagues in the order in which they could best take a conversation: who knows the person, the record and the kind of
 * matter, less what she has on the desk already against the others' average; those who are away come last, whatever they know.
 */
export function suggestAssignees(candidates: readonly Candidate[]): AssigneeSuggestions[] {
  const there = candidates.filter(({ awayUntil }) => awayUntil === null);
  const average = there.reduce((sum, { load }) => sum + load, 0) / Math.max(1, there.length);
  const least = Math.min(...there.map(({ load }) => load));
  return candidates
    .map((one) => {
      const knows =
        WEIGHTS.person * shareOf(one.withPerson) +
        WEIGHTS.record * shareOf(one.withRecord) +
        WEIGHTS.category * shareOf(one.withCategory);
      const burden = MOST_FOR_LOAD * Math.tanh((one.load - average) / (average + 1));
      const score = knows - burden - (one.atWorkFrom === null ? 0 : NOT_AT_WORK) - (one.awayUntil === null ? 0 : 10);
      return { ...one, score, hasLeast: one.awayUntil === null && there.length > 1 && one.load === least };
    })
    .toSorted((a, b) => b.score - a.score);
}

function shareOf({ hers, all }: Share): number {
  return hers / (all + IMAGINED);
}
