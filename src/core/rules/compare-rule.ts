import { rulesTexts } from "../../texts/en/rules";
import { type Said, saidOf } from "../../texts/said";
import type { CategoryId, MemberId, RecordId } from "../kernel/ids";
import { URGENCY_NAMES, type Urgency, USUAL_URGENCY } from "../kernel/urgency";
import { STANDING_NAMES, type StandingKind } from "../standing/standing";
import type { RuleNames } from "./condition-in-words";
import type { RuleAction, RuleActionKind, RuleActionOf } from "./rule";

const said = saidOf(rulesTexts);

/** A conversation as people left it. */
export type LeftAs = {
  readonly standing: StandingKind;
  readonly ownerId: MemberId | null;
  readonly categoryIds: readonly CategoryId[];
  readonly recordIds: readonly RecordId[];
  readonly urgency: Urgency;
  /** Whether we wrote in it. */
  readonly isAnswered: boolean;
};

/** Beside what a rule would do: it is so already, somebody decided otherwise (in words), or nobody did anything. */
export type Compared =
  | { readonly is: "same" }
  | { readonly is: "new" }
  | { readonly is: "otherwise"; readonly how: Said };

/**
 * What a rule would do beside what people did with a conversation that it would have been for: otherwise where one of its
 * actions is against what they did, the same where all of them are, new where something of it would be.
 */
export function compareRule(actions: readonly RuleAction[], left: LeftAs, names: RuleNames): Compared {
  const each = actions.flatMap((action) => compared(action, left, names) ?? []);
  const otherwise = each.find(({ is }) => is === "otherwise");
  if (otherwise !== undefined) return otherwise;
  return each.length > 0 && each.every(({ is }) => is === "same") ? { is: "same" } : { is: "new" };
}

function compared<Kind extends RuleActionKind>(
  action: RuleActionOf<Kind>,
  left: LeftAs,
  names: RuleNames,
): Compared | null {
  // The table's type ties each action to its comparison; an index by a union loses that tie.
  return (COMPARISONS[action.kind as Kind] as Compares<Kind>)(action, left, names);
}

type Compares<Kind extends RuleActionKind> = (
  action: RuleActionOf<Kind>,
  left: LeftAs,
  names: RuleNames,
) => Compared | null;

const SAME: Compared = { is: "same" };
const NEW: Compared = { is: "new" };
const otherwise = (how: Said): Compared => ({ is: "otherwise", how });

/** What is added to a conversation is there, or others are in its place, or none. */
function among<Id>(id: Id, all: readonly Id[], others: () => Said): Compared {
  if (all.includes(id)) return SAME;
  return all.length === 0 ? NEW : otherwise(others());
}

function putAway(standing: "settled" | "bin" | "junk"): Compares<"settle"> & Compares<"bin"> & Compares<"junk"> {
  return (_, left) => {
    if (left.isAnswered) return otherwise(said("rules.leftAnswered"));
    if (left.standing === standing) return SAME;
    return left.standing === "to-sort"
      ? NEW
      : otherwise(said("rules.leftIn", { standing: STANDING_NAMES[left.standing] }));
  };
}

// What is only added says nothing of what people did.
const added = () => null;

const COMPARISONS: { readonly [Kind in RuleActionKind]: Compares<Kind> } = {
  categorise: ({ categoryId, give }, { categoryIds }, { category }) => {
    if (!give)
      return categoryIds.includes(categoryId) ? otherwise(said("rules.leftWith", { all: category(categoryId) })) : SAME;
    return among(categoryId, categoryIds, () =>
      said("rules.leftWith", { all: { all: categoryIds.map(category), by: "and" } }),
    );
  },
  file: ({ recordId }, { recordIds }, { record }) =>
    among(recordId, recordIds, () => said("rules.leftFiledTo", { all: { all: recordIds.map(record), by: "and" } })),
  assign: ({ ownerId }, left, { member }) => {
    if (left.ownerId === ownerId) return SAME;
    return left.ownerId === null ? NEW : otherwise(said("rules.leftTo", { member: member(left.ownerId) }));
  },
  urgency: ({ urgency }, left) => {
    if (left.urgency === urgency) return SAME;
    return left.urgency === USUAL_URGENCY
      ? NEW
      : otherwise(said("rules.leftUrgency", { name: URGENCY_NAMES[left.urgency] }));
  },
  settle: putAway("settled"),
  bin: putAway("bin"),
  junk: putAway("junk"),
  rest: added,
  hold: added,
  "follow-up": added,
  expect: added,
  expire: added,
  note: added,
  follow: added,
  // Whose it would have been then nobody knows now.
  "assign-in-turn": added,
  "assign-as-before": added,
  tell: added,
  remind: added,
  "ask-report": added,
  answer: added,
  "answer-with": added,
  forward: added,
  redirect: added,
};
