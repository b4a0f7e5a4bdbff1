import Joi from "joi";
import { type DraftId, trustedId } from "../../../core/kernel/ids";
import { readInstant } from "../../../core/kernel/instant";
import { err, ok, type Result } from "../../../core/kernel/result";
import type { LetterStep } from "../../../operations/index.server";
import { ID } from "../base/fields.server";
import { speak } from "../base/say.server";

const STEP = Joi.object<{ do: LetterStep["do"]; id: string; at: string }>({
  do: Joi.string().valid("call-off", "call-off-series", "send-now", "put", "let-go").required(),
  id: ID.required(),
  at: Joi.string().isoDate().allow("").default(""),
});

/** The posted step of a letter that is to go, or what is wrong with it. */
export function readLetterStep(form: FormData): Result<LetterStep & { readonly id: DraftId }, string> {
  const { value, error } = STEP.validate(Object.fromEntries(form), { stripUnknown: true });
  if (error !== undefined) return err(speak("server.thatIsNothingThatCan"));
  const id = trustedId<DraftId>(value.id);
  if (value.do !== "put") return ok({ do: value.do, id });
  const at = readInstant(value.at);
  return at === null ? err(speak("writing.thatIsNoDayOf")) : ok({ do: "put", id, at });
}
