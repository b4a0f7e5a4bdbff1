import { rulesTexts } from "../../texts/en/rules";
import { type Said, saidOf } from "../../texts/said";
import { URGENCY_NAMES } from "../kernel/urgency";
import type { RuleNames } from "./condition-in-words";
import type { RuleActionKind, RuleActionOf } from "./rule";

const said = saidOf(rulesTexts);

const ACTIONS: { readonly [Kind in RuleActionKind]: (action: RuleActionOf<Kind>, names: RuleNames) => Said } = {
  categorise: ({ categoryId, give }, { category }) =>
    give
      ? said("rules.adds", { category: category(categoryId) })
      : said("rules.takesOff", { category: category(categoryId) }),
  file: ({ recordId }, { record }) => said("rules.filesItTo", { record: record(recordId) }),
  assign: ({ ownerId }, { member }) => said("rules.assignsItTo", { member: member(ownerId) }),
  urgency: ({ urgency }) => said("rules.setsTheUrgencyTo", { name: URGENCY_NAMES[urgency] }),
  settle: () => said("rules.settlesIt"),
  bin: () => said("rules.putsItInTheBin"),
  junk: () => said("rules.putsItInJunk"),
  rest: ({ workingDays: days }) => said("rules.letsItRest", { days }),
  hold: ({ roundId }, { round }) => said("rules.holdsItFor", { round: round(roundId) }),
  "follow-up": ({ workingDays: days, text, forMember }, { member }) =>
    forMember === null
      ? said("rules.setsAFollowUp", { days, text })
      : said("rules.setsAFollowUpFor", { days, text, member: member(forMember) }),
  expect: ({ workingDays: days }) => said("rules.expectsAnAnswer", { days }),
  expire: ({ workingDays: days }) => said("rules.letsItExpire", { days }),
  note: ({ text }) => said("rules.notes", { text }),
  follow: ({ memberId }, { member }) => said("rules.hasItFollowed", { member: member(memberId) }),
  "assign-in-turn": ({ groupId }, { group }) => said("rules.assignsInTurn", { group: group(groupId) }),
  "assign-as-before": ({ by }) => said("rules.assignsAsBefore", { by }),
  tell: ({ memberId }, { member }) => said("rules.tells", { member: member(memberId) }),
  answer: ({ text, days }) =>
    days === null ? said("rules.answersEachTime", { text }) : said("rules.answersOnceIn", { text, days }),
  forward: ({ to }) => said("rules.forwardsItTo", { to }),
  redirect: ({ to }) => said("rules.redirectsItTo", { to }),
};

/** What a rule does, as the predicate of a sentence about it: "adds Tuning", "files it to P-26-012". */
export function actionInWords<Kind extends RuleActionKind>(action: RuleActionOf<Kind>, names: RuleNames): Said {
  // The table's type ties each action to its words; an index by a union loses that tie.
  return (ACTIONS[action.kind as Kind] as (action: RuleActionOf<Kind>, names: RuleNames) => Said)(action, names);
}
