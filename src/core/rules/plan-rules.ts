import type { Decision } from "../deciding/decision";
import { planDecision, settlesUnfiled } from "../deciding/plan-decision";
import { deriveDocket } from "../docket/derive-docket";
import { aspectOf } from "../journal/aspect";
import type { Effect, JournalEntry } from "../journal/entry";
import {
  type CategoryId,
  type ExpectationId,
  type FollowUpId,
  type GroupId,
  type MemberId,
  type RecordId,
  type RoundId,
  trustedId,
} from "../kernel/ids";
import { type ConversationFacts, deriveFlow } from "../standing/derive-standing";
import { isOpen } from "../turns/expectations";
import type { OpenSpan } from "../worktime/hours";
import type { Rule, RuleAction, RuleActionOf } from "./rule";

/** What there is to give at this moment. */
export type Givable = {
  readonly isCategory: (id: CategoryId) => boolean;
  readonly isRecord: (id: RecordId) => boolean;
  readonly isMember: (id: MemberId) => boolean;
  /** What a round is called that mail can be held for now; null for one without an hour to come. */
  readonly roundName: (id: RoundId) => string | null;
  /** Who has the matters of a member now: herself, whoever covers for her, or nobody (null). */
  readonly inCharge: (id: MemberId) => MemberId | null;
  /** Who of a group gets the next one, after what was given to them before: whoever of it has this one already, or has least; null for nobody. */
  readonly nextOf: (id: GroupId, owner: MemberId | null) => MemberId | null;
  /** Who had the newest matter of the person who wrote, or of a record that it is on, before; null for nobody. */
  readonly hadBefore: (by: "person" | "record") => MemberId | null;
  /** The working day that is so many after today; null for an office that does not open that often. */
  readonly afterWorkingDays: (days: number) => OpenSpan | null;
  readonly newId: () => string;
  /** Whether the tray settles only what is filed. */
  readonly filesFirst: boolean;
};

/**
 * What has a rule act on a conversation: a message that came (`starts`: the conversation began with it), one of ours that
 * went out, or that time passed.
 */
export type RuleOccasion =
  | { readonly moment: "arrival"; readonly starts: boolean }
  | { readonly moment: "sending" | "passing" };

/** What a rule does to a conversation on an occasion. No rule is against what somebody decided, as far as that counts then. */
export function planRule(
  { id, actions }: Pick<Rule, "id" | "actions">,
  facts: ConversationFacts,
  givable: Givable,
  occasion: RuleOccasion,
): Effect[] {
  const counts = whatCounts(occasion, facts);
  const decided = new Set(facts.entries.filter(counts).map(({ effect }) => aspectOf(effect)));
  const doneBefore = new Set(facts.entries.filter(({ rule }) => rule?.id === id).map(({ effect }) => effect.kind));
  const before = deriveDocket(facts).ownerId;
  // What it does besides is for whom it assigns to.
  const ownerId = newOwner(actions, before, givable);
  const planned = actions
    .flatMap((action): readonly Effect[] => {
      if (action.kind === "remind") return [];
      if (action.kind === "tell") return givable.isMember(action.memberId) ? [{ ...action, kind: "told" }] : [];
      if (isAssigning(action)) return ownerId === null ? [] : planDecision({ kind: "assign", ownerId }, facts);
      const decision = decisionOf(action, ownerId ?? before, givable);
      return decision === null ? [] : planDecision(decision, facts);
    })
    .filter((effect) => {
      // Of these every message would bring one more.
      if (isAddedEachTime(effect)) return occasion.moment === "passing" || !doneBefore.has(effect.kind);
      // Only what came in by this very message, which nobody decided about.
      if (effect.kind === "held") return occasion.moment === "arrival";
      const aspect = aspectOf(effect);
      if (aspect === "fact") return true;
      // What is under way already is not put away by an answer to it.
      const isUnderWay = occasion.moment === "arrival" && !occasion.starts;
      return (aspect !== "standing" || !isUnderWay) && !decided.has(aspect);
    });
  const effects = [...planned, ...remindersBegun(actions, planned, ownerId ?? before, facts)];
  return givable.filesFirst && settlesUnfiled(effects, facts)
    ? effects.filter(({ kind }) => kind !== "settled")
    : effects;
}

