import { officeTexts } from "../../texts/en/office";
import { type Said, saidOf } from "../../texts/said";
import type { CategoryId, MemberId, RecordId, RuleId } from "../kernel/ids";
import type { Urgency } from "../kernel/urgency";

const said = saidOf(officeTexts);

/**
 * What a message has to be like. Every part that names something has to hold; within one part any of its values will do.
 * One that names nothing holds for no message.
 */
export type RuleConditions = {
  /** Addresses, or `@domain` for everybody there; in lower case. */
  readonly from: readonly string[];
  /** Addresses in To or Cc, or `@domain`; in lower case. */
  readonly to: readonly string[];
  /** Words, each entry together, in the subject. */
  readonly subject: readonly string[];
  /** Words, each entry together, in the message's own text. */
  readonly text: readonly string[];
  /** List-Id values (RFC 2919), in lower case. */
  readonly list: readonly string[];
  /** Null when it does not matter. */
  readonly hasAttachment: boolean | null;
};

export const NO_CONDITIONS: RuleConditions = {
  from: [],
  to: [],
  subject: [],
  text: [],
  list: [],
  hasAttachment: null,
};

/** What a rule does to the conversation that a message came into. */
export type RuleActions = {
  readonly categoryIds: readonly CategoryId[];
  readonly recordId: RecordId | null;
  readonly ownerId: MemberId | null;
  readonly urgency: Urgency | null;
  readonly putAway: "settle" | "bin" | null;
};

export const NO_ACTIONS: RuleActions = {
  categoryIds: [],
  recordId: null,
  ownerId: null,
  urgency: null,
  putAway: null,
};

/** What a tray does by itself when a message comes. Rules are asked in their order; each that is for a message adds to what the ones before it did. */
export type Rule = {
  readonly id: RuleId;
  readonly name: string;
  readonly isOn: boolean;
  readonly conditions: RuleConditions;
  /** Where these hold, the rule does nothing. */
  readonly exceptions: RuleConditions;
  readonly actions: RuleActions;
  /** No rule after this one is asked about a message that it is for. */
  readonly isLast: boolean;
};

/** What can be wrong with a rule, by what it is about. */
export type RuleProblems = { readonly name?: Said; readonly conditions?: Said; readonly actions?: Said };

const MAX_NAME = 60;

/** What is wrong with a rule among the others of its tray; nothing when it can stand. */
export function checkRule(rule: Omit<Rule, "id">, others: readonly Pick<Rule, "name">[]): RuleProblems {
  const name = rule.name.trim();
  const nameProblem =
    name === ""
      ? said("office.giveTheRuleAName")
      : name.length > MAX_NAME
        ? said("office.aNameHasAtMost", { most: MAX_NAME })
        : others.some((other) => other.name.toLowerCase() === name.toLowerCase())
          ? said("office.anotherRuleHasThatName")
          : undefined;
  return {
    ...(nameProblem === undefined ? {} : { name: nameProblem }),
    ...(namesNothing(rule.conditions) ? { conditions: said("office.sayWhichMessagesItIs") } : {}),
    ...(doesNothing(rule.actions) ? { actions: said("office.sayWhatItDoes") } : {}),
  };
}

/** Whether conditions ask for nothing. */
export function namesNothing({ hasAttachment, ...parts }: RuleConditions): boolean {
  return hasAttachment === null && Object.values(parts).every((values) => values.length === 0);
}

/** Whether actions come to nothing. */
function doesNothing({ categoryIds, ...others }: RuleActions): boolean {
  return categoryIds.length === 0 && Object.values(others).every((value) => value === null);
}

/** A rule in which another category stands for one that ended, or none (null). One that does nothing any more is off. */
export function withCategoryReplaced<R extends Pick<Rule, "actions" | "isOn">>(
  rule: R,
  from: CategoryId,
  to: CategoryId | null,
): R {
  const replaced = rule.actions.categoryIds.flatMap((id) => (id === from ? (to === null ? [] : [to]) : [id]));
  const actions = { ...rule.actions, categoryIds: [...new Set(replaced)] };
  return { ...rule, actions, isOn: rule.isOn && !doesNothing(actions) };
}
