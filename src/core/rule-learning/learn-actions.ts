import { USUAL_URGENCY } from "../kernel/urgency";
import type { LeftAs } from "../rules/compare-rule";
import type { RuleAction } from "../rules/rule";

/** So many conversations can be chosen as examples. */
export const MAX_EXAMPLES = 50;

/** An action with how many of some conversations people did it to by themselves. */
export type LearnedAction = { readonly action: RuleAction; readonly byHand: number };

// What was done to fewer of the examples belongs to them and not to what they have in common.
const SHARE = 0.6;

/**
 * What a rule could do to conversations like these, from what people did with them: everything that was done to most of the
 * examples, with how many of `alike` it was done to as well.
 */
export function learnActions(examples: readonly LeftAs[], alike: readonly LeftAs[]): LearnedAction[] {
  if (examples.length === 0) return [];
  return waysOf(examples)
    .filter(({ was }) => examples.filter(was).length >= examples.length * SHARE)
    .map(({ action, was }) => ({ action, byHand: alike.filter(was).length }));
}

type Way = { readonly action: RuleAction; readonly was: (left: LeftAs) => boolean };

function waysOf(examples: readonly LeftAs[]): Way[] {
  const each = <Id>(of: (left: LeftAs) => readonly Id[]) => [...new Set(examples.flatMap(of))];
  return [
    ...each(({ categoryIds }) => categoryIds).map(
      (categoryId): Way => ({
        action: { kind: "categorise", categoryId, give: true },
        was: ({ categoryIds }) => categoryIds.includes(categoryId),
      }),
    ),
    ...each(({ recordIds }) => recordIds).map(
      (recordId): Way => ({ action: { kind: "file", recordId }, was: ({ recordIds }) => recordIds.includes(recordId) }),
    ),
    ...each(({ ownerId }) => (ownerId === null ? [] : [ownerId])).map(
      (ownerId): Way => ({ action: { kind: "assign", ownerId }, was: (left) => left.ownerId === ownerId }),
    ),
    ...each(({ urgency }) => (urgency === USUAL_URGENCY ? [] : [urgency])).map(
      (urgency): Way => ({ action: { kind: "urgency", urgency }, was: (left) => left.urgency === urgency }),
    ),
    { action: { kind: "settle" }, was: ({ standing, isAnswered }) => standing === "settled" && !isAnswered },
    { action: { kind: "bin" }, was: ({ standing }) => standing === "bin" },
    { action: { kind: "junk" }, was: ({ standing }) => standing === "junk" },
  ];
}
