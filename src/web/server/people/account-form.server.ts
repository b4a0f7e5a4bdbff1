import Joi from "joi";
import { PASSWORD_LENGTHS } from "../../../core/access/password";
import { err, ok, type Result } from "../../../core/kernel/result";
import { ID } from "../base/fields.server";
import { problemsByField, speak } from "../base/say.server";

/** Something that is done about one's own account. */
export type AccountStep =
  | { readonly do: "password"; readonly old: string; readonly next: string }
  | { readonly do: "mail-address"; readonly address: string }
  | { readonly do: "end"; readonly session: string }
  | { readonly do: "end-others" };

export type AccountProblems = Readonly<Record<string, string>>;

const PASSWORD = Joi.object({
  old: Joi.string().max(PASSWORD_LENGTHS.most).required().messages({ "*": "people.writeThePasswordThatYou" }),
  new: Joi.string().required().messages({ "*": "people.chooseANewPassword" }),
});

/** The posted step, or what is wrong with its fields. */
export function readAccountStep(form: FormData): Result<AccountStep, AccountProblems> {
  switch (form.get("do")) {
    case "password": {
      const given = { old: form.get("old") ?? undefined, new: form.get("new") ?? undefined };
      const { value, error } = PASSWORD.validate(given, { abortEarly: false });
      if (error === undefined) return ok({ do: "password", old: value.old, next: value.new });
      return err(problemsByField(error));
    }
    case "mail-address":
      return ok({ do: "mail-address", address: String(form.get("address") ?? "").slice(0, 500) });
    case "end": {
      const id = ID.required().validate(form.get("session") ?? undefined);
      return id.error === undefined
        ? ok({ do: "end", session: id.value })
        : err({ do: speak("people.thatSessionHasEnded") });
    }
    case "end-others":
      return ok({ do: "end-others" });
    default:
      return err({ do: speak("people.thatIsNothingThatCan") });
  }
}
