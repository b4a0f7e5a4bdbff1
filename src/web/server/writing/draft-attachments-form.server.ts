import Joi from "joi";
import type { DraftAttachment } from "../../../core/writing/draft-attachment";
import type { DocumentToAttach } from "../../../operations/index.server";
import { ID } from "../base/fields.server";
import { readJson } from "../base/read-json.server";

/** The files of a draft, by their ids. */
export const FILES_OF_DRAFT = Joi.array<readonly DraftAttachment[]>()
  .items(
    Joi.object({
      id: ID.required(),
      name: Joi.string().max(300).required(),
      size: Joi.number().integer().min(0).required(),
    }),
  )
  .max(100);

/** The files of a draft, as a form carries them: JSON, empty for none. */
export const ENCLOSURES = Joi.string()
  .empty("")
  .max(50_000)
  .custom(listed)
  .default(() => [])
  .messages({
    "any.invalid": "writing.thatIsNoListOf",
  });

function listed(text: string, helpers: Joi.CustomHelpers) {
  const { value, error } = FILES_OF_DRAFT.validate(readJson(text), { stripUnknown: true });
  return error === undefined && value !== null ? value : helpers.error("any.invalid");
}

const DOCUMENT = Joi.object<DocumentToAttach>({
  code: Joi.string().max(100).required(),
  name: Joi.string().max(300).required(),
  sha256: Joi.string().hex().length(64).required(),
});

/** A document of a record that is to go with a message; null where the form names none. */
export function readDocumentToAttach(form: FormData): DocumentToAttach | null {
  const { value, error } = DOCUMENT.validate(Object.fromEntries(form), { stripUnknown: true });
  return error === undefined ? value : null;
}
