import { domainOf } from "../kernel/email-address";
import { type Condition, isGroup, type Test } from "./condition";
import { wordsOf } from "./find-text";
import { needOf } from "./needs";
import type { Rule } from "./rule";
import { addressesAt, type TestedMessage, testerOf } from "./test-message";

/** Whether a condition holds, decided as soon as it is clear. */
type Holds = (message: TestedMessage) => boolean;

/** A rule made ready: in its place, and asked only about what has one of its keys. */
type Ready = { readonly at: number; readonly mayHold: Holds };

/** The rules that are on, ready to be asked about many messages. */
export type RuleIndex<R> = {
  /** Those that may be for a message, in their order, from what the message alone tells. */
  readonly candidates: (message: TestedMessage) => R[];
};

/**
 * Makes rules ready. Of each it is worked out which keys (a sender, a domain, a list, a word of the subject, …) a message
 * must have one of for its condition to hold, so that most rules are never asked about most messages. What has to be looked
 * up to be tested counts as it would have to be for the rule to hold.
 */
export function indexRules<R extends Pick<Rule, "isOn" | "condition">>(rules: readonly R[]): RuleIndex<R> {
  const always: Ready[] = [];
  const byKey = new Map<string, Ready[]>();
  for (const [at, { isOn, condition }] of rules.entries()) {
    if (!isOn) continue;
    const hopeful = untilLookedUp(condition, true);
    const one = { at, mayHold: ready(hopeful) };
    const keys = keysOf(hopeful);
    if (keys === null) always.push(one);
    else for (const key of keys) byKey.set(key, [...(byKey.get(key) ?? []), one]);
  }
  const kinds = new Set([...byKey.keys()].map((key) => key.slice(0, key.indexOf(":"))));
  return {
    candidates: (message) => {
      const asked = new Set(always);
      for (const key of keysIn(message, kinds)) for (const one of byKey.get(key) ?? []) asked.add(one);
      return [...asked]
        .filter(({ mayHold }) => mayHold(message))
        .sort((a, b) => a.at - b.at)
        .flatMap(({ at }) => rules[at] ?? []);
    },
  };
}

const TRUE: Condition = { kind: "all", of: [] };
const FALSE: Condition = { kind: "any", of: [] };

// What is not known yet is taken for what lets the whole hold.
function untilLookedUp(condition: Condition, isWanted: boolean): Condition {
  if (!isGroup(condition)) {
    if (needOf(condition) === null) return condition;
    return isWanted ? TRUE : FALSE;
  }
  const wanted = condition.kind === "none" ? !isWanted : isWanted;
  return { ...condition, of: condition.of.map((one) => untilLookedUp(one, wanted)) };
}

function ready(condition: Condition): Holds {
  if (!isGroup(condition)) {
    const test = testerOf(condition);
    return (message) => test(message) !== null;
  }
  const each = condition.of.map(ready);
  if (condition.kind === "all") return (message) => each.every((holds) => holds(message));
  const isAny = condition.kind === "any";
  return (message) => each.some((holds) => holds(message)) === isAny;
}

// The keys of which a message has to have one; null where there are none such, so that it has to be asked.
function keysOf(condition: Condition): readonly string[] | null {
  if (!isGroup(condition)) return keysOfTest(condition);
  const each = condition.of.map(keysOf);
  if (condition.kind === "none") return null;
  if (condition.kind === "any") return each.every((keys) => keys !== null) ? each.flat() : null;
  // Any part will do; the dearest words are those of texts, and the fewest keys come up least.
  const some = each.filter((keys) => keys !== null);
  return some.length === 0 ? null : some.reduce((best, keys) => (costOf(keys) < costOf(best) ? keys : best));
}

const costOf = (keys: readonly string[]) => keys.length + (keys.some((key) => key.startsWith("text:")) ? 1_000 : 0);

function keysOfTest(test: Test): readonly string[] | null {
  switch (test.kind) {
    case "address": {
      const keys = test.of.map((one) => {
        if (one.kind === "address") return `address:${one.address}`;
        return one.kind === "domain" ? `domain:${one.domain}` : null;
      });
      return keys.every((key) => key !== null) ? keys : null;
    }
    case "list":
      return test.of.map((list) => `list:${list}`);
    case "text": {
      const { where, match } = test;
      if ((where !== "subject" && where !== "text") || (match.how !== "words" && match.how !== "phrase")) return null;
      // A value without a word finds nothing.
      return match.values
        .flatMap((value) => wordsOf(value).toSorted((a, b) => b.length - a.length)[0] ?? [])
        .map((word) => `${where}:${word}`);
    }
    default:
      return null;
  }
}

function* keysIn(message: TestedMessage, kinds: ReadonlySet<string>): Generator<string> {
  if (kinds.has("address") || kinds.has("domain")) {
    for (const address of addressesAt(message, "any")) {
      yield `address:${address}`;
      yield `domain:${domainOf(address)}`;
    }
  }
  if (message.list !== null) yield `list:${message.list}`;
  for (const place of ["subject", "text"] as const) {
    if (!kinds.has(place)) continue;
    for (const { folded } of message.texts(place)) for (const word of folded.split(" ")) yield `${place}:${word}`;
  }
}