// Of what is awaited, also since this very rule, unless they are reminded of it already.
function remindersBegun(
  actions: readonly RuleAction[],
  planned: readonly Effect[],
  owner: MemberId | null,
  facts: ConversationFacts,
): Effect[] {
  const [style] = actions.flatMap((action) => (action.kind === "remind" ? [action] : []));
  const [expected] = planned.flatMap((effect) => (effect.kind === "expected" ? [effect.expectationId] : []));
  const expectationId = expected ?? deriveFlow(facts).expectations.find(isOpen)?.id;
  if (style === undefined || expectationId === undefined || owner === null) return [];
  const isBegun = facts.entries.some(
    ({ effect }) => effect.kind === "reminders-begun" && effect.expectationId === expectationId,
  );
  const { tone, language } = style;
  return isBegun ? [] : [{ kind: "reminders-begun", expectationId, inNameOf: owner, tone, language }];
}

// Which decisions of people bind a rule.
function whatCounts(occasion: RuleOccasion, facts: ConversationFacts): (entry: JournalEntry) => boolean {
  switch (occasion.moment) {
    case "arrival":
      return ({ by }) => by !== null;
    case "sending":
      // That a conversation stays with us is what is said of most letters, and settles nothing.
      return ({ by, effect }) => by !== null && effect.kind !== "kept";
    case "passing": {
      // What was decided before it came to stand here led here, and is what the rule waited upon.
      const { since } = deriveDocket(facts).standing;
      return ({ by, at }) => by !== null && at > since;
    }
  }
}

function isAddedEachTime({ kind }: Effect): boolean {
  return kind === "noted" || kind === "follow-up-set";
}

type Assigning = RuleActionOf<"assign" | "assign-in-turn" | "assign-as-before">;

function isAssigning(action: RuleAction): action is Assigning {
  return action.kind === "assign" || action.kind === "assign-in-turn" || action.kind === "assign-as-before";
}

// The first of them that leads to somebody.
function newOwner(actions: readonly RuleAction[], owner: MemberId | null, givable: Givable): MemberId | null {
  for (const action of actions.filter(isAssigning)) {
    const meant = meantBy(action, owner, givable);
    const found = meant === null ? null : givable.inCharge(meant);
    if (found !== null) return found;
  }
  return null;
}

function meantBy(action: Assigning, owner: MemberId | null, { nextOf, hadBefore }: Givable): MemberId | null {
  if (action.kind === "assign") return action.ownerId;
  return action.kind === "assign-in-turn" ? nextOf(action.groupId, owner) : hadBefore(action.by);
}

/** What is decided about the conversation itself by an action alone. */
type Deciding = Exclude<RuleAction, Assigning | RuleActionOf<"tell" | "remind">>;
type DecidingKind = Deciding["kind"];

function decisionOf(action: Deciding, owner: MemberId | null, givable: Givable): Decision | null {
  // The table's type ties each action to its decision; an index by a union loses that tie.
  const decide = DECISIONS[action.kind] as (
    action: Deciding,
    givable: Givable,
    owner: MemberId | null,
  ) => Decision | null;
  return decide(action, givable, owner);
}

type Decides<Kind extends DecidingKind> = (
  action: RuleActionOf<Kind>,
  givable: Givable,
  owner: MemberId | null,
) => Decision | null;

// What there is no more is not given.
const DECISIONS: { readonly [Kind in DecidingKind]: Decides<Kind> } = {
  categorise: (action, { isCategory }) => (isCategory(action.categoryId) ? action : null),
  file: (action, { isRecord }) => (isRecord(action.recordId) ? { ...action, settle: false } : null),
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
  // What is sent asks for it on its way.
  "ask-report": () => null,
  // These send something, once the message is stored.
  answer: () => null,
  "answer-with": () => null,
  forward: () => null,
  redirect: () => null,
};
