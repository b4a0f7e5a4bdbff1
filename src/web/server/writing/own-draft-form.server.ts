import Joi from "joi";
import { WHOM } from "../../../core/deciding/decision";
import { type ConversationId, trustedId } from "../../../core/kernel/ids";
import { err, ok, type Result } from "../../../core/kernel/result";
import type { Draft } from "../../../core/writing/draft";
import { ID, ID_OR_NONE, SEEN_VERSION } from "../base/fields.server";
import { readJson } from "../base/read-json.server";
import { problemOf } from "../base/say.server";
import { MAX_HTML_CHARACTERS } from "./answer-form.server";
import { FILES_OF_DRAFT } from "./draft-attachments-form.server";

/** A step of a draft of one's own. What is in it is checked when it is sent; until then it may be half done. */
export type OwnDraftStep =
  | {
      readonly do: "keep";
      readonly version: number;
      readonly conversationId: ConversationId | null;
      readonly content: Draft;
    }
  | { readonly do: "throw-away" | "bring-back" };

const line = Joi.string().max(20_000).allow("");
const promise = Joi.object({ text: Joi.string().max(1_000).required(), at: Joi.string().max(40).allow("").required() });

const DRAFT = Joi.object<Draft>({
  to: line.required(),
  cc: line.required(),
  bcc: line,
  subject: line.required(),
  html: Joi.string().max(MAX_HTML_CHARACTERS).allow("").required(),
  after: Joi.string().valid("expect", "settle", "keep").required(),
  day: Joi.string().max(40).allow("").required(),
  expires: Joi.string().max(40).allow(""),
  whom: Joi.string().valid(...WHOM),
  promises: Joi.array().items(promise).max(100),
  report: Joi.string().valid("on", ""),
  informs: Joi.string().max(5_000).allow(""),
  wordsOnly: Joi.string().valid("on", ""),
  enclosures: FILES_OF_DRAFT,
  files: Joi.object({ id: ID.required(), code: Joi.string().max(100).required() }),
  template: ID,
  categories: Joi.array().items(ID).max(100),
  passesOn: ID,
});

const STEP = Joi.object<{ do: OwnDraftStep["do"]; version: number; conversation: string; draft: string }>({
  do: Joi.string().valid("keep", "throw-away", "bring-back").required(),
  version: SEEN_VERSION.default(0),
  conversation: ID_OR_NONE,
  draft: Joi.string()
    .max(2 * MAX_HTML_CHARACTERS)
    .default("null"),
});

/** The posted step of a draft of one's own, or what is wrong with it. */
export function readOwnDraftStep(form: FormData): Result<OwnDraftStep, string> {
  const step = STEP.validate(Object.fromEntries(form), { stripUnknown: true });
  if (step.error !== undefined) return err(problemOf(step.error));
  const { do: what, version, conversation } = step.value;
  if (what !== "keep") return ok({ do: what });
  const draft = readDraft(step.value.draft);
  if (!draft.ok) return draft;
  const conversationId = conversation === "" ? null : trustedId<ConversationId>(conversation);
  return ok({ do: "keep", version, conversationId, content: draft.value });
}

/** A draft as it was posted, as JSON, or what is wrong with it. */
export function readDraft(json: string): Result<Draft, string> {
  const { value, error } = DRAFT.required().validate(readJson(json), { stripUnknown: true });
  return error === undefined ? ok(value) : err(problemOf(error));
}
