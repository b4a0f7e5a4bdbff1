import type { CategoryId, ContactId, GroupId, MemberId, RecordId, RoundId, TemplateId } from "../kernel/ids";
import { type Test, testsOf, withTests } from "./condition";
import { conditionsOf, type Rule, type RuleAction } from "./rule";

/** What rules name, by kind. */
export type Named = {
  readonly members: readonly MemberId[];
  readonly categories: readonly CategoryId[];
  readonly records: readonly RecordId[];
  readonly contacts: readonly ContactId[];
  readonly rounds: readonly RoundId[];
  readonly groups: readonly GroupId[];
  readonly templates: readonly TemplateId[];
};

export const NOTHING_NAMED: Named = {
  members: [],
  categories: [],
  records: [],
  contacts: [],
  rounds: [],
  groups: [],
  templates: [],
};

/** Everything that rules name in what they ask for and in what they do. */
export function namedBy(rules: readonly Pick<Rule, "condition" | "exception" | "actions">[]): Named {
  const tests = rules.flatMap(conditionsOf).flatMap((condition) => [...testsOf(condition)]);
  const actions = rules.flatMap((rule) => rule.actions);
  const addresses = tests.flatMap((test) => (test.kind === "address" ? test.of : []));
  return {
    members: [
      ...tests.flatMap((test) => (test.kind === "owner" ? test.of.filter((id) => id !== null) : [])),
      ...actions.flatMap((action) => {
        if (action.kind === "assign") return [action.ownerId];
        if (action.kind === "follow" || action.kind === "tell") return [action.memberId];
        return action.kind === "follow-up" && action.forMember !== null ? [action.forMember] : [];
      }),
    ],
    categories: [
      ...tests.flatMap((test) => (test.kind === "category" ? test.of : [])),
      ...addresses.flatMap((one) => (one.kind === "contact-category" ? [one.categoryId] : [])),
      ...actions.flatMap((action) => (action.kind === "categorise" ? [action.categoryId] : [])),
    ],
    records: [
      ...tests.flatMap((test) => (test.kind === "record" || test.kind === "reference" ? test.of : [])),
      ...actions.flatMap((action) => (action.kind === "file" ? [action.recordId] : [])),
    ],
    contacts: addresses.flatMap((one) => (one.kind === "contact" ? [one.contactId] : [])),
    rounds: actions.flatMap((action) => (action.kind === "hold" ? [action.roundId] : [])),
    groups: actions.flatMap((action) => (action.kind === "assign-in-turn" ? [action.groupId] : [])),
    templates: [
      ...tests.flatMap((test) => (test.kind === "template" ? test.of : [])),
      ...actions.flatMap((action) => (action.kind === "answer-with" ? [action.templateId] : [])),
    ],
  };
}

/** What stands in a rule for what it names. */
export type Renaming = {
  readonly member: (id: MemberId) => MemberId;
  readonly category: (id: CategoryId) => CategoryId;
  readonly record: (id: RecordId) => RecordId;
  readonly contact: (id: ContactId) => ContactId;
  readonly round: (id: RoundId) => RoundId;
  readonly group: (id: GroupId) => GroupId;
  readonly template: (id: TemplateId) => TemplateId;
};

/** A rule in which other names stand for what it names: codes for ids where people read it. */
export function renamed<R extends Pick<Rule, "condition" | "exception" | "actions">>(rule: R, to: Renaming): R {
  const other = (test: Test): Test => {
    if (test.kind === "record" || test.kind === "reference") return { ...test, of: test.of.map(to.record) };
    if (test.kind === "category") return { ...test, of: test.of.map(to.category) };
    if (test.kind === "template") return { ...test, of: test.of.map(to.template) };
    if (test.kind === "owner") return { ...test, of: test.of.map((id) => (id === null ? null : to.member(id))) };
    if (test.kind !== "address") return test;
    const of = test.of.map((one) => {
      if (one.kind === "contact") return { ...one, contactId: to.contact(one.contactId) };
      return one.kind === "contact-category" ? { ...one, categoryId: to.category(one.categoryId) } : one;
    });
    return { ...test, of };
  };
  return {
    ...rule,
    condition: withTests(rule.condition, other),
    exception: rule.exception === null ? null : withTests(rule.exception, other),
    actions: rule.actions.map((action) => actionRenamed(action, to)),
  };
}

function actionRenamed(action: RuleAction, to: Renaming): RuleAction {
  switch (action.kind) {
    case "file":
      return { ...action, recordId: to.record(action.recordId) };
    case "categorise":
      return { ...action, categoryId: to.category(action.categoryId) };
    case "assign":
      return { ...action, ownerId: to.member(action.ownerId) };
    case "hold":
      return { ...action, roundId: to.round(action.roundId) };
    case "assign-in-turn":
      return { ...action, groupId: to.group(action.groupId) };
    case "answer-with":
      return { ...action, templateId: to.template(action.templateId) };
    case "tell":
    case "follow":
      return { ...action, memberId: to.member(action.memberId) };
    case "follow-up":
      return { ...action, forMember: action.forMember === null ? null : to.member(action.forMember) };
    default:
      return action;
  }
}
