import type { Wording } from "../../texts/said";
import type { Decision } from "../deciding/decision";
import { planDecision } from "../deciding/plan-decision";
import { aspectOf } from "../journal/aspect";
import type { Effect } from "../journal/entry";
import type { CategoryId, MemberId, RecordId } from "../kernel/ids";
import type { ConversationFacts } from "../standing/derive-standing";
import { type RuledMessage, whyRuleHolds } from "./match-rule";
import type { Rule, RuleActions } from "./rule";

/** A rule that is for a message, and what of the message it was for. */
export type RuleThatHolds = { readonly rule: Rule; readonly why: Wording };

/** The rules that are for a message, in their order, up to the first after which none is asked. */
export function rulesThatHold(rules: readonly Rule[], message: RuledMessage): RuleThatHolds[] {
  const holding: RuleThatHolds[] = [];
  for (const rule of rules) {
    if (!rule.isOn) continue;
    const why = whyRuleHolds(rule, message);
    if (why === null) continue;
    holding.push({ rule, why });
    if (rule.isLast) break;
  }
  return holding;
}

/** What there is to give at this moment. */
export type Givable = {
  readonly isCategory: (id: CategoryId) => boolean;
  readonly isRecord: (id: RecordId) => boolean;
  /** Who has the matters of a member now: herself, whoever covers for her, or nobody (null). */
  readonly inCharge: (id: MemberId) => MemberId | null;
};

/** What a rule does to a conversation into which a message came (`starts`: that began with it). */
export function planRule(
  { actions }: Pick<Rule, "actions">,
  facts: ConversationFacts,
  givable: Givable,
  starts: boolean,
): Effect[] {
  const decided = new Set(facts.entries.filter(({ by }) => by !== null).map(({ effect }) => aspectOf(effect)));
  return decisionsOf(actions, givable)
    .flatMap((decision) => planDecision(decision, facts))
    .filter((effect) => {
      const aspect = aspectOf(effect);
      // What is under way already is not put away by an answer to it, and no rule is against what somebody decided.
      return (aspect !== "standing" || starts) && !decided.has(aspect);
    });
}

function decisionsOf(
  { categoryIds, recordId, ownerId, urgency, putAway }: RuleActions,
  { isCategory, isRecord, inCharge }: Givable,
): Decision[] {
  const owner = ownerId === null ? null : inCharge(ownerId);
  return [
    ...categoryIds.filter(isCategory).map((categoryId) => ({ kind: "categorise", categoryId, give: true }) as const),
    ...(recordId !== null && isRecord(recordId) ? [{ kind: "file", recordId, settle: false } as const] : []),
    ...(owner === null ? [] : [{ kind: "assign", ownerId: owner } as const]),
    ...(urgency === null ? [] : [{ kind: "urgency", urgency } as const]),
    ...(putAway === null ? [] : [{ kind: putAway } as const]),
  ];
}
