import type { Decision } from "../deciding/decision";
import { planDecision } from "../deciding/plan-decision";
import { deriveDocket } from "../docket/derive-docket";
import { aspectOf } from "../journal/aspect";
import type { Effect } from "../journal/entry";
import {
  type CategoryId,
  type ExpectationId,
  type FollowUpId,
  type MemberId,
  type RecordId,
  type RoundId,
  trustedId,
} from "../kernel/ids";
import type { ConversationFacts } from "../standing/derive-standing";
import type { OpenSpan } from "../worktime/hours";
import type { Rule, RuleActionKind, RuleActionOf } from "./rule";

/** What there is to give at this moment. */
export type Givable = {
  readonly isCategory: (id: CategoryId) => boolean;
  readonly isRecord: (id: RecordId) => boolean;
  readonly isMember: (id: MemberId) => boolean;
  /** What a round is called that mail can be held for now; null for one without an hour to come. */
  readonly roundName: (id: RoundId) => string | null;
  /** Who has the matters of a member now: herself, whoever covers for her, or nobody (null). */
  readonly inCharge: (id: MemberId) => MemberId | null;
  /** The working day that is so many after today; null for an office that does not open that often. */
  readonly afterWorkingDays: (days: number) => OpenSpan | null;
  readonly newId: () => string;
};

/** What a rule does to a conversation into which a message came (`starts`: that began with it). */
export function planRule(
  { id, actions }: Pick<Rule, "id" | "actions">,
  facts: ConversationFacts,
  givable: Givable,
  starts: boolean,
): Effect[] {
  const decided = new Set(facts.entries.filter(({ by }) => by !== null).map(({ effect }) => aspectOf(effect)));
  const doneBefore = new Set(facts.entries.filter(({ rule }) => rule?.id === id).map(({ effect }) => effect.kind));
  // What it does after it assigned is for whom it assigned to.
  const [given] = actions.flatMap((action) =>
    action.kind === "assign" ? (givable.inCharge(action.ownerId) ?? []) : [],
  );
  const ownerId = given ?? deriveDocket(facts).ownerId;
  return actions
    .flatMap((action) => decisionOf(action, ownerId, givable) ?? [])
    .flatMap((decision) => planDecision(decision, facts))
    .filter((effect) => {
      // Of these every message would bring one more.
      if (isAddedEachTime(effect)) return !doneBefore.has(effect.kind);
      // Only what came in by this very message, which nobody decided about.
      if (effect.kind === "held") return true;
      const aspect = aspectOf(effect);
      // What is under way already is not put away by an answer to it, and no rule is against what somebody decided.
      return (aspect !== "standing" || starts) && !decided.has(aspect);
    });
}

function isAddedEachTime({ kind }: Effect): boolean {
  return kind === "noted" || kind === "follow-up-set";
}

function decisionOf<Kind extends RuleActionKind>(
  action: RuleActionOf<Kind>,
  owner: MemberId | null,
  givable: Givable,
): Decision | null {
  // The table's type ties each action to its decision; an index by a union loses that tie.
  return (DECISIONS[action.kind as Kind] as Decides<Kind>)(action, givable, owner);
}

type Decides<Kind extends RuleActionKind> = (
  action: RuleActionOf<Kind>,
  givable: Givable,
  owner: MemberId | null,
) => Decision | null;

// What there is no more is not given.
const DECISIONS: { readonly [Kind in RuleActionKind]: Decides<Kind> } = {
  categorise: (action, { isCategory }) => (isCategory(action.categoryId) ? action : null),
  file: (action, { isRecord }) => (isRecord(action.recordId) ? { ...action, settle: false } : null),
  assign: (action, { inCharge }) => {
    const ownerId = inCharge(action.ownerId);
    return ownerId === null ? null : { kind: "assign", ownerId };
  },
  urgency: (action) => action,
  settle: (action) => action,
  bin: (action) => action,
  junk: (action) => action,
  rest: ({ workingDays }, { afterWorkingDays }) => {
    const until = afterWorkingDays(workingDays)?.opens;
    return until === undefined ? null : { kind: "rest", until };
  },
  hold: ({ roundId }, { roundName }) => {
    const round = roundName(roundId);
    return round === null ? null : { kind: "hold", roundId, round };
  },
  expire: ({ workingDays }, { afterWorkingDays }) => {
    const at = afterWorkingDays(workingDays)?.closes;
    return at === undefined ? null : { kind: "expire", at };
  },
  expect: ({ workingDays }, { afterWorkingDays, newId }) => {
    const expectationId = trustedId<ExpectationId>(newId());
    return { kind: "expect", until: afterWorkingDays(workingDays)?.closes ?? null, expectationId };
  },
  "follow-up": ({ workingDays, text, forMember }, { afterWorkingDays, isMember, newId }, owner) => {
    const whose = forMember ?? owner;
    if (whose === null || !isMember(whose)) return null;
    const dueAt = afterWorkingDays(workingDays)?.closes ?? null;
    return { kind: "follow-up", followUpId: trustedId<FollowUpId>(newId()), forMember: whose, dueAt, text };
  },
  note: (action) => action,
  follow: ({ memberId }, { isMember }) => (isMember(memberId) ? { kind: "follow", memberId, follows: true } : null),
};
