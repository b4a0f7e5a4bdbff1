import Joi from "joi";
import { passwordProblem } from "../../../core/access/password";
import { err, ok, type Result } from "../../../core/kernel/result";
import { commonPasswords, type Newcomer } from "../../../operations/index.server";
import { problemsByField, speak } from "../base/say.server";

/** What is wrong, by field. */
export type InviteProblems = Partial<Record<"name" | "signInName" | "initials" | "password", string>>;

const FORM = Joi.object<Newcomer>({
  name: Joi.string().trim().max(80).required().messages({
    "string.empty": "people.writeYourNameAsColleagues",
    "any.required": "people.writeYourNameAsColleagues",
    "string.max": "people.aNameHasAtMost",
  }),
  initials: Joi.string()
    .trim()
    .uppercase()
    .pattern(/^\p{L}{2,3}$/u)
    .required()
    .messages({ "*": "people.twoOrThreeLetters" }),
  signInName: Joi.string()
    .trim()
    .lowercase()
    .pattern(/^[a-z0-9][a-z0-9._-]{1,39}$/)
    .required()
    .messages({ "*": "people.twoToFortyLettersDigits" }),
  password: Joi.string().required().messages({ "*": "people.chooseAPassword" }),
  timeZone: Joi.string()
    .max(60)
    .custom((zone: string) => {
      // Throws a RangeError for a zone that there is not.
      new Intl.DateTimeFormat("en", { timeZone: zone });
      return zone;
    })
    .default("UTC"),
});

/** Who wants to come in, or what is wrong with what she wrote. */
export async function readNewcomer(form: FormData): Promise<Result<Newcomer, InviteProblems>> {
  const { value, error } = FORM.validate(Object.fromEntries(form), { abortEarly: false, stripUnknown: true });
  const names = error === undefined ? [value.name, value.signInName] : [];
  const problem = error === undefined ? passwordProblem(value.password, names, await commonPasswords()) : null;
  if (problem !== null) return err({ password: speak(problem) });
  if (error === undefined) return ok(value);
  return err(problemsByField(error));
}
