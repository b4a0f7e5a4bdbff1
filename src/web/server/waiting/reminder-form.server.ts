import Joi from "joi";
import { type ConversationId, trustedId } from "../../../core/kernel/ids";
import { REMINDER_LANGUAGES, type ReminderStyle, TONES } from "../../../core/kernel/reminder-style";
import { err, ok, type Result } from "../../../core/kernel/result";
import type { ReminderPlan } from "../../../operations/index.server";
import { ID } from "../base/fields.server";
import { problemsByField, speak } from "../base/say.server";

/** Something that is done about reminders. */
export type ReminderStep =
  | { readonly do: "plan"; readonly ids: readonly ConversationId[]; readonly plan: ReminderPlan }
  | { readonly do: "call-off"; readonly ids: readonly ConversationId[] };

const MAX_CONVERSATIONS = 500;
const MAX_TEXT = 10_000;

const STYLE = {
  tone: Joi.string()
    .valid(...TONES)
    .default(TONES[0]),
  language: Joi.string()
    .valid(...REMINDER_LANGUAGES)
    .default(REMINDER_LANGUAGES[0]),
};

const FORM = Joi.object({
  do: Joi.string().valid("plan", "call-off").required(),
  conversation: Joi.array().items(ID).min(1).max(MAX_CONVERSATIONS).required().messages({
    "array.min": "waiting.nothingIsSelectedSelectWho",
    "array.max": "waiting.atMostAtOnce",
  }),
  ...STYLE,
  text: Joi.string().trim().max(MAX_TEXT).allow("").default("").messages({ "string.max": "waiting.thatIsTooLong" }),
  own: Joi.boolean().default(false),
  series: Joi.boolean().default(false),
});

/** The posted step, or what is wrong with its fields. */
export function readReminderStep(form: FormData): Result<ReminderStep, Readonly<Record<string, string>>> {
  const posted = { ...Object.fromEntries(form), conversation: form.getAll("conversation") };
  const { value, error } = FORM.validate(posted, { abortEarly: false, stripUnknown: true });
  if (error !== undefined) {
    return err(problemsByField(error));
  }
  const ids = value.conversation.map((id: string) => trustedId<ConversationId>(id));
  if (value.do === "call-off") return ok({ do: "call-off", ids });
  if (value.own && value.text === "") return err({ text: speak("waiting.writeWhatTheyAreTo") });
  const { tone, language, text, series, own } = value;
  return ok({ do: "plan", ids, plan: { tone, language, text: own ? text : null, isSeries: series } });
}

/** The style that an address asks for; what is none is the first there is. */
export function readReminderStyle(query: URLSearchParams): ReminderStyle {
  const { value, error } = Joi.object(STYLE).validate(Object.fromEntries(query), { stripUnknown: true });
  return error === undefined ? value : { tone: TONES[0], language: REMINDER_LANGUAGES[0] };
}
