import { actionsTexts } from "../../texts/en/actions";
import { type Said, saidOf } from "../../texts/said";
import { URGENCY_NAMES } from "../kernel/urgency";
import { givenIn } from "../records/filing-field";
import type { RuleNames } from "./condition-in-words";
import type { RuleActionKind, RuleActionOf } from "./rule";

const said = saidOf(actionsTexts);

const ACTIONS: { readonly [Kind in RuleActionKind]: (action: RuleActionOf<Kind>, names: RuleNames) => Said } = {
  categorise: ({ categoryId, give }, { category }) =>
    give
      ? said("actions.adds", { category: category(categoryId) })
      : said("actions.takesOff", { category: category(categoryId) }),
  file: ({ recordId, fields }, { record }) => {
    const given = givenIn(fields);
    return given.length === 0
      ? said("actions.filesItTo", { record: record(recordId) })
      : said("actions.filesItToWith", { record: record(recordId), given: { all: given, by: "comma" } });
  },
  assign: ({ ownerId }, { member }) => said("actions.assignsItTo", { member: member(ownerId) }),
  urgency: ({ urgency }) => said("actions.setsTheUrgencyTo", { name: URGENCY_NAMES[urgency] }),
  settle: () => said("actions.settlesIt"),
  bin: () => said("actions.putsItInTheBin"),
  junk: () => said("actions.putsItInJunk"),
  rest: ({ workingDays: days }) => said("actions.letsItRest", { days }),
  hold: ({ roundId }, { round }) => said("actions.holdsItFor", { round: round(roundId) }),
  "follow-up": ({ workingDays: days, text, forMember }, { member }) =>
    forMember === null
      ? said("actions.setsAFollowUp", { days, text })
      : said("actions.setsAFollowUpFor", { days, text, member: member(forMember) }),
  expect: ({ workingDays: days }) => said("actions.expectsAnAnswer", { days }),
  expire: ({ workingDays: days }) => said("actions.letsItExpire", { days }),
  note: ({ text }) => said("actions.notes", { text }),
  follow: ({ memberId }, { member }) => said("actions.hasItFollowed", { member: member(memberId) }),
  "assign-in-turn": ({ groupId }, { group }) => said("actions.assignsInTurn", { group: group(groupId) }),
  "assign-as-before": ({ by }) => said("actions.assignsAsBefore", { by }),
  remind: ({ tone }) => said("actions.remindsThem", { tone }),
  "ask-report": () => said("actions.asksForAReport"),
  tell: ({ memberId }, { member }) => said("actions.tells", { member: member(memberId) }),
  answer: ({ text, days }) =>
    days === null ? said("actions.answersEachTime", { text }) : said("actions.answersOnceIn", { text, days }),
  "answer-with": ({ templateId, days }, { template }) =>
    days === null
      ? said("actions.answersEachTimeWith", { template: template(templateId) })
      : said("actions.answersOnceInWith", { template: template(templateId), days }),
  forward: ({ to }) => said("actions.forwardsItTo", { to }),
  redirect: ({ to }) => said("actions.redirectsItTo", { to }),
};

/** What a rule does, as the predicate of a sentence about it: "adds Tuning", "files it to P-26-012". */
export function actionInWords<Kind extends RuleActionKind>(action: RuleActionOf<Kind>, names: RuleNames): Said {
  // The table's type ties each action to its words; an index by a union loses that tie.
  return (ACTIONS[action.kind as Kind] as (action: RuleActionOf<Kind>, names: RuleNames) => Said)(action, names);
}
