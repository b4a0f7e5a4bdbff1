import Joi from "joi";
import { type TemplateId, trustedId } from "../../../core/kernel/ids";
import { err, ok, type Result } from "../../../core/kernel/result";
import { MOST_TEMPLATE_CHARACTERS, type TemplateProblems } from "../../../core/templates/check-template";
import type { TemplateDraft } from "../../../operations/index.server";
import { ID, SEEN_VERSION } from "../base/fields.server";
import { readJson } from "../base/read-json.server";
import { speak } from "../base/say.server";

/** Something that is done about the templates. */
export type TemplateStep =
  | { readonly do: "keep"; readonly template: TemplateDraft }
  | { readonly do: "drop" | "bring-back"; readonly id: TemplateId };

const line = Joi.string().allow("").max(2_000).required();
const days = Joi.number().max(100_000);

const TEMPLATE = Joi.object<TemplateDraft>({
  id: ID.allow(null).required(),
  scope: Joi.valid("everywhere", "tray", "own").required(),
  name: line,
  folder: line,
  key: line,
  language: line,
  description: line,
  subject: line,
  // What is too long is said beside the text.
  html: Joi.string()
    .allow("")
    .max(2 * MOST_TEMPLATE_CHARACTERS)
    .required(),
  habits: Joi.object({
    expectDays: days,
    followUp: Joi.object({ days: days.required(), text: line }),
    categoryIds: Joi.array().items(ID).max(100),
  }).required(),
  version: SEEN_VERSION.required(),
});

const OF_ONE = Joi.object({ id: ID.required() });

/** The posted step, or what is wrong with it in words. */
export function readTemplateStep(form: FormData): Result<TemplateStep, string> {
  const kind = String(form.get("do"));
  const wrong = err(speak("server.thatIsNothingThatCan"));
  if (kind === "keep") {
    const { value, error } = TEMPLATE.validate(readJson(String(form.get("template") ?? "")));
    return error === undefined && value !== null ? ok({ do: kind, template: value }) : wrong;
  }
  const { value, error } = OF_ONE.validate(Object.fromEntries(form), { stripUnknown: true });
  if (error !== undefined || (kind !== "drop" && kind !== "bring-back")) return wrong;
  return ok({ do: kind, id: trustedId<TemplateId>(value.id) });
}

/** What is wrong with a template, in words by field. */
export function templateProblemsByField(problems: TemplateProblems): Readonly<Record<string, string>> {
  return Object.fromEntries(Object.entries(problems).map(([field, problem]) => [field, speak(problem)]));
}
