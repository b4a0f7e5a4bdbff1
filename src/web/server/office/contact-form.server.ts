import Joi from "joi";
import type { ContactDraft } from "../../../core/contacts/contact";
import { type CategoryId, type ContactId, trustedId } from "../../../core/kernel/ids";
import { err, ok, type Result } from "../../../core/kernel/result";
import { ID } from "../base/fields.server";
import { speak } from "../base/say.server";

/** Something that is done about the contacts of a tray. */
export type ContactStep =
  | { readonly do: "keep"; readonly id: ContactId | null; readonly draft: ContactDraft }
  | { readonly do: "drop"; readonly id: ContactId };

// Generous here: what is right for a field is said beside it by whoever knows.
const MAX_TYPED = 20_000;
const typed = Joi.string().allow("").max(MAX_TYPED).default("");

const KEEP = Joi.object({
  id: ID.allow("").default(""),
  name: typed,
  organisation: typed,
  phone: typed,
  note: typed,
  addresses: typed,
  categories: Joi.array().items(ID).max(50).default([]),
});
const DROP = Joi.object({ id: ID.required() });

/** The posted step; a refusal is a sentence. */
export function readContactStep(form: FormData): Result<ContactStep, string> {
  if (form.get("do") === "drop") {
    const { value, error } = DROP.validate(Object.fromEntries(form), { stripUnknown: true });
    return error === undefined
      ? ok({ do: "drop", id: trustedId<ContactId>(value.id) })
      : err(speak("office.thatIsNoContact"));
  }
  if (form.get("do") !== "keep") return err(speak("office.thatIsNothingThatCan"));
  const posted = { ...Object.fromEntries(form), categories: form.getAll("categories") };
  const { value, error } = KEEP.validate(posted, { stripUnknown: true });
  if (error !== undefined) return err(speak("office.thatIsTooMuchOr"));
  const { id: given, categories, ...texts } = value;
  const categoryIds = categories.map((one: string) => trustedId<CategoryId>(one));
  return ok({
    do: "keep",
    id: given === "" ? null : trustedId<ContactId>(given),
    draft: { ...texts, categoryIds },
  });
}
