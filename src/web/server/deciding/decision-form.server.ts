import Joi from "joi";
import { type Decision, WHOM, type Whom } from "../../../core/docket/plan-decision";
import {
  type CategoryId,
  type ConversationId,
  type ExpectationId,
  type FollowUpId,
  type GroupId,
  type MemberId,
  type MessageId,
  type RecordId,
  readId,
  trustedId,
} from "../../../core/kernel/ids";
import { readInstant } from "../../../core/kernel/instant";
import { err, ok, type Result } from "../../../core/kernel/result";
import { isUrgency, URGENCIES } from "../../../core/kernel/urgency";
import { FILING_MEANS, type FilingMeans, type MessagePart } from "../../../core/records/filing-means";
import type { Target } from "../../../operations/index.server";
import { ID, SEEN_VERSION } from "../base/fields.server";
import { readJson } from "../base/read-json.server";
import { FILED_FIELDS, readFields } from "../records/filed-fields.server";

// As many as can have been chosen one by one or by ranges; everything of a list is named by the list.
const MAX_CONVERSATIONS = 20_000;
const MAX_NOTE_CHARACTERS = 10_000;
const MAX_FOLLOW_UP_CHARACTERS = 500;

/** The text of a note. */
export const NOTE_TEXT = Joi.string().trim().max(MAX_NOTE_CHARACTERS).required().messages({
  "string.empty": "Write something first.",
  "any.required": "Write something first.",
  "string.max": "A note has at most {#limit} characters.",
});

type Form = {
  readonly fields: Joi.PartialSchemaMap;
  /** The decision that checked fields make; null where together they make none. */
  readonly decision: (posted: Record<string, string>, newId: () => string) => Decision | null;
};

const instant = Joi.string()
  .isoDate()
  .allow("")
  .default("")
  .messages({ "string.isoDate": "That is no date; choose one that is offered, or type another." });
const note = Joi.string()
  .trim()
  .max(MAX_NOTE_CHARACTERS)
  .allow("")
  .default("")
  .messages({ "string.max": "A note has at most {#limit} characters." });
const flag = Joi.string().valid("true", "false");

// A message alone, or one of its attachments.
const PART = { message: ID.allow("").default(""), attachment: Joi.string().pattern(/^\d{1,4}$/) };

function partOf({ message = "", attachment }: Record<string, string>): { readonly part?: MessagePart } {
  if (message === "") return {};
  const index = attachment === undefined ? null : Number(attachment);
  return { part: { messageId: trustedId<MessageId>(message), attachment: index } };
}

/** What is decided by a form; a note is written anew in its own place. */
type Decided = Exclude<Decision["kind"], "edit-note">;

