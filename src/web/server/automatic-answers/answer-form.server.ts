import Joi from "joi";
import type { AnswerProblems } from "../../../core/automatic-answers/check-automatic-answer";
import { type AutomaticAnswerId, trustedId } from "../../../core/kernel/ids";
import { err, ok, type Result } from "../../../core/kernel/result";
import { type AnswerDraft, type Deps, namedInRules, type TrayGrant } from "../../../operations/index.server";
import { ID } from "../base/fields.server";
import { readMoment } from "../base/moment-field.server";
import { readJson } from "../base/read-json.server";
import { speak } from "../base/say.server";
import { readCondition, textsNaming } from "../rules/condition-form.server";

/** What is wrong, by what it is about: `name`, `texts.1`, `texts.1.condition` and its parts, and so on. */
export type AnswerFormProblems = Readonly<Record<string, string>>;

/** Something that is done about the automatic answers of a tray. */
export type AnswerStep =
  | { readonly do: "keep" | "preview"; readonly answer: AnswerDraft }
  | { readonly do: "drop" | "bring-back"; readonly id: AutomaticAnswerId }
  | { readonly do: "switch"; readonly id: AutomaticAnswerId; readonly isOn: boolean };

const MAX_POSTED_CHARACTERS = 300_000;

const ANSWER = Joi.object({
  id: ID.allow(null).required(),
  name: Joi.string().allow("").max(500).required(),
  isOn: Joi.boolean().required(),
  from: Joi.string().allow("").max(30).required(),
  until: Joi.string().allow("").max(30).required(),
  trigger: Joi.alternatives(
    Joi.object({ kind: Joi.valid("always", "closed").required() }),
    Joi.object({ kind: Joi.valid("away").required(), memberId: ID.required() }),
  ).required(),
  texts: Joi.array()
    .items(
      Joi.object({
        condition: Joi.object().unknown().required(),
        text: Joi.string().allow("").max(50_000).required(),
        copiesCover: Joi.boolean().required(),
      }),
    )
    .max(50)
    .required(),
  pace: Joi.alternatives(
    Joi.object({ kind: Joi.valid("each").required() }),
    Joi.object({ kind: Joi.valid("once").required(), days: Joi.number().max(100_000).required() }),
  ).required(),
});

const STEPS = {
  drop: Joi.object({ id: ID.required() }),
  "bring-back": Joi.object({ id: ID.required() }),
  switch: Joi.object({ id: ID.required(), on: Joi.boolean().required() }),
} as const;

/** The posted step, its dates read by the clock of a zone; or what is wrong with its fields. */
export async function readAnswerStep(
  deps: Deps,
  grant: TrayGrant,
  form: FormData,
  zone: string,
): Promise<Result<AnswerStep, AnswerFormProblems>> {
  const kind = String(form.get("do"));
  if (kind === "keep" || kind === "preview") {
    const answer = await readAnswer(deps, grant, String(form.get("answer") ?? ""), zone);
    return answer.ok ? ok({ do: kind, answer: answer.value }) : answer;
  }
  if (!Object.hasOwn(STEPS, kind)) return err({ do: speak("server.thatIsNothingThatCan") });
  const { value, error } = STEPS[kind as keyof typeof STEPS].validate(Object.fromEntries(form), { stripUnknown: true });
  if (error !== undefined) return err({ do: speak("server.thatIsNothingThatCan") });
  return ok({ do: kind, id: trustedId<AutomaticAnswerId>(value.id), isOn: value.on } as AnswerStep);
}

async function readAnswer(
  deps: Deps,
  grant: TrayGrant,
  posted: string,
  zone: string,
): Promise<Result<AnswerDraft, AnswerFormProblems>> {
  const { value, error } = ANSWER.validate(posted.length > MAX_POSTED_CHARACTERS ? null : readJson(posted));
  if (error !== undefined) return err({ do: speak("server.thatIsNothingThatCan") });
  const things = await namedInRules(deps, grant, textsNaming(value));
  const problems: Record<string, string> = {};
  const texts = (value.texts as AnswerDraft["texts"]).map((text, at) => ({
    ...text,
    condition: readCondition(text.condition, things, (path, problem) => {
      problems[`texts.${at}.condition${path === "" ? "" : `.${path}`}`] ??= problem;
    }),
  }));
  const moment = (field: "from" | "until") => {
    const read = readMoment(value[field], zone);
    if (read.ok) return read.value;
    problems[field] = read.error;
    return null;
  };
  const draft = { ...value, texts, from: moment("from"), until: moment("until") };
  return Object.keys(problems).length > 0 ? err(problems) : ok(draft);
}

/** What is wrong with an automatic answer, by the names that its form has for its parts. */
export function answerProblemsByField({ texts, ...plain }: AnswerProblems): AnswerFormProblems {
  const problems: Record<string, string> = {};
  for (const [field, problem] of Object.entries(plain)) problems[field] = speak(problem);
  if (texts === undefined) return problems;
  if ("key" in texts) return { ...problems, texts: speak(texts) };
  for (const [at, { text, condition = [] }] of texts) {
    if (text !== undefined) problems[`texts.${at}`] = speak(text);
    for (const { path, problem } of condition)
      problems[`texts.${at}.condition${path === "" ? "" : `.${path}`}`] ??= speak(problem);
  }
  return problems;
}
