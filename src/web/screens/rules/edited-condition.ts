import type { AddressMatch, Condition, ConditionGroup, Test, TestKind } from "../../../core/rules/condition";
import { EVERY_MESSAGE, isGroup } from "../../../core/rules/condition";

/** A condition while it is edited: each part has a key of its own, which stays while the rest changes around it. */
export type EditedPart = EditedTest | EditedGroup;
export type EditedTest = { readonly key: string; readonly test: Test };
export type EditedGroup = {
  readonly key: string;
  readonly kind: ConditionGroup["kind"];
  readonly of: readonly EditedPart[];
};

let made = 0;
const newKey = () => {
  made += 1;
  return `part-${made}`;
};

/** A condition to be edited: always a group, so that something can be added beside what there is. */
export function editedCondition(condition: Condition): EditedGroup {
  const part = edited(condition);
  return "test" in part ? { key: newKey(), kind: "all", of: [part] } : part;
}

function edited(condition: Condition): EditedPart {
  if (isGroup(condition)) return { key: newKey(), kind: condition.kind, of: condition.of.map(edited) };
  const parts = condition.kind === "address" ? splitByKind(condition.of) : [];
  if (condition.kind !== "address" || parts.length < 2) return newTest(condition);
  return { key: newKey(), kind: "any", of: parts.map((of) => newTest({ ...condition, of })) };
}

// A line of the form asks for people of one kind.
function splitByKind(of: readonly AddressMatch[]): AddressMatch[][] {
  const written = of.filter(({ kind }) => kind === "address" || kind === "domain");
  const others = of.filter(({ kind }) => kind !== "address" && kind !== "domain");
  const kinds = [...new Set(others.map(({ kind }) => kind))];
  return [written, ...kinds.map((kind) => others.filter((one) => one.kind === kind))].filter(
    ({ length }) => length > 0,
  );
}

/** A part that is new. */
export function newTest(test: Test): EditedTest {
  return { key: newKey(), test };
}

/** A group that is new, with what it begins with. */
export function newGroup(kind: ConditionGroup["kind"], of: readonly EditedPart[]): EditedGroup {
  return { key: newKey(), kind, of };
}

/** The condition that was edited. */
export function conditionOf(part: EditedPart): Condition {
  return "test" in part ? part.test : { kind: part.kind, of: part.of.map(conditionOf) };
}

/** What a new line asks for before anything is filled in. */
export function blankTest(kind: TestKind): Test {
  return structuredClone(BLANK[kind]);
}

const words = { how: "words", values: [] } as const;
const BLANK: { readonly [Kind in TestKind]: Test } = {
  every: { kind: "every" },
  address: { kind: "address", where: "from", of: [] },
  reach: { kind: "reach", of: ["direct"] },
  "message-kind": { kind: "message-kind", of: ["person"] },
  opening: { kind: "opening", isFirst: true },
  text: { kind: "text", where: "subject", match: words },
  list: { kind: "list", of: [] },
  attachment: { kind: "attachment" },
  size: { kind: "size", over: 5_000_000 },
  header: { kind: "header", names: [], match: { how: "contains", values: [] } },
  "address-part": { kind: "address-part", names: ["to"], part: "detail", match: { how: "is", values: [] } },
  verified: { kind: "verified", is: false },
  open: { kind: "open", is: false },
  weekday: { kind: "weekday", of: [5, 6] },
  days: { kind: "days", from: null, until: null },
  "date-part": { kind: "date-part", field: null, zone: null, part: "hour", match: { how: "is", values: [] } },
  reference: { kind: "reference", of: [] },
  template: { kind: "template", of: [] },
  standing: { kind: "standing", of: ["to-sort"] },
  owner: { kind: "owner", of: [null] },
  "owner-away": { kind: "owner-away" },
  category: { kind: "category", of: [] },
  record: { kind: "record", of: [] },
  urgency: { kind: "urgency", of: ["today"] },
  age: { kind: "age", hours: 8 },
  "standing-for": { kind: "standing-for", hours: 8 },
  due: { kind: "due", hours: 8 },
};

function isUnfinished(test: Test): boolean {
  if (test.kind === "days") return test.from === null && test.until === null;
  if ("match" in test) return test.match.how !== "exists" && test.match.values.length === 0;
  if (test.kind === "address") return test.of.every(namesNobody);
  return "of" in test && test.kind !== "reference" && test.of.length === 0;
}

function namesNobody(match: AddressMatch): boolean {
  return Object.values(match).includes("");
}

/** Without the parts that ask for nothing yet; null where nothing is left. */
export function finished(group: EditedGroup): Condition | null {
  const of = group.of.flatMap((part) => finishedPart(part) ?? []);
  return of.length === 0 ? null : { kind: group.kind, of };
}

function finishedPart(part: EditedPart): Condition | null {
  if (!("test" in part)) return finished(part);
  return isUnfinished(part.test) ? null : part.test;
}

/** The same with all parts in their places: in the place of those that ask for nothing yet stands what changes nothing. */
export function finishedInPlace(group: EditedGroup): Condition {
  const nothing: Condition = group.kind === "all" ? EVERY_MESSAGE : { kind: "none", of: [EVERY_MESSAGE] };
  const of = group.of.map((part) => {
    if (finishedPart(part) === null) return nothing;
    return "test" in part ? part.test : finishedInPlace(part);
  });
  return { kind: group.kind, of };
}
