import {
  type Condition,
  type ConditionGroup,
  EVERY_MESSAGE,
  isGroup,
  type Test,
  type TestOf,
  type TextMatch,
} from "../rules/condition";
import type { RuleAction } from "../rules/rule";
import { ownTest } from "./own-test";

/**
 * The same condition in the one form that a script and back leads to: what is asked of one thing stands in one test, no
 * group has only one part, and what is always or never so stands by itself.
 */
export function normalForm(condition: Condition): Condition {
  if (!isGroup(condition)) return ownTest(condition);
  const { kind } = condition;
  // None of several, any one of which would do, is none of them all.
  const alike = kind === "all" ? "all" : "any";
  const of = condition.of.map(normalForm).flatMap((one) => (one.kind === alike ? one.of : [one]));
  const [neutral, deciding] = kind === "all" ? [isAlways, isNever] : [isNever, isAlways];
  if (of.some(deciding)) return kind === "any" ? EVERY_MESSAGE : NEVER;
  const put = kind === "all" ? joined : eitherOf;
  const merged = of.filter((one) => !neutral(one)).reduce(put, []);
  const [only] = merged;
  if (only === undefined) return kind === "any" ? NEVER : EVERY_MESSAGE;
  return merged.length === 1 && kind !== "none" ? only : { kind, of: merged };
}

/** Whether a condition in its normal form holds for no message. */
export function isNever(condition: Condition): boolean {
  return condition.kind === "any" && condition.of.length === 0;
}

/** Whether a condition in its normal form holds for every message. */
export function isAlways(condition: Condition): boolean {
  return condition.kind === "every";
}

/** What is never so. */
export const NEVER: ConditionGroup = { kind: "any", of: [] };

type Values = {
  readonly shape: string;
  readonly values: readonly unknown[];
  readonly having: (values: readonly never[]) => Test;
};

// What of a test are alternatives, and everything else of it.
function alternativesOf(test: Condition): Values | null {
  if (isGroup(test)) return null;
  if ("of" in test) {
    const { of, ...rest } = test;
    return { shape: JSON.stringify(rest), values: of, having: (values) => ({ ...test, of: values }) as Test };
  }
  if (test.kind === "header" && test.match.how === "exists")
    return { shape: "exists", values: test.names, having: (names) => ({ ...test, names }) };
  if (!("match" in test) || !("values" in test.match)) return null;
  const { values, ...how } = test.match;
  const shape = JSON.stringify({ ...test, match: how });
  return { shape, values, having: (more) => ({ ...test, match: { ...how, values: more } }) as Test };
}

function eitherOf(others: readonly Condition[], one: Condition): Condition[] {
  const own = alternativesOf(one);
  const at = own === null ? -1 : others.findIndex((other) => alternativesOf(other)?.shape === own.shape);
  const other = others[at];
  const theirs = other === undefined ? null : alternativesOf(other);
  if (own === null || theirs === null) return [...others, one];
  const values = [...theirs.values, ...own.values] as never[];
  return others.with(at, theirs.having(values));
}

// Parts that all have to hold and ask for two bounds, or for several words, of one thing.
function joined(others: readonly Condition[], one: Condition): Condition[] {
  for (const [at, other] of others.entries()) {
    const both = together(other, one);
    if (both !== null) return others.with(at, both);
  }
  return [...others, one];
}

function together(one: Condition, other: Condition): Test | null {
  if (one.kind === "size" && other.kind === "size") return oneSize(one, other);
  if (one.kind === "days" && other.kind === "days") return oneSpan(one, other);
  return one.kind === "text" && other.kind === "text" && one.where === other.where ? oneText(one, other) : null;
}

function oneSize(one: TestOf<"size">, other: TestOf<"size">): Test | null {
  const isEitherBound =
    (one.over === undefined) !== (other.over === undefined) &&
    (one.under === undefined) !== (other.under === undefined);
  return isEitherBound ? { ...one, ...other } : null;
}

function oneSpan(one: TestOf<"days">, other: TestOf<"days">): Test | null {
  const isEitherBound =
    (one.from === null) !== (other.from === null) && (one.until === null) !== (other.until === null);
  return isEitherBound ? { kind: "days", from: one.from ?? other.from, until: one.until ?? other.until } : null;
}

function oneText(one: TestOf<"text">, other: TestOf<"text">): Test | null {
  const [first, second] = [onlyWords(one.match), onlyWords(other.match)];
  return first === null || second === null ? null : { ...one, match: { how: "words", values: [`${first} ${second}`] } };
}

function onlyWords({ how, values }: TextMatch): string | null {
  return how === "words" && values.length === 1 ? (values[0] ?? null) : null;
}

/** What is done in the order that a script and back leads to: once each, and what takes it from the inbox behind all that files it. */
export function normalActions(actions: readonly RuleAction[]): RuleAction[] {
  const distinct = [...new Map(actions.map((action) => [JSON.stringify(action), action])).values()];
  const isGone = distinct.some(({ kind }) => kind === "bin" || kind === "junk");
  const kept = distinct.filter(({ kind }) => !(kind === "settle" && isGone));
  const before = kept.filter(({ kind }) => kind === "urgency");
  const after = kept.filter(({ kind }) => kind === "settle" || kind === "bin" || kind === "junk");
  return [...before, ...kept.filter((action) => !before.includes(action) && !after.includes(action)), ...after];
}
