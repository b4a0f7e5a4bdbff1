import { isDeepStrictEqual } from "node:util";
import {
  type CategoryId,
  type ContactId,
  type GroupId,
  type MemberId,
  type RecordId,
  type RoundId,
  type TemplateId,
  trustedId,
} from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { checkRule, type RuleProblems } from "../../core/rules/check-rule";
import { namedBy, type Renaming, renamed } from "../../core/rules/named-by";
import type { Rule, RuleAction } from "../../core/rules/rule";
import { ownName, rulesOfScript, type WrittenRule } from "../../core/sieve/rules-of-script";
import { type ScriptOfRules, scriptOfRules } from "../../core/sieve/script-of-rules";
import type { ScriptProblem } from "../../core/sieve/script-problem";
import type { TrayGrant } from "../../storage/access/index";
import { categoriesOf } from "../../storage/facts/index";
import { recordsByCodes } from "../../storage/records/index";
import { rulesOf } from "../../storage/rules/index";
import { rulesTexts } from "../../texts/en/rules";
import { type Said, type Sayable, saidOf } from "../../texts/said";
import type { Deps } from "../base/deps";
import { ownAddresses } from "../base/routing-cache";
import { writtenDown } from "../base/written-down";
import { editRule, type RuleRefusal } from "./edit-rules";
import { ruleNamesOf } from "./rule-names";

const said = saidOf(rulesTexts);

/** The rules of a tray as a script for a mail server, and what that cannot do of them. */
export async function scriptOfTray(deps: Deps, grant: TrayGrant): Promise<ScriptOfRules> {
  const rules = await rulesOf(deps.db, grant.tray.id);
  const names = await ruleNamesOf(deps, grant.tray, grant, rules);
  const to: Renaming = {
    member: (id) => trustedId<MemberId>(nameOf(names.member(id))),
    category: (id) => trustedId<CategoryId>(nameOf(names.category(id))),
    record: (id) => trustedId<RecordId>(nameOf(names.record(id))),
    contact: (id) => trustedId<ContactId>(nameOf(names.contact(id))),
    round: (id) => trustedId<RoundId>(nameOf(names.round(id))),
    group: (id) => trustedId<GroupId>(nameOf(names.group(id))),
    template: (id) => trustedId<TemplateId>(nameOf(names.template(id))),
  };
  return scriptOfRules(rules.map((rule) => renamed(rule, to)));
}

const nameOf = (name: Sayable) => (typeof name === "object" ? writtenDown(name) : String(name));

/** What a rule of a script comes to in a tray, or something of it that has no counterpart; by its line. */
export type ScriptLine = {
  readonly line: number;
  /** The rule's name; null for what is no rule. */
  readonly name: string | null;
  readonly kind: "new" | "same" | "problem";
  /** What is wrong, or what it lacks. */
  readonly problem: Said | null;
};

/** The place where a script is none. */
type NoScript = { readonly kind: "no-script"; readonly at: ScriptProblem };

/** A line with the rule that it stands for; null for what is no rule, or none that can be kept. */
type Planned = ScriptLine & { readonly rule: WrittenRule | null };

/** What a script would bring into a tray, in its order; or the place where it is none. */
export async function tryScript(
  deps: Deps,
  grant: TrayGrant,
  script: string,
): Promise<Result<readonly ScriptLine[], NoScript>> {
  const planned = await plannedFrom(deps, grant, script);
  return planned.ok ? ok(planned.value.map(lineOf)) : planned;
}

/** Brings the rules of a script into a tray, after its own and switched off, so that they can be looked at and tried first. */
export async function bringInScript(
  deps: Deps,
  grant: TrayGrant,
  script: string,
): Promise<Result<readonly ScriptLine[], RuleRefusal | NoScript>> {
  const planned = await plannedFrom(deps, grant, script);
  if (!planned.ok) return planned;
  for (const { rule } of planned.value) {
    const kept = rule === null ? null : await editRule(deps, grant, { ...rule, id: null });
    if (kept?.ok === false) return kept;
  }
  return ok(planned.value.map(lineOf));
}

