import Joi from "joi";
import { WHOM, type Whom } from "../../../core/deciding/decision";
import { readMailboxes } from "../../../core/kernel/email-address";
import {
  type CategoryId,
  type DraftId,
  type MessageId,
  type RecordId,
  type TemplateId,
  trustedId,
} from "../../../core/kernel/ids";
import { readInstant } from "../../../core/kernel/instant";
import { err, ok, type Result } from "../../../core/kernel/result";
import { endOfCalendarDay } from "../../../core/time/calendar-day";
import type { DraftAttachment } from "../../../core/writing/draft-attachment";
import type { AfterAnswer, Answer } from "../../../operations/index.server";
import { ID_LIST, ID_OR_NONE, SEEN_VERSION } from "../base/fields.server";
import { problemInWords, speak } from "../base/say.server";
import { FILED_FIELDS, readFields } from "../records/filed-fields.server";
import { ENCLOSURES } from "./draft-attachments-form.server";

const MAX_RECIPIENTS = 100;
const MAX_WORD_CHARACTERS = 5_000;
// RFC 5322 2.1.1: a line has at most 998 characters.
const MAX_SUBJECT_CHARACTERS = 900;
export const MAX_HTML_CHARACTERS = 1_000_000;

/** What is wrong, by field. */
export type AnswerProblems = Partial<Record<"to" | "cc" | "bcc" | "subject" | "html" | "day" | "enclosures", string>>;

type Posted = {
  to: string;
  cc: string;
  bcc: string;
  subject: string;
  html: string;
  after: AfterAnswer["kind"];
  day: string;
  report: string;
  version: number;
  anyway: string;
  draft: string;
  ownDraft: string;
  draftVersion: number;
  passesOn: string;
  informs: string;
  wordsOnly: string;
  whom: Whom;
  promises: string;
  expires: string;
  record: string;
  fields: string;
  enclosures: readonly DraftAttachment[];
  template: string;
  categories: readonly string[];
};

const SCHEMA = Joi.object<Posted>({
  to: Joi.string().trim().allow("").default(""),
  cc: Joi.string().trim().allow("").default(""),
  bcc: Joi.string().trim().allow("").default(""),
  subject: Joi.string()
    .trim()
    .max(MAX_SUBJECT_CHARACTERS)
    .pattern(/[\r\n]/, { invert: true })
    .required()
    .messages({
      "string.empty": "writing.giveItASubject",
      "string.max": "writing.aSubjectHasAtMost",
      "string.pattern.invert.base": "writing.aSubjectIsOneLine",
    }),
  html: Joi.string().max(MAX_HTML_CHARACTERS).custom(notBlank).required().messages({
    "string.empty": "writing.writeSomethingFirst",
    "any.invalid": "writing.writeSomethingFirst",
    "string.max": "writing.thatIsTooLongTo",
  }),
  after: Joi.string().valid("expect", "keep", "settle").required(),
  day: Joi.string().allow("").default(""),
  report: Joi.string().valid("on", "").default(""),
  version: SEEN_VERSION.default(0),
  anyway: Joi.string().valid("on", "").default(""),
  draft: ID_OR_NONE,
  ownDraft: ID_OR_NONE,
  draftVersion: SEEN_VERSION.default(0),
  passesOn: ID_OR_NONE,
  informs: Joi.string().trim().max(MAX_WORD_CHARACTERS).allow("").default(""),
  wordsOnly: Joi.string().valid("on", "").default(""),
  whom: Joi.string()
    .valid(...WHOM)
    .default("any"),
  expires: Joi.string().allow("").default(""),
  promises: Joi.string().allow("").max(MAX_WORD_CHARACTERS).default(""),
  record: ID_OR_NONE,
  fields: FILED_FIELDS,
  enclosures: ENCLOSURES,
  template: ID_OR_NONE,
  categories: ID_LIST.default([]),
});

const PROMISES = Joi.array<readonly { readonly text: string; readonly at: string }[]>()
  .items(
    Joi.object({
      text: Joi.string().trim().min(1).max(500).required(),
      at: Joi.string().isoDate().allow("").required(),
    }),
  )
  .max(5);

