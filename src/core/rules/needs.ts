import { type Condition, type Test, type TestKind, testsOf } from "./condition";

/** What has to be looked up beside the message before a test can be made. */
export type Need = "conversation" | "trust" | "correspondents" | "hours" | "records";

const NEEDS: Readonly<Partial<Record<TestKind, Need>>> = {
  opening: "conversation",
  standing: "conversation",
  owner: "conversation",
  "owner-away": "conversation",
  category: "conversation",
  record: "conversation",
  urgency: "conversation",
  age: "conversation",
  "standing-for": "conversation",
  due: "conversation",
  verified: "trust",
  open: "hours",
  reference: "records",
};

/** What a test needs to be known; null for one that the message alone answers. */
export function needOf(test: Test): Need | null {
  if (test.kind !== "address") return NEEDS[test.kind] ?? null;
  return test.of.some(({ kind }) => kind !== "address" && kind !== "domain") ? "correspondents" : null;
}

/** What conditions need to be known. */
export function needsOf(conditions: readonly Condition[]): Set<Need> {
  const needs = conditions.flatMap((condition) => [...testsOf(condition)].flatMap((test) => needOf(test) ?? []));
  return new Set(needs);
}

/** Whether conditions ask for what only the message as it came has: fields of its header, and all of its texts. */
export function readsRaw(conditions: readonly Condition[]): boolean {
  return conditions.some((condition) =>
    [...testsOf(condition)].some(
      (test) =>
        test.kind === "header" ||
        test.kind === "address-part" ||
        (test.kind === "text" && test.where === "parts") ||
        (test.kind === "date-part" && test.field !== null),
    ),
  );
}