const FORMS: { readonly [Kind in Decided]: Form } = {
  assign: {
    fields: { owner: ID.allow("").required(), note, evenIfAway: flag.default("false") },
    decision: ({ owner, note: word = "", evenIfAway }) => ({
      kind: "assign",
      ownerId: owner ? trustedId<MemberId>(owner) : null,
      ...(word === "" ? {} : { note: word }),
      ...(evenIfAway === "true" ? { evenIfAway: true } : {}),
    }),
  },
  "assign-in-turn": {
    fields: { group: ID.required(), note },
    decision: ({ group = "", note: word = "" }) => ({
      kind: "assign-in-turn",
      groupId: trustedId<GroupId>(group),
      ...(word === "" ? {} : { note: word }),
    }),
  },
  follow: {
    fields: { member: ID.required(), follows: flag.default("true") },
    decision: ({ member = "", follows }) => ({
      kind: "follow",
      memberId: trustedId<MemberId>(member),
      follows: follows === "true",
    }),
  },
  categorise: {
    fields: { category: ID.required(), give: flag.default("true") },
    decision: ({ category = "", give }) => ({
      kind: "categorise",
      categoryId: trustedId<CategoryId>(category),
      give: give === "true",
    }),
  },
  file: {
    fields: {
      record: ID.required(),
      settle: flag.default("false"),
      means: Joi.string()
        .valid(...FILING_MEANS)
        .default("picker"),
      fields: FILED_FIELDS,
      ...PART,
    },
    decision: ({ record = "", settle, means, fields = "", ...part }) => ({
      kind: "file",
      recordId: trustedId<RecordId>(record),
      settle: settle === "true",
      means: means as FilingMeans,
      ...(fields === "" ? {} : { fields: readFields(fields) }),
      ...partOf(part),
    }),
  },
  particulars: {
    fields: { record: ID.required(), fields: FILED_FIELDS },
    decision: ({ record = "", fields = "" }) => ({
      kind: "particulars",
      recordId: trustedId<RecordId>(record),
      fields: readFields(fields),
    }),
  },
  unfile: {
    fields: { record: ID.required(), ...PART },
    decision: ({ record = "", ...part }) => ({
      kind: "unfile",
      recordId: trustedId<RecordId>(record),
      ...partOf(part),
    }),
  },
  keep: { fields: {}, decision: () => ({ kind: "keep" }) },
  settle: { fields: {}, decision: () => ({ kind: "settle" }) },
  bin: { fields: {}, decision: () => ({ kind: "bin" }) },
  restore: { fields: {}, decision: () => ({ kind: "restore" }) },
  junk: { fields: {}, decision: () => ({ kind: "junk" }) },
  rest: {
    fields: { at: instant, mode: Joi.string().valid("either", "time").default("either") },
    decision: ({ at = "", mode }) => {
      const until = readInstant(at);
      // Whoever rests it without an end waits for somebody to write; whatever else would be for ever.
      if (until === null && mode === "time") return null;
      return { kind: "rest", until, ...(mode === "time" ? { evenIfAnswered: true } : {}) };
    },
  },
  expect: {
    fields: {
      at: instant,
      whom: Joi.string()
        .valid(...WHOM)
        .default("any"),
      colleague: ID.allow("").default(""),
      besides: flag.default("false"),
    },
    decision: ({ at = "", whom, colleague = "", besides }, newId) => ({
      kind: "expect",
      until: readInstant(at),
      expectationId: trustedId<ExpectationId>(newId()),
      ...(whom === "any" ? {} : { whom: whom as Whom }),
      ...(colleague === "" ? {} : { colleagueId: trustedId<MemberId>(colleague) }),
      ...(besides === "true" ? { besides: true } : {}),
    }),
  },
  extend: {
    fields: { expectation: ID.required(), at: instant },
    decision: ({ expectation = "", at = "" }) => ({
      kind: "extend",
      expectationId: trustedId<ExpectationId>(expectation),
      until: readInstant(at),
    }),
  },
  withdraw: {
    fields: { expectation: ID.required() },
    decision: ({ expectation = "" }) => ({ kind: "withdraw", expectationId: trustedId<ExpectationId>(expectation) }),
  },
  acknowledge: {
    fields: { message: ID.allow("").default("") },
    decision: ({ message = "" }) => ({
      kind: "acknowledge",
      messageId: message === "" ? null : trustedId<MessageId>(message),
    }),
  },
  expire: { fields: { at: instant }, decision: ({ at = "" }) => ({ kind: "expire", at: readInstant(at) }) },
  "no-answer": { fields: {}, decision: () => ({ kind: "no-answer" }) },
  urgency: {
    fields: {
      urgency: Joi.string()
        .valid(...URGENCIES)
        .required(),
    },
    decision: ({ urgency = "" }) => (isUrgency(urgency) ? { kind: "urgency", urgency } : null),
  },
  "follow-up": {
    fields: {
      at: instant,
      member: ID.required(),
      text: Joi.string().trim().max(MAX_FOLLOW_UP_CHARACTERS).allow("").default(""),
    },
    decision: ({ at = "", member = "", text = "" }, newId) => ({
      kind: "follow-up",
      followUpId: trustedId<FollowUpId>(newId()),
      forMember: trustedId<MemberId>(member),
      dueAt: readInstant(at),
      text,
    }),
  },
  "follow-up-done": {
    fields: { followUp: ID.required() },
    decision: ({ followUp = "" }) => ({ kind: "follow-up-done", followUpId: trustedId<FollowUpId>(followUp) }),
  },
  "follow-up-clear": {
    fields: { followUp: ID.required() },
    decision: ({ followUp = "" }) => ({ kind: "follow-up-clear", followUpId: trustedId<FollowUpId>(followUp) }),
  },
  "stop-expecting": { fields: {}, decision: () => ({ kind: "stop-expecting" }) },
  note: {
    fields: { text: NOTE_TEXT },
    decision: ({ text = "" }) => ({ kind: "note", text }),
  },
};

