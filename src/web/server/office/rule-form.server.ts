import Joi from "joi";
import { readEmailAddress } from "../../../core/kernel/email-address";
import { type CategoryId, type MemberId, type RecordId, type RuleId, trustedId } from "../../../core/kernel/ids";
import { err, ok, type Result } from "../../../core/kernel/result";
import { URGENCIES, type Urgency } from "../../../core/kernel/urgency";
import type { RuleActions, RuleConditions } from "../../../core/rules/rule";
import { type Deps, type RuleDraft, recordOfCode, type TrayGrant } from "../../../operations/index.server";
import { ID, ID_LIST } from "../base/fields.server";
import { problemsByField, speak } from "../base/say.server";

/** What is wrong, by the name of the field. */
export type RuleFormProblems = Readonly<Record<string, string>>;

/** Something that is done about the rules of a tray. */
export type RuleStep =
  | { readonly do: "keep" | "try"; readonly rule: RuleDraft }
  | { readonly do: "drop" | "bring-back"; readonly id: RuleId }
  | { readonly do: "switch"; readonly id: RuleId; readonly isOn: boolean }
  | { readonly do: "place"; readonly ids: readonly RuleId[] };

const MAX_VALUES = 50;
const MAX_TYPED = 2_000;
const typed = Joi.string()
  .trim()
  .allow("")
  .max(MAX_TYPED)
  .default("")
  .messages({ "string.max": "office.thatIsTooMuch" });
const attachment = Joi.string().valid("", "yes", "no").default("");

const PARTS = ["from", "to", "subject", "text", "list"] as const;
const conditions = (before: string) => ({
  ...Object.fromEntries(PARTS.map((part) => [`${before}${part}`, typed])),
  [speak("office.beforeAttachment", { before })]: attachment,
});

const RULE = Joi.object({
  id: ID.allow("").default(""),
  name: typed,
  ...conditions(""),
  ...conditions("not-"),
  categories: Joi.array().items(ID).max(MAX_VALUES).default([]),
  record: typed,
  owner: ID.allow("").default(""),
  urgency: Joi.string()
    .valid("", ...URGENCIES)
    .default(""),
  away: Joi.string().valid("", "settle", "bin").default(""),
  on: Joi.boolean().default(false),
  last: Joi.boolean().default(false),
});

const FORMS = {
  drop: Joi.object({ id: ID.required() }),
  "bring-back": Joi.object({ id: ID.required() }),
  switch: Joi.object({ id: ID.required(), on: Joi.boolean().required() }),
  place: Joi.object({ ids: ID_LIST.required() }),
} as const;

/** The posted step, or what is wrong with its fields. */
export async function readRuleStep(
  deps: Deps,
  grant: TrayGrant,
  form: FormData,
): Promise<Result<RuleStep, RuleFormProblems>> {
  const kind = String(form.get("do"));
  if (kind === "keep" || kind === "try") {
    const rule = await readRule(deps, grant, form);
    return rule.ok ? ok({ do: kind, rule: rule.value }) : rule;
  }
  if (!Object.hasOwn(FORMS, kind)) return err({ do: speak("office.thatIsNothingThatCan") });
  const { value, error } = FORMS[kind as keyof typeof FORMS].validate(Object.fromEntries(form), { stripUnknown: true });
  if (error !== undefined) return err({ do: speak("office.thatIsNoRule") });
  if (kind === "place") return ok({ do: kind, ids: value.ids.map((one: string) => trustedId<RuleId>(one)) });
  return ok({ do: kind, id: trustedId<RuleId>(value.id), isOn: value.on } as RuleStep);
}

async function readRule(deps: Deps, grant: TrayGrant, form: FormData): Promise<Result<RuleDraft, RuleFormProblems>> {
  const posted = { ...Object.fromEntries(form), categories: form.getAll("categories") };
  const { value, error } = RULE.validate(posted, { abortEarly: false, stripUnknown: true });
  if (error !== undefined) {
    return err(problemsByField(error));
  }
  const problems: Record<string, string> = {};
  const record = value.record === "" ? null : await recordOfCode(deps, grant, value.record.toUpperCase());
  if (value.record !== "" && record === null)
    problems.record = speak("office.thereIsNoRecord", { record: value.record });
  const [wanted, unwanted] = [conditionsOf(value, "", problems), conditionsOf(value, "not-", problems)];
  if (Object.keys(problems).length > 0) return err(problems);
  const actions: RuleActions = {
    categoryIds: value.categories.map((one: string) => trustedId<CategoryId>(one)),
    recordId: record === null ? null : trustedId<RecordId>(record.id),
    ownerId: value.owner === "" ? null : trustedId<MemberId>(value.owner),
    urgency: value.urgency === "" ? null : (value.urgency as Urgency),
    putAway: value.away === "" ? null : value.away,
  };
  return ok({
    id: value.id === "" ? null : trustedId<RuleId>(value.id),
    name: value.name,
    isOn: value.on,
    isLast: value.last,
    conditions: wanted,
    exceptions: unwanted,
    actions,
  });
}

function conditionsOf(value: Record<string, string>, before: string, problems: Record<string, string>): RuleConditions {
  const part = (name: string) => (value[`${before}${name}`] ?? "").split(",").flatMap((one) => one.trim() || []);
  const addresses = (name: string) => {
    const all = part(name).map((one) => one.toLowerCase());
    const wrong = all.find((one) => readEmailAddress(one.startsWith("@") ? `somebody${one}` : one) === null);
    if (wrong !== undefined) problems[`${before}${name}`] = speak("office.isNeitherAnAddressNor", { wrong });
    return all;
  };
  const has = value[`${before}attachment`];
  return {
    from: addresses("from"),
    to: addresses("to"),
    subject: part("subject"),
    text: part("text"),
    list: part("list").map((one) => one.toLowerCase()),
    hasAttachment: has === "" || has === undefined ? null : has === "yes",
  };
}
