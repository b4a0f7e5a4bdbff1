import Joi from "joi";
import {
  type MessageId,
  type RecordId,
  type RuleId,
  type RuleProposalId,
  readId,
  trustedId,
  UUID,
} from "../../../core/kernel/ids";
import { instant } from "../../../core/kernel/instant";
import { err, ok, type Result } from "../../../core/kernel/result";
import type { RuleProblems } from "../../../core/rules/check-rule";
import type { Condition } from "../../../core/rules/condition";
import { RULE_MOMENTS, type RuleAction, type RuleActionKind, type RuleTimes } from "../../../core/rules/rule";
import {
  type ArrivalPlace,
  actionSchemas,
  type Deps,
  namedInRules,
  type RuleDraft,
  type TrayGrant,
} from "../../../operations/index.server";
import { ID, ID_LIST } from "../base/fields.server";
import { readMoment } from "../base/moment-field.server";
import { speak } from "../base/say.server";
import { type NamedThings, readCondition, textsNaming } from "./condition-form.server";

/** What is wrong, by what it is about: `name`, `actions`, `actions.1`, `condition` and its parts (`condition.0.2`), and so on. */
export type RuleFormProblems = Readonly<Record<string, string>>;

/** Something that is done about the rules of a tray. */
export type RuleStep =
  | {
      readonly do: "keep" | "keep-and-run";
      readonly rule: RuleDraft;
      readonly typedName: string;
      /** The proposal that it was made from; null for none. */
      readonly proposalId: RuleProposalId | null;
    }
  | { readonly do: "decline" | "propose-again"; readonly proposalId: RuleProposalId }
  | { readonly do: "try"; readonly rule: RuleDraft; readonly before: ArrivalPlace | null }
  | { readonly do: "drop" | "bring-back"; readonly id: RuleId }
  | { readonly do: "switch"; readonly id: RuleId; readonly isOn: boolean }
  | { readonly do: "place"; readonly ids: readonly RuleId[] };

const MAX_POSTED_CHARACTERS = 200_000;
const ACTION_FORMS = actionSchemas(ID);

const WRITTEN_MOMENT = Joi.string().allow("").max(30).default("");

const RULE = Joi.object({
  id: ID.allow(null).required(),
  name: Joi.string().allow("").trim().max(500).required(),
  isOn: Joi.boolean().required(),
  isLast: Joi.boolean().required(),
  isOwn: Joi.boolean().default(false),
  isEverywhere: Joi.boolean().default(false),
  condition: Joi.object().unknown().required(),
  exception: Joi.object().unknown().allow(null).required(),
  actions: Joi.array().items(Joi.object().unknown()).max(50).required(),
  times: Joi.object({
    moment: Joi.string()
      .valid(...RULE_MOMENTS)
      .default("arrival"),
    from: WRITTEN_MOMENT,
    until: WRITTEN_MOMENT,
  }).default({ moment: "arrival", from: "", until: "" }),
});

const FORMS = {
  drop: Joi.object({ id: ID.required() }),
  "bring-back": Joi.object({ id: ID.required() }),
  switch: Joi.object({ id: ID.required(), on: Joi.boolean().required() }),
  place: Joi.object({ ids: ID_LIST.required() }),
  decline: Joi.object({ id: ID.required() }),
  "propose-again": Joi.object({ id: ID.required() }),
} as const;

/** The posted step, its dates read by the clock of a zone; or what is wrong with its fields. */
export async function readRuleStep(
  deps: Deps,
  grant: TrayGrant,
  form: FormData,
  zone: string,
): Promise<Result<RuleStep, RuleFormProblems>> {
  const kind = String(form.get("do"));
  if (kind === "keep" || kind === "keep-and-run" || kind === "try") return readWhole(kind, deps, grant, form, zone);
  if (!Object.hasOwn(FORMS, kind)) return err({ do: speak("server.thatIsNothingThatCan") });
  const { value, error } = FORMS[kind as keyof typeof FORMS].validate(Object.fromEntries(form), { stripUnknown: true });
  if (error !== undefined) return err({ do: speak("rules.thatIsNoRule") });
  if (kind === "place") return ok({ do: kind, ids: value.ids.map((one: string) => trustedId<RuleId>(one)) });
  if (kind === "decline" || kind === "propose-again")
    return ok({ do: kind, proposalId: trustedId<RuleProposalId>(value.id) });
  return ok({ do: kind, id: trustedId<RuleId>(value.id), isOn: value.on } as RuleStep);
}

