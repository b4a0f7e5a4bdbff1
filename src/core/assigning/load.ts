import { assertNever } from "../kernel/assert-never";
import type { MemberId } from "../kernel/ids";
import type { Urgency } from "../kernel/urgency";

/** How long conversations have stood where they stand. */
export type DeskAge = "fresh" | "days" | "old";
/** Some conversations that a colleague owns, alike as far as her load goes. */
export type DeskPart = {
  readonly ownerId: MemberId;
  readonly urgency: Urgency;
  readonly age: DeskAge;
  /** True when others have to act first: they wait for a reply or rest. */
  readonly waits: boolean;
  readonly count: number;
};

/** The ages at which a conversation becomes one of days, and an old one, in days. */
export const DESK_AGE_DAYS = { days: 1, old: 5 } as const;

const AGE_WEIGHTS: Readonly<Record<DeskAge, number>> = { fresh: 1, days: 1.25, old: 1.5 };
const WAITING_WEIGHT = 0.2;

function urgencyWeight(urgency: Urgency): number {
  switch (urgency) {
    case "today":
      return 3;
    case "days":
      return 2;
    case "no-rush":
      return 1;
    case "reading":
      return 0.5;
    default:
      return assertNever(urgency);
  }
}

/**
 * What a colleague has on the desk, in ordinary conversations: urgent ones count for more (3 for today, 2 within days, ½ for
 * reading), old ones up to half as much again, those where others have to act a fifth.
 */
export function loadOf(memberId: MemberId, parts: readonly DeskPart[]): number {
  const hers = parts.filter(({ ownerId }) => ownerId === memberId);
  return hers.reduce((sum, { urgency, age, waits, count }) => {
    const weight = urgencyWeight(urgency) * AGE_WEIGHTS[age] * (waits ? WAITING_WEIGHT : 1);
    return sum + weight * count;
  }, 0);
}

/** How many conversations a colleague has open. */
export function openOf(memberId: MemberId, parts: readonly DeskPart[]): number {
  return parts.reduce((sum, { ownerId, count }) => (ownerId === memberId ? sum + count : sum), 0);
}

/** Deals conversations out to colleagues who take turns: each goes to whoever has least then, the first named of equals. */
export function turnTaker(loads: ReadonlyMap<MemberId, number>): () => MemberId | null {
  const now = new Map(loads);
  return () => {
    const least = [...now].toSorted(([, a], [, b]) => a - b)[0];
    if (least === undefined) return null;
    now.set(least[0], least[1] + 1);
    return least[0];
  };
}
