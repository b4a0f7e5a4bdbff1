import Joi from "joi";
import { instantOf } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { checkRule } from "../../core/rules/check-rule";
import { type Condition, isGroup, type TestKind } from "../../core/rules/condition";
import { RULE_MOMENTS, type RuleActionKind, type RuleMoment, type RuleTimes } from "../../core/rules/rule";
import type { WrittenRule } from "../../core/sieve/rules-of-script";
import type { Said } from "../../texts/said";
import { writtenDown } from "../base/written-down";
import { actionSchemas, testSchemas } from "./rule-schemas";

/** What is wrong with a file of rules: where ("rules[2].condition.of[0]"), and what. */
export type WrittenProblem = { readonly at: string; readonly problem: string };

const NAME = Joi.string().max(500);
const TESTS = testSchemas(NAME);
const ACTIONS = actionSchemas(NAME);
const GROUP = Joi.object({
  kind: Joi.string().valid("all", "any", "none").required(),
  of: Joi.array().items(Joi.object().unknown()).max(300).required(),
});
const RULE = Joi.object({
  name: Joi.string().trim().required(),
  isOn: Joi.boolean().default(true),
  isLast: Joi.boolean().default(false),
  condition: Joi.object().unknown().required(),
  exception: Joi.object().unknown().allow(null).default(null),
  actions: Joi.array().items(Joi.object().unknown()).default([]),
  times: Joi.object({
    moment: Joi.string()
      .valid(...RULE_MOMENTS)
      .default("arrival"),
    from: Joi.date().iso().allow(null).default(null),
    until: Joi.date().iso().allow(null).default(null),
  }),
});
const MAX_RULES = 10_000;
const MAX_DEPTH = 40;

// The names that ids have in files, where people's words stand in their places.
const PLAIN_KEYS: readonly (readonly [own: string, plain: string])[] = [
  ["categoryId", "category"],
  ["recordId", "record"],
  ["ownerId", "owner"],
  ["memberId", "member"],
  ["contactId", "contact"],
  ["roundId", "round"],
  ["groupId", "group"],
  ["templateId", "template"],
];
const PLAIN = new Map(PLAIN_KEYS);
const OWN = new Map(PLAIN_KEYS.map(([own, plain]) => [plain, own] as const));

/** A rule, or a part of one, as it stands in files. */
export function asJson(part: unknown): unknown {
  return withKeys(part, PLAIN);
}

// A text among values has its own meaning; only names of things are changed.
function withKeys(part: unknown, keys: ReadonlyMap<string, string>): unknown {
  if (Array.isArray(part)) return part.map((one) => withKeys(one, keys));
  if (typeof part !== "object" || part === null) return part;
  return Object.fromEntries(Object.entries(part).map(([key, value]) => [keys.get(key) ?? key, withKeys(value, keys)]));
}

/** The rules in a JSON text: an array of them, in which what people call things stands for ids. */
export function readWrittenRules(text: string): Result<readonly WrittenRule[], readonly WrittenProblem[]> {
  let written: unknown;
  try {
    written = JSON.parse(text);
  } catch (problem) {
    return err([{ at: "rules", problem: `no JSON: ${problem instanceof Error ? problem.message : String(problem)}` }]);
  }
  if (!Array.isArray(written)) return err([{ at: "rules", problem: "no array of rules" }]);
  if (written.length > MAX_RULES) return err([{ at: "rules", problem: `more than ${MAX_RULES} rules` }]);
  const problems: WrittenProblem[] = [];
  const rules = written.flatMap((one, place) => readRule(one, `rules[${place}]`, problems) ?? []);
  for (const [place, rule] of rules.entries())
    problems.push(...problemsOf(rule, rules.slice(0, place), `rules[${place}]`));
  return problems.length > 0 ? err(problems) : ok(rules);
}

function readRule(written: unknown, at: string, problems: WrittenProblem[]): WrittenRule | null {
  const { value, error } = RULE.validate(withKeys(written, OWN));
  if (error !== undefined) {
    problems.push({ at, problem: error.message });
    return null;
  }
  const { name, isOn, isLast, times } = value;
  return {
    ...{ name, isOn, isLast },
    ...(times === undefined ? {} : { times: readTimes(times) }),
    condition: readCondition(value.condition, `${at}.condition`, problems),
    exception: value.exception === null ? null : readCondition(value.exception, `${at}.exception`, problems),
    actions: value.actions.map((action: unknown, place: number) =>
      checked(action, ACTIONS, `${at}.actions[${place}]`, problems),
    ),
  };
}

function readTimes(times: { moment: RuleMoment; from: Date | null; until: Date | null }): RuleTimes {
  const edge = (date: Date | null) => (date === null ? null : instantOf(date));
  return { moment: times.moment, from: edge(times.from), until: edge(times.until) };
}

function readCondition(written: unknown, at: string, problems: WrittenProblem[], depth = 0): Condition {
  const condition = written as Condition;
  if (!isGroup(condition)) return checked(condition, TESTS, at, problems) as Condition;
  const { error } = GROUP.validate(condition);
  if (error !== undefined || depth > MAX_DEPTH) {
    problems.push({ at, problem: error?.message ?? "nested too deep" });
    return condition;
  }
  const of = condition.of.map((one, place) => readCondition(one, `${at}.of[${place}]`, problems, depth + 1));
  return { ...condition, of };
}

function checked(
  written: unknown,
  schemas: Readonly<Record<TestKind | RuleActionKind, Joi.ObjectSchema>> | typeof TESTS | typeof ACTIONS,
  at: string,
  problems: WrittenProblem[],
): unknown {
  const kind = String((written as { readonly kind?: unknown }).kind);
  const schema = Object.hasOwn(schemas, kind)
    ? (schemas as Readonly<Record<string, Joi.ObjectSchema>>)[kind]
    : undefined;
  if (schema === undefined) {
    problems.push({ at, problem: `"${kind}" is no kind that is known` });
    return written;
  }
  const { value, error } = schema.validate(written);
  if (error !== undefined) problems.push({ at, problem: error.message });
  return value;
}

function problemsOf(rule: WrittenRule, others: readonly WrittenRule[], at: string): WrittenProblem[] {
  const { name, condition = [], exception = [], actions } = checkRule(rule, others);
  const inPart = (part: string) => (one: { path: string; problem: Said }) => ({
    at: [`${at}.${part}`, ...one.path.split(".").filter(Boolean)].join(".of "),
    problem: writtenDown(one.problem),
  });
  const ofActions = actions === undefined || "key" in actions ? [] : actions;
  return [
    ...(name === undefined ? [] : [{ at: `${at}.name`, problem: writtenDown(name) }]),
    ...condition.map(inPart("condition")),
    ...exception.map(inPart("exception")),
    ...ofActions.map((one) => ({ at: `${at}.actions[${one.at}]`, problem: writtenDown(one.problem) })),
  ];
}
