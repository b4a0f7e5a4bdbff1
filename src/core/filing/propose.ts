import type { CategoryId, MemberId, RecordId } from "../kernel/ids";
import type { StandingKind } from "../standing/standing";

/** What became of an earlier conversation with the same person. */
export type Precedent = {
  readonly ownerId: MemberId | null;
  readonly categoryIds: readonly CategoryId[];
  readonly recordIds: readonly RecordId[];
  readonly standing: StandingKind;
  /** True when we wrote in it. */
  readonly wasAnswered: boolean;
};

/** What could be decided about a conversation, how sure that is, and what it rests on. */
export type Proposal = (
  | { readonly kind: "file"; readonly recordId: RecordId }
  | { readonly kind: "categorise"; readonly categoryId: CategoryId }
  | { readonly kind: "assign"; readonly ownerId: MemberId }
  | { readonly kind: "settle" }
) & {
  /** From 0 to 1: the share in which it was so, drawn towards a half where there are few. */
  readonly confidence: number;
  /** In how many of how many it was so. */
  readonly was: number;
  readonly of: number;
};

/** What a conversation has already, so that it is not proposed. */
export type AlreadyGiven = Pick<Precedent, "ownerId" | "categoryIds" | "recordIds">;

const MOST = 4;
// Below these nothing is said: a proposal that is mostly wrong costs more than it saves.
const MIN_CONFIDENCE = 0.6;
const MIN_PRECEDENTS = 2;

/**
 * The likely decisions about a conversation, judged by what was decided about the newest ones with the same person, the
 * surest first, at most four. The confidence is the mean of a Beta(1, 1) prior after the precedents (Laplace's rule of
 * succession), so two of two say 0.75 and nine of ten 0.83.
 */
export function propose(precedents: readonly Precedent[], given: AlreadyGiven): Proposal[] {
  const of = precedents.length;
  if (of < MIN_PRECEDENTS) return [];
  const judged = (was: number) => ({ was, of, confidence: (was + 1) / (of + 2) });
  const proposals: Proposal[] = [
    ...counted(precedents.flatMap(({ recordIds }) => recordIds))
      .filter(([recordId]) => !given.recordIds.includes(recordId))
      .slice(0, 1)
      .map(([recordId, was]): Proposal => ({ kind: "file", recordId, ...judged(was) })),
    ...counted(precedents.flatMap(({ categoryIds }) => categoryIds))
      .filter(([categoryId]) => !given.categoryIds.includes(categoryId))
      .map(([categoryId, was]): Proposal => ({ kind: "categorise", categoryId, ...judged(was) })),
    ...(given.ownerId === null ? counted(precedents.flatMap(({ ownerId }) => ownerId ?? [])) : [])
      .slice(0, 1)
      .map(([ownerId, was]): Proposal => ({ kind: "assign", ownerId, ...judged(was) })),
    {
      kind: "settle",
      ...judged(precedents.filter(({ standing, wasAnswered }) => standing === "settled" && !wasAnswered).length),
    },
  ];
  const sure = proposals.filter(({ confidence }) => confidence >= MIN_CONFIDENCE);
  // What nobody had to do anything about needs no owner.
  const kept = sure.some(({ kind }) => kind === "settle") ? sure.filter(({ kind }) => kind !== "assign") : sure;
  return kept.toSorted((a, b) => b.confidence - a.confidence).slice(0, MOST);
}

function counted<T>(values: readonly T[]): [T, number][] {
  const counts = new Map<T, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].toSorted((a, b) => b[1] - a[1]);
}
