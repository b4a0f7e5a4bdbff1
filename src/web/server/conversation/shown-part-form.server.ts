import Joi from "joi";
import type { ShownPart } from "../../../operations/index.server";

const PART = Joi.string().valid("text", "html").required();

/** In which part a message is to be shown; null where the form says neither. */
export function readShownPart(form: FormData): ShownPart | null {
  const { error, value } = PART.validate(form.get("part")) as Joi.ValidationResult<ShownPart>;
  return error === undefined ? value : null;
}