// What is no list of promises promises nothing: the message goes all the same.
function promised(text: string): NonNullable<Answer["promises"]> {
  try {
    const { value, error } = PROMISES.validate(JSON.parse(text || "[]"), { stripUnknown: true });
    if (error !== undefined) return [];
    return value.map(({ text: words, at }: { text: string; at: string }) => ({ text: words, dueAt: readInstant(at) }));
  } catch {
    return [];
  }
}

/** Refuses HTML without a letter in it. */
export function notBlank(html: string, helpers: Joi.CustomHelpers) {
  const text = html.replace(/<[^>]*>/g, "").replace(/&nbsp;|\s/g, "");
  return text === "" ? helpers.error("any.invalid") : html;
}

// A day means its end; a moment of it, itself.
const deadlineOf = (day: string, zone: string) => endOfCalendarDay(day, zone) ?? readInstant(day);

/** The posted answer, or what is wrong with each of its fields. */
export function readAnswer(form: FormData, zone: string): Result<Answer, AnswerProblems> {
  const { value, error } = SCHEMA.validate(Object.fromEntries(form), { abortEarly: false, stripUnknown: true });
  const problems: AnswerProblems = Object.fromEntries(
    (error?.details ?? []).map((detail) => [String(detail.path[0]), problemInWords(detail)]),
  );
  const posted: Partial<Posted> = value ?? {};
  const everybody = everybodyIn(posted, problems);
  const until = deadlineOf(posted.day ?? "", zone);
  if (posted.after === "expect" && posted.day && until === null) problems.day = speak("writing.thatIsNoDayOf");
  if (Object.keys(problems).length > 0) return err(problems);
  const after: AfterAnswer =
    posted.after === "expect"
      ? { kind: "expect", until, whom: posted.whom ?? "any" }
      : { kind: posted.after ?? "keep" };
  return ok({
    ...everybody,
    subject: posted.subject ?? "",
    html: posted.html ?? "",
    after,
    asksReport: posted.report === "on",
    expiresAt: posted.expires ? endOfCalendarDay(posted.expires, zone) : null,
    promises: promised(posted.promises ?? ""),
    ...together(posted),
  });
}

/** What an answer says of others: what its writer knew of the conversation, the draft that it was, what it passes on, what goes with it, with what it began. */
function together(posted: Partial<Posted>) {
  return {
    enclosures: (posted.enclosures ?? []).map(({ id }) => id),
    categoryIds: (posted.categories ?? []).map((id) => trustedId<CategoryId>(id)),
    template: posted.template ? trustedId<TemplateId>(posted.template) : null,
    seenVersion: posted.version ? posted.version : null,
    anyway: posted.anyway === "on",
    passesOn: posted.passesOn ? trustedId<MessageId>(posted.passesOn) : null,
    informs: posted.informs ? posted.informs : null,
    wordsOnly: posted.wordsOnly === "on",
    files: posted.record
      ? {
          recordId: trustedId<RecordId>(posted.record),
          ...(posted.fields ? { fields: readFields(posted.fields) } : {}),
        }
      : null,
    ownDraft: posted.ownDraft ? trustedId<DraftId>(posted.ownDraft) : null,
    draft: posted.draft ? { id: trustedId<DraftId>(posted.draft), version: posted.draftVersion ?? 0 } : null,
  };
}

function everybodyIn(posted: Partial<Posted>, problems: AnswerProblems) {
  const to = recipients(posted.to ?? "", "to", problems);
  const cc = recipients(posted.cc ?? "", "cc", problems);
  const bcc = recipients(posted.bcc ?? "", "bcc", problems);
  if (to.length + cc.length + bcc.length === 0) problems.to ??= speak("writing.somebodyHasToGetIt");
  return { to, cc, bcc };
}

function recipients(text: string, field: "to" | "cc" | "bcc", problems: AnswerProblems) {
  const { mailboxes, malformed } = readMailboxes(text);
  if (malformed.length > 0) {
    problems[field] = speak("writing.notAnAddressWriteName", { malformed: malformed.join(", ") });
  } else if (mailboxes.length > MAX_RECIPIENTS) {
    problems[field] = speak("writing.atMostPeopleAtA", { most: MAX_RECIPIENTS, count: mailboxes.length });
  }
  return mailboxes;
}
