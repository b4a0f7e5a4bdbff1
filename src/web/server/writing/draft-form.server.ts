import Joi from "joi";
import { type DraftId, type MemberId, trustedId } from "../../../core/kernel/ids";
import { err, ok, type Result } from "../../../core/kernel/result";
import type { Draft } from "../../../core/writing/draft";
import type { SeenDraft } from "../../../operations/index.server";
import { ID, ID_LIST, ID_OR_NONE, SEEN_VERSION } from "../base/fields.server";
import { problemsByField, speak } from "../base/say.server";
import { MAX_HTML_CHARACTERS, notBlank } from "./answer-form.server";
import { ENCLOSURES } from "./draft-attachments-form.server";

/** What is wrong, by field. */
export type DraftProblems = Partial<Record<"member" | "note" | "html" | "enclosures", string>>;

/** A step of a shared draft. Its fields are checked when it is sent; until then somebody may leave them half done. */
export type DraftStep =
  | {
      readonly do: "hand";
      readonly to: MemberId;
      readonly note: string;
      readonly content: Draft;
      readonly seen: SeenDraft | null;
      readonly ownDraft: DraftId | null;
    }
  | { readonly do: "return"; readonly seen: SeenDraft; readonly note: string }
  | { readonly do: "give-up"; readonly seen: SeenDraft };

const MAX_NOTE_CHARACTERS = 2_000;
const MAX_LINE_CHARACTERS = 20_000;

const note = Joi.string().trim().max(MAX_NOTE_CHARACTERS).messages({ "string.max": "writing.aNoteHasAtMost" });
const line = Joi.string().max(MAX_LINE_CHARACTERS).allow("").default("");
const seen = { draft: ID.required(), version: SEEN_VERSION.min(1).required() };
const content = {
  to: line,
  cc: line,
  bcc: line,
  subject: line,
  html: Joi.string()
    .max(MAX_HTML_CHARACTERS)
    .custom(notBlank)
    .required()
    .messages({ "string.empty": "writing.writeSomethingFirst", "any.invalid": "writing.writeSomethingFirst" }),
  after: Joi.string().valid("expect", "keep", "settle").default("expect"),
  day: Joi.string().allow("").default(""),
  enclosures: ENCLOSURES,
  template: ID_OR_NONE,
  categories: ID_LIST.default([]),
};

const FORMS = {
  hand: Joi.object({
    member: ID.required().messages({
      "string.empty": "writing.chooseWhoIsToCheck",
      "any.required": "writing.chooseWhoIsToCheck",
    }),
    note: note.allow("").default(""),
    ...content,
    draft: ID_OR_NONE,
    version: SEEN_VERSION.default(0),
    ownDraft: ID_OR_NONE,
  }),
  return: Joi.object({
    ...seen,
    note: note
      .required()
      .messages({ "string.empty": "writing.sayWhatIsToBe", "any.required": "writing.sayWhatIsToBe" }),
  }),
  "give-up": Joi.object(seen),
} as const;

/** The posted step of a draft, or what is wrong with its fields. */
export function readDraftStep(form: FormData): Result<DraftStep, DraftProblems> {
  const kind = String(form.get("do"));
  const schema = kind === "hand" || kind === "return" || kind === "give-up" ? FORMS[kind] : null;
  if (schema === null) return err({ note: speak("writing.thatIsNothingThatCan") });
  const { value, error } = schema.validate(Object.fromEntries(form), { abortEarly: false, stripUnknown: true });
  if (error !== undefined) {
    return err(problemsByField(error));
  }
  const ofDraft = (): SeenDraft => ({ id: trustedId<DraftId>(value.draft), version: value.version });
  if (kind === "give-up") return ok({ do: "give-up", seen: ofDraft() });
  if (kind === "return") return ok({ do: "return", seen: ofDraft(), note: value.note });
  const { to, cc, bcc, subject, html, after, day, enclosures, template, categories } = value;
  // What is left out is not there at all, as in a draft that nobody handed over.
  const more = {
    ...(bcc === "" ? {} : { bcc }),
    ...(template === "" ? {} : { template }),
    ...(categories.length === 0 ? {} : { categories }),
  };
  return ok({
    do: "hand",
    to: trustedId<MemberId>(value.member),
    note: value.note,
    content: { to, cc, subject, html, after, day, enclosures, ...more },
    seen: value.draft === "" ? null : ofDraft(),
    ownDraft: value.ownDraft === "" ? null : trustedId<DraftId>(value.ownDraft),
  });
}
