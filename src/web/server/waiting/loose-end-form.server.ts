import Joi from "joi";
import { type ConversationId, trustedId } from "../../../core/kernel/ids";
import { err, ok, type Result } from "../../../core/kernel/result";
import { LOOSE_ENDS, type LooseEndKind } from "../../../core/loose-ends/loose-end";
import { ID } from "../base/fields.server";
import { problemsByField, speak } from "../base/say.server";

/** That something is no loose end, or is one again. */
export type LooseEndStep = {
  readonly do: "dismiss" | "take-back";
  readonly id: ConversationId;
  readonly kind: LooseEndKind;
  readonly reason: string;
};

const MAX_REASON = 300;

const REASON = Joi.string().trim().max(MAX_REASON).required().messages({
  "string.empty": "waiting.sayWhyForWhoeverFinds",
  "any.required": "waiting.sayWhyForWhoeverFinds",
  "string.max": "waiting.atMostCharacters",
});
const ABOUT = {
  conversation: ID.required(),
  kind: Joi.string()
    .valid(...LOOSE_ENDS)
    .required(),
};
const FORMS = { dismiss: Joi.object({ ...ABOUT, reason: REASON }), "take-back": Joi.object(ABOUT) } as const;

/** The posted step, or what is wrong with its fields. */
export function readLooseEndStep(form: FormData): Result<LooseEndStep, Readonly<Record<string, string>>> {
  const kind = String(form.get("do"));
  if (kind !== "dismiss" && kind !== "take-back") return err({ do: speak("waiting.thatIsNothingThatCan") });
  const { value, error } = FORMS[kind].validate(Object.fromEntries(form), { abortEarly: false, stripUnknown: true });
  if (error !== undefined) {
    return err(problemsByField(error));
  }
  const id = trustedId<ConversationId>(value.conversation);
  return ok({ do: kind, id, kind: value.kind, reason: value.reason ?? "" });
}
