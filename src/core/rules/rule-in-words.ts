import type { CategoryId, MemberId, RecordId } from "../kernel/ids";
import { URGENCY_NAMES } from "../kernel/urgency";
import { namesNothing, type Rule, type RuleActions, type RuleConditions } from "./rule";

/** What things are called, for the words. */
export type RuleNames = {
  readonly member: (id: MemberId) => string;
  readonly category: (id: CategoryId) => string;
  readonly record: (id: RecordId) => string;
};

/** Which messages a rule is for: "from @dombach.example, with “invoice” in the subject, unless with an attachment". */
export function conditionsInWords({ conditions, exceptions }: Pick<Rule, "conditions" | "exceptions">): string {
  const unless = namesNothing(exceptions) ? "" : `, unless ${partsInWords(exceptions)}`;
  return `${partsInWords(conditions)}${unless}`;
}

function partsInWords({ from, to, subject, text, list, hasAttachment }: RuleConditions): string {
  const quoted = (words: readonly string[]) => words.map((word) => `“${word}”`);
  return [
    ...(from.length === 0 ? [] : [`from ${anyOf(from)}`]),
    ...(to.length === 0 ? [] : [`to ${anyOf(to)}`]),
    ...(subject.length === 0 ? [] : [`with ${anyOf(quoted(subject))} in the subject`]),
    ...(text.length === 0 ? [] : [`with ${anyOf(quoted(text))} in the text`]),
    ...(list.length === 0 ? [] : [`through ${anyOf(list)}`]),
    ...(hasAttachment === null ? [] : [hasAttachment ? "with an attachment" : "without an attachment"]),
  ].join(", ");
}

function anyOf(values: readonly string[]): string {
  return values.length < 2 ? values.join("") : `${values.slice(0, -1).join(", ")} or ${values.at(-1)}`;
}

/** What a rule does, each as the predicate of a sentence about it: "adds Tuning", "files it to P-26-012". */
export function actionsInWords(actions: RuleActions, names: RuleNames): string[] {
  const { categoryIds, recordId, ownerId, urgency, putAway } = actions;
  return [
    ...categoryIds.map((id) => `adds ${names.category(id)}`),
    ...(recordId === null ? [] : [`files it to ${names.record(recordId)}`]),
    ...(ownerId === null ? [] : [`assigns it to ${names.member(ownerId)}`]),
    ...(urgency === null ? [] : [`sets the urgency to ${URGENCY_NAMES[urgency]}`]),
    ...(putAway === null ? [] : [putAway === "settle" ? "settles it" : "puts it in the bin"]),
  ];
}
