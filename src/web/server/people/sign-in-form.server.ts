import Joi from "joi";
import { err, ok, type Result } from "../../../core/kernel/result";
import { problemsByField } from "../base/say.server";

const MAX_NAME_CHARACTERS = 200;
// Hashing costs time by length as well.
const MAX_PASSWORD_CHARACTERS = 1_000;

export type SignInProblems = Partial<Record<"name" | "password", string>>;

const BY_PASSWORD = Joi.object({
  name: Joi.string()
    .trim()
    .max(MAX_NAME_CHARACTERS)
    .required()
    .messages({ "string.empty": "people.writeYourSignInName" }),
  password: Joi.string()
    .max(MAX_PASSWORD_CHARACTERS)
    .required()
    .messages({ "string.empty": "people.writeYourPassword" }),
});
const COLLEAGUE = Joi.string().max(MAX_NAME_CHARACTERS).required();

/** Who wants in: with a password, or (`password` null) as one of the demo's colleagues. */
export function readSignIn(form: FormData): Result<{ name: string; password: string | null }, SignInProblems> {
  const colleague = COLLEAGUE.validate(form.get("colleague") ?? undefined);
  if (colleague.error === undefined) return ok({ name: colleague.value, password: null });
  const { value, error } = BY_PASSWORD.validate(Object.fromEntries(form), { abortEarly: false, stripUnknown: true });
  if (error === undefined) return ok(value);
  return err(problemsByField(error));
}