const COMMON: Joi.PartialSchemaMap = {
  kind: Joi.string(),
  said: Joi.string().max(500).default(""),
  conversation: Joi.array().items(ID).max(MAX_CONVERSATIONS).required(),
  version: SEEN_VERSION.min(1),
  scope: Joi.string(),
  query: Joi.string().allow("").max(10_000).default(""),
  lane: Joi.string().max(500),
};

/** Everything of a list, or of one of its groups. */
type PostedList = { readonly scope: string; readonly query: string; readonly lane: string | null };

export type PostedDecision = {
  /** One, or some that are accepted together. */
  readonly decisions: readonly Decision[];
  readonly target: Target;
  /** Null when it is about the conversations of the target. */
  readonly list: PostedList | null;
  /** What the member was told that she decided. */
  readonly said: string;
};

/** The conversations that a form names; those that are no ids are left out. */
export function postedConversations(form: FormData): ConversationId[] {
  return form.getAll("conversation").flatMap((text) => {
    const read = readId<ConversationId>(String(text));
    return read.ok ? [read.value] : [];
  });
}

/** What was posted, as a decision about conversations; a refusal is a sentence for the person who posted it. */
export function readDecision(form: FormData, newId: () => string): Result<PostedDecision, string> {
  const posted = { ...Object.fromEntries(form), conversation: form.getAll("conversation") };
  const { value, error } = Joi.object(COMMON).validate(posted, { stripUnknown: true });
  if (error !== undefined) return err(error.message);
  const read = String(form.get("kind")) === "accept" ? acceptedIn(form, newId) : decisionIn(posted, newId);
  if (!read.ok) return read;
  const ids = postedConversations(form);
  const list = value.scope === undefined ? null : { scope: value.scope, query: value.query, lane: value.lane ?? null };
  if (list === null && ids.length === 0) return err("Nothing is selected. Select what it is about.");
  if (list !== null && read.value.length > 1) return err("Several decisions at once are about one conversation.");
  return ok({ target: { ids, seenVersion: value.version ?? null }, decisions: read.value, list, said: value.said });
}

function decisionIn(
  posted: Readonly<Record<string, unknown>>,
  newId: () => string,
): Result<readonly Decision[], string> {
  const kind = String(posted.kind);
  if (!isDecisionKind(kind)) return err("That is nothing one can decide.");
  const { fields, decision: make } = FORMS[kind];
  const { value, error } = Joi.object(fields).validate(posted, { stripUnknown: true });
  if (error !== undefined) return err(error.message);
  const decision = make(value, newId);
  return decision === null ? err("That is no decision: choose a date, or until somebody writes.") : ok([decision]);
}

const ACCEPTED = Joi.array<Readonly<Record<string, string>>[]>()
  .items(Joi.object().pattern(Joi.string(), Joi.string().allow("")))
  .min(1)
  .max(10)
  .required();

// What is proposed and accepted at once: each as it would be posted alone.
function acceptedIn(form: FormData, newId: () => string): Result<readonly Decision[], string> {
  const { value, error } = ACCEPTED.validate(readJson(String(form.get("decisions") ?? "")));
  if (error !== undefined) return err("That is nothing one can decide.");
  const decisions: Decision[] = [];
  for (const posted of value) {
    const one = decisionIn(posted, newId);
    if (!one.ok) return one;
    decisions.push(...one.value);
  }
  return ok(decisions);
}

function isDecisionKind(text: string): text is Decided {
  return Object.hasOwn(FORMS, text);
}
