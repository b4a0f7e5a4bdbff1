import { officeTexts } from "../../texts/en/office";
import { type Listed, type Said, type Sayable, saidOf, type Wording } from "../../texts/said";
import type { CategoryId, MemberId, RecordId } from "../kernel/ids";
import { URGENCY_NAMES } from "../kernel/urgency";
import { namesNothing, type Rule, type RuleActions, type RuleConditions } from "./rule";

const said = saidOf(officeTexts);

/** What things are called, for the words. */
export type RuleNames = {
  readonly member: (id: MemberId) => string;
  readonly category: (id: CategoryId) => string;
  readonly record: (id: RecordId) => string;
};

/** Which messages a rule is for: "from @dombach.example, with “invoice” in the subject, unless with an attachment". */
export function conditionsInWords({ conditions, exceptions }: Pick<Rule, "conditions" | "exceptions">): Wording {
  const holds = partsInWords(conditions);
  return namesNothing(exceptions) ? holds : said("office.unless", { holds, exceptions: partsInWords(exceptions) });
}

function partsInWords({ from, to, subject, text, list, hasAttachment }: RuleConditions): Listed {
  const quoted = (words: readonly string[]) => words.map((word) => said("office.quoted", { word }));
  const all = [
    ...(from.length === 0 ? [] : [said("office.fromAnyOf", { addresses: anyOf(from) })]),
    ...(to.length === 0 ? [] : [said("office.toAnyOf", { addresses: anyOf(to) })]),
    ...(subject.length === 0 ? [] : [said("office.withInTheSubject", { words: anyOf(quoted(subject)) })]),
    ...(text.length === 0 ? [] : [said("office.withInTheText", { words: anyOf(quoted(text)) })]),
    ...(list.length === 0 ? [] : [said("office.through", { lists: anyOf(list) })]),
    ...(hasAttachment === null
      ? []
      : [hasAttachment ? said("office.withAnAttachment") : said("office.withoutAnAttachment")]),
  ];
  return { all, by: "comma" };
}

function anyOf(all: readonly Sayable[]): Listed {
  return { all, by: "or" };
}

/** What a rule does, each as the predicate of a sentence about it: "adds Tuning", "files it to P-26-012". */
export function actionsInWords(actions: RuleActions, names: RuleNames): Said[] {
  const { categoryIds, recordId, ownerId, urgency, putAway } = actions;
  return [
    ...categoryIds.map((id) => said("office.adds", { category: names.category(id) })),
    ...(recordId === null ? [] : [said("office.filesItTo", { record: names.record(recordId) })]),
    ...(ownerId === null ? [] : [said("office.assignsItTo", { member: names.member(ownerId) })]),
    ...(urgency === null ? [] : [said("office.setsTheUrgencyTo", { name: URGENCY_NAMES[urgency] })]),
    ...(putAway === null ? [] : [putAway === "settle" ? said("office.settlesIt") : said("office.putsItInTheBin")]),
  ];
}
