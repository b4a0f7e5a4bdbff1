import type { Said } from "../../texts/said";
import { actionInWords } from "../rules/action-in-words";
import { ON_ARRIVAL, type RuleAction } from "../rules/rule";
import { normalActions, normalForm } from "./normal-form";
import { PLACES, RECORDS } from "./read-actions";
import type { WrittenRule } from "./rules-of-script";
import { said } from "./script-problem";
import { Lacking, quoted, type Requires, testInScript } from "./test-in-script";
import { WRITTEN_NAMES } from "./written-names";

/** What of a rule a mail server cannot do: the rule is there without it, or not at all. */
type Lack = { readonly rule: string; readonly lacks: Said; readonly isLeftOut: boolean };

/** A script that does what rules do, as far as a mail server can, and what it lacks. */
export type ScriptOfRules = { readonly script: string; readonly lacks: readonly Lack[] };

/**
 * Rules as a script of RFC 5228, with the extensions that they need. A category is a mailbox that a copy goes to, and the
 * message itself where the rule settles; a record is a mailbox below `Records/`. A rule that asks for what a mail server
 * does not know is left out.
 */
export function scriptOfRules(rules: readonly WrittenRule[]): ScriptOfRules {
  const required = new Set<string>();
  const lacks: Lack[] = [];
  const written = rules.flatMap((rule) => {
    const own = new Set<string>();
    const problems: Said[] = [];
    const text = ruleInScript(
      rule,
      (extension) => own.add(extension),
      (problem) => problems.push(problem),
    );
    lacks.push(...problems.map((problem) => ({ rule: rule.name, lacks: problem, isLeftOut: text === null })));
    if (text !== null) for (const extension of own) required.add(extension);
    return text ?? [];
  });
  const head = required.size === 0 ? [] : [`require [${[...required].toSorted().map(quoted).join(", ")}];`];
  return { script: [...head, ...written].map((part) => `${part}\n`).join("\n"), lacks };
}

function ruleInScript(rule: WrittenRule, requires: Requires, lacks: (problem: Said) => void): string | null {
  const orLacking = (work: () => string): string | null => {
    try {
      return work();
    } catch (problem) {
      if (!(problem instanceof Lacking)) throw problem;
      lacks(problem.lacks);
      return null;
    }
  };
  const { exception } = rule;
  if (JSON.stringify(rule.times ?? ON_ARRIVAL) !== JSON.stringify(ON_ARRIVAL)) {
    lacks(said("sieve.onlyWhatComes"));
    return null;
  }
  const condition = orLacking(() => testInScript(normalForm(rule.condition), requires));
  const excepted = exception === null ? "" : orLacking(() => testInScript(normalForm(exception), requires));
  const actions = actionsInScript(rule.actions, requires, orLacking);
  const isIdle = rule.actions.length === 0 && !rule.isLast;
  const commands = [...actions, ...(rule.isLast ? ["stop;"] : []), ...(isIdle ? ["keep;"] : [])];
  if (condition === null || excepted === null || commands.length === 0) return null;
  // What is switched off is kept, and never so.
  const test = rule.isOn ? condition : `allof (false, ${condition})`;
  const lines = excepted === "" ? commands : [`if not ${excepted} {`, ...commands.map(indented), "}"];
  return [`# ${rule.name.replace(/\s+/g, " ")}`, `if ${test} {`, ...lines.map(indented), "}"].join("\n");
}

const indented = (line: string) => `  ${line}`;

function actionsInScript(
  all: readonly RuleAction[],
  requires: Requires,
  orLacking: (work: () => string) => string | null,
): string[] {
  const actions = normalActions(all);
  const isSettled = actions.some(({ kind }) => kind === "settle");
  const last = actions.findLast((action) => filingOf(action) !== null);
  return actions.flatMap((action) => {
    // Its last filing takes it from the inbox.
    if (action.kind === "settle" && last !== undefined) return [];
    const isMoved = action.kind === "settle" || (isSettled && action === last);
    return orLacking(() => commandOf(action, isMoved, requires)) ?? [];
  });
}

function commandOf(action: RuleAction, isMoved: boolean, requires: Requires): string {
  const filing = filingOf(action);
  if (filing !== null) return fileInto(filing, isMoved, requires);
  const place = Object.entries(PLACES).find(([, { kind }]) => kind === action.kind)?.[0];
  if (place !== undefined) return fileInto(`${place.slice(0, 1).toUpperCase()}${place.slice(1)}`, true, requires);
  if (action.kind === "redirect") {
    requires("copy");
    return `redirect :copy ${quoted(action.to)};`;
  }
  if (action.kind === "answer" && action.days !== null) {
    requires("vacation");
    return `vacation :days ${action.days} ${quoted(action.text)};`;
  }
  if (action.kind !== "urgency" || action.urgency !== "today")
    throw new Lacking(said("sieve.noServerDoes", { what: actionInWords(action, WRITTEN_NAMES) }));
  requires("imap4flags");
  return `addflag ${quoted("\\Flagged")};`;
}

/** The mailbox that stands for what an action adds; null where it adds nothing that a mailbox can stand for. */
function filingOf(action: RuleAction): string | null {
  if (action.kind === "file") return `${RECORDS}${action.recordId}`;
  if (action.kind !== "categorise" || !action.give) return null;
  // The names of mailboxes that mean something else.
  const isTaken = /^inbox([./]|$)/i.test(action.categoryId) || action.categoryId.startsWith(RECORDS);
  return isTaken || Object.hasOwn(PLACES, action.categoryId.toLowerCase()) ? null : action.categoryId;
}

function fileInto(mailbox: string, isMoved: boolean, requires: Requires): string {
  requires("fileinto");
  requires("mailbox");
  if (!isMoved) requires("copy");
  return `fileinto ${isMoved ? "" : ":copy "}:create ${quoted(mailbox)};`;
}