const lineOf = ({ rule: _, ...line }: Planned): ScriptLine => line;

async function plannedFrom(
  deps: Deps,
  grant: TrayGrant,
  script: string,
): Promise<Result<readonly Planned[], NoScript>> {
  const read = rulesOfScript(script);
  if (!read.ok) return err({ kind: "no-script", at: read.error });
  const { rules, places, leftOut } = read.value;
  const there = await rulesOf(deps.db, grant.tray.id);
  const known = await knownIn(deps, grant, rules);
  const ours = await ownAddresses(deps);
  const taken: Pick<Rule, "name">[] = [...there];
  const planned = rules.flatMap((written, at): Planned[] => {
    const line = places[at]?.line ?? 1;
    const { actions, lacks } = known(written.actions);
    const rule = { ...written, name: ownName(written.name, taken), isOn: false, actions };
    const lacking = lacks.map((problem): Planned => ({ line, name: null, kind: "problem", problem, rule: null }));
    if (there.some((one) => isAlike(one, rule)))
      return [{ line, name: written.name, kind: "same", problem: null, rule: null }, ...lacking];
    const isIdle = actions.length === 0 && !rule.isLast;
    const problem = isIdle ? said("rules.nothingOfItHasACounterpart") : firstProblem(checkRule(rule, taken, ours));
    if (problem !== null) return [{ line, name: rule.name, kind: "problem", problem, rule: null }, ...lacking];
    taken.push(rule);
    return [{ line, name: rule.name, kind: "new", problem: null, rule }, ...lacking];
  });
  const left = leftOut.map(
    ({ line, problem }): Planned => ({ line, name: null, kind: "problem", problem, rule: null }),
  );
  return ok([...planned, ...left].toSorted((a, b) => a.line - b.line));
}

// The categories and records that actions name, by what people call them; what there is none of is left out.
async function knownIn(deps: Deps, grant: TrayGrant, rules: readonly WrittenRule[]) {
  const categories = (await categoriesOf(deps.db, grant.tray.id)).filter(({ retired }) => !retired);
  const codes = namedBy(rules).records.map((code) => code.toUpperCase());
  const records = await recordsByCodes(deps.db, grant, [...new Set(codes)]);
  const found = (action: RuleAction): RuleAction | Said => {
    if (action.kind === "categorise") {
      const name: string = action.categoryId;
      const category = categories.find((one) => one.name.toLowerCase() === name.toLowerCase());
      return category === undefined
        ? said("rules.thereIsNoCategory", { name })
        : { ...action, categoryId: category.id };
    }
    if (action.kind !== "file") return action;
    const code = action.recordId.toUpperCase();
    const record = records.find((one) => one.code === code);
    return record === undefined ? said("rules.thereIsNoRecord", { code }) : { ...action, recordId: record.id };
  };
  return (actions: readonly RuleAction[]) => {
    const each = actions.map(found);
    return {
      actions: each.flatMap((one) => ("key" in one ? [] : [one])),
      lacks: each.flatMap((one) => ("key" in one ? [one] : [])),
    };
  };
}

function firstProblem({ name, condition = [], exception = [], actions }: RuleProblems): Said | null {
  const ofActions = actions === undefined || "key" in actions ? (actions ?? null) : (actions[0]?.problem ?? null);
  return name ?? condition[0]?.problem ?? exception[0]?.problem ?? ofActions;
}

// Node compares whatever the order of the parts, which the database changes.
function isAlike(one: Omit<Rule, "id">, other: Omit<Rule, "id">): boolean {
  const whatItIs = ({ condition, exception, actions, isLast }: Omit<Rule, "id">) => ({
    condition,
    exception,
    actions,
    isLast,
  });
  return isDeepStrictEqual(whatItIs(one), whatItIs(other));
}
