import { domainOf } from "../kernel/email-address";
import { type Condition, isGroup, type Test } from "./condition";
import { wordsOf } from "./find-text";
import { needOf } from "./needs";
import type { Rule } from "./rule";
import { addressesAt, type TestedMessage, testerOf } from "./test-message";

/** Whether a condition holds, decided as soon as it is clear. */
type Holds = (message: TestedMessage) => boolean;

/** A rule made ready: in its place, and asked only about what has one of its keys. */
type Ready = { readonly at: number; readonly mayHold: Holds; askedLast: number };

/** The rules that are on, ready to be asked about many messages. */
export type RuleIndex<R> = {
  /** Those that may be for a message, in their order, from what the message alone tells. */
  readonly candidates: (message: TestedMessage) => R[];
};

/** What a message has that a rule can be found by. */
type KeyKind = "address" | "domain" | "list" | "subject";
type Key = { readonly kind: KeyKind; readonly value: string };
type ByKey = { readonly [Kind in KeyKind]: Map<string, Ready[]> };

/**
 * Makes rules ready. Of each it is worked out which keys (a sender, a domain, a list, a word of the subject, …) a message
 * must have one of for its condition to hold, so that most rules are never asked about most messages. What has to be looked
 * up to be tested counts as it would have to be for the rule to hold.
 */
export function indexRules<R extends Pick<Rule, "isOn" | "condition">>(rules: readonly R[]): RuleIndex<R> {
  const always: Ready[] = [];
  const byKey: ByKey = { address: new Map(), domain: new Map(), list: new Map(), subject: new Map() };
  for (const [at, { isOn, condition }] of rules.entries()) {
    if (!isOn) continue;
    const hopeful = untilLookedUp(condition, true);
    const one: Ready = { at, mayHold: ready(hopeful), askedLast: 0 };
    const keys = keysOf(hopeful);
    if (keys === null) always.push(one);
    else for (const { kind, value } of keys) byKey[kind].set(value, [...(byKey[kind].get(value) ?? []), one]);
  }
  let asked = 0;
  return {
    candidates: (message) => {
      asked += 1;
      const holding: Ready[] = [];
      const ask = (some: readonly Ready[] | undefined) => {
        for (const one of some ?? []) {
          // A rule can be found by several keys of one message.
          if (one.askedLast === asked) continue;
          one.askedLast = asked;
          if (one.mayHold(message)) holding.push(one);
        }
      };
      ask(always);
      askByKeys(message, byKey, ask);
      return holding.sort((a, b) => a.at - b.at).flatMap(({ at }) => rules[at] ?? []);
    },
  };
}

function askByKeys(message: TestedMessage, byKey: ByKey, ask: (some: readonly Ready[] | undefined) => void): void {
  if (byKey.address.size + byKey.domain.size > 0) {
    for (const address of addressesAt(message, "any")) {
      ask(byKey.address.get(address));
      ask(byKey.domain.get(domainOf(address)));
    }
  }
  if (message.list !== null) ask(byKey.list.get(message.list));
  if (byKey.subject.size === 0) return;
  for (const { folded } of message.texts("subject")) for (const word of folded.split(" ")) ask(byKey.subject.get(word));
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
function keysOf(condition: Condition): readonly Key[] | null {
  if (!isGroup(condition)) return keysOfTest(condition);
  const each = condition.of.map(keysOf);
  if (condition.kind === "none") return null;
  if (condition.kind === "any") return each.every((keys) => keys !== null) ? each.flat() : null;
  // Any part will do, and the fewest keys come up least.
  const some = each.filter((keys) => keys !== null);
  return some.length === 0 ? null : some.reduce((best, keys) => (keys.length < best.length ? keys : best));
}

function keysOfTest(test: Test): readonly Key[] | null {
  switch (test.kind) {
    case "address": {
      const keys = test.of.map((one): Key | null => {
        if (one.kind === "address") return { kind: "address", value: one.address };
        return one.kind === "domain" ? { kind: "domain", value: one.domain } : null;
      });
      return keys.every((key) => key !== null) ? keys : null;
    }
    case "list":
      return test.of.map((value) => ({ kind: "list", value }));
    case "text": {
      const { where, match } = test;
      // To take a whole text apart costs more than to look for some words in it.
      if (where !== "subject" || (match.how !== "words" && match.how !== "phrase")) return null;
      // The longest word is in the fewest texts; a value without any finds nothing.
      return match.values
        .flatMap((value) => wordsOf(value).toSorted((a, b) => b.length - a.length)[0] ?? [])
        .map((value) => ({ kind: where, value }));
    }
    default:
      return null;
  }
}