async function readWhole(
  kind: "keep" | "keep-and-run" | "try",
  deps: Deps,
  grant: TrayGrant,
  form: FormData,
  zone: string,
): Promise<Result<RuleStep, RuleFormProblems>> {
  const rule = await readRule(deps, grant, String(form.get("rule") ?? ""), zone);
  if (!rule.ok) return rule;
  if (kind === "try") return ok({ do: kind, rule: rule.value, before: readPlace(String(form.get("before") ?? "")) });
  const proposal = readId<RuleProposalId>(String(form.get("proposal") ?? ""));
  const typedName = String(form.get("tray-name") ?? "");
  return ok({ do: kind, rule: rule.value, typedName, proposalId: proposal.ok ? proposal.value : null });
}

// Where the trial before ended, as it was said then; from the newest on where that is nothing.
function readPlace(text: string): ArrivalPlace | null {
  const [at = "", id = ""] = text.split(" ");
  return /^\d{1,15}$/.test(at) && UUID.test(id) ? { at: instant(Number(at)), id: trustedId<MessageId>(id) } : null;
}

async function readRule(
  deps: Deps,
  grant: TrayGrant,
  posted: string,
  zone: string,
): Promise<Result<RuleDraft, RuleFormProblems>> {
  const { value, error } = RULE.validate(parsed(posted));
  if (error !== undefined) return err({ rule: speak("rules.thatIsNoRule") });
  const things = await namedInRules(deps, grant, textsNaming(value));
  const problems: Record<string, string> = {};
  const noteFor = (part: string) => (path: string, problem: string) => {
    problems[path === "" ? part : `${part}.${path}`] ??= problem;
  };
  const condition = readCondition(value.condition, things, noteFor("condition"));
  const exception: Condition | null =
    value.exception === null ? null : readCondition(value.exception, things, noteFor("exception"));
  const actions = (value.actions as readonly unknown[]).flatMap((action, at) => {
    const read = readAction(action, things);
    if (read.ok) return [read.value];
    problems[`actions.${at}`] = read.error;
    return [];
  });
  const { id, name, isOn, isLast, isOwn, isEverywhere } = value;
  const times = readTimes(value.times, zone, problems);
  const which = { condition, exception, actions, times };
  const whose = { ...(isOwn ? { memberId: grant.memberId } : {}), ...(isEverywhere ? { isEverywhere } : {}) };
  const draft = { id: id === null ? null : trustedId<RuleId>(id), name, isOn, isLast, ...whose, ...which };
  return Object.keys(problems).length > 0 ? err(problems) : ok(draft);
}

function readTimes(
  { moment, from, until }: { readonly moment: RuleTimes["moment"]; readonly from: string; readonly until: string },
  zone: string,
  problems: Record<string, string>,
): RuleTimes {
  const edge = (name: "from" | "until", text: string) => {
    const read = readMoment(text, zone);
    if (read.ok) return read.value;
    problems[name] = read.error;
    return null;
  };
  return { moment, from: edge("from", from), until: edge("until", until) };
}

function parsed(posted: string): unknown {
  if (posted.length > MAX_POSTED_CHARACTERS) return null;
  try {
    return JSON.parse(posted);
  } catch {
    return null;
  }
}

function readAction(posted: unknown, things: NamedThings): Result<RuleAction, string> {
  const kind = (posted as { readonly kind?: unknown }).kind;
  if (typeof kind !== "string" || !Object.hasOwn(ACTION_FORMS, kind)) return err(speak("server.thatIsNothingThatCan"));
  const { value, error } = ACTION_FORMS[kind as RuleActionKind].validate(posted);
  if (error !== undefined) return err(speak("rules.sayWhich"));
  if (kind !== "file") return ok(value as RuleAction);
  if (value.recordId.trim() === "") return err(speak("rules.enterTheCode"));
  const recordId: RecordId | null = things.record(value.recordId.trim().toUpperCase());
  return recordId === null ? err(speak("rules.thereIsNoRecord", { code: value.recordId })) : ok({ ...value, recordId });
}

/** What is wrong with a rule, by the names that its form has for its parts. */
export function ruleProblemsByField({
  name,
  condition = [],
  exception = [],
  actions,
  until,
  everywhere,
}: RuleProblems): RuleFormProblems {
  const problems: Record<string, string> = {};
  if (name !== undefined) problems.name = speak(name);
  if (until !== undefined) problems.until = speak(until);
  if (everywhere !== undefined) problems.everywhere = speak(everywhere);
  for (const [part, all] of Object.entries({ condition, exception }))
    for (const { path, problem } of all) problems[path === "" ? part : `${part}.${path}`] ??= speak(problem);
  if (actions === undefined) return problems;
  if ("key" in actions) problems.actions = speak(actions);
  else for (const { at, problem } of actions) problems[`actions.${at}`] = speak(problem);
  return problems;
}
