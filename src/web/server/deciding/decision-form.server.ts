import Joi from "joi";
import { type ChosenKind, type Decision, type RowSelection, WHOM, withOwnId } from "../../../core/deciding/decision";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { err, ok, type Result } from "../../../core/kernel/result";
import { URGENCIES } from "../../../core/kernel/urgency";
import { FILING_MEANS } from "../../../core/records/filing-means";
import type { Target } from "../../../operations/index.server";
import { ID, SEEN_VERSION } from "../base/fields.server";
import { readJson } from "../base/read-json.server";
import { problemOf, speak } from "../base/say.server";
import { FIELD_VALUES } from "../records/filed-fields.server";

// As many as can have been chosen one by one or by ranges; everything of a list is named by the list.
const MAX_CONVERSATIONS = 20_000;
const MAX_NOTE_CHARACTERS = 10_000;
const MAX_FOLLOW_UP_CHARACTERS = 500;
const MAX_TOGETHER = 10;
// More than a message has attachments.
const MAX_ATTACHMENT = 9_999;
// The last moment that there is (ECMA-262 21.4.1.1).
const MAX_INSTANT = 8.64e15;

/** The text of a note. */
export const NOTE_TEXT = Joi.string().trim().max(MAX_NOTE_CHARACTERS).required().messages({
  "string.empty": "deciding.writeSomethingFirst",
  "any.required": "deciding.writeSomethingFirst",
  "string.max": "deciding.aNoteHasAtMost",
});

const instant = Joi.number().integer().min(0).max(MAX_INSTANT).allow(null).required().messages({
  "number.base": "deciding.thatIsNoDateChoose",
  "any.invalid": "deciding.thatIsNoDecisionChoose",
});
const note = NOTE_TEXT.allow("").optional();
const flag = Joi.boolean();
const id = ID.required();
// A message alone, or one of its attachments.
const part = Joi.object({
  messageId: id,
  attachment: Joi.number().integer().min(0).max(MAX_ATTACHMENT).allow(null).required(),
});

/** Every field of a kind: one that is left out here is an error of types. */
type SchemaOf<Kind extends ChosenKind> = {
  readonly [Field in Exclude<keyof RowSelection<Kind>, "kind">]-?: Joi.Schema;
};

const SCHEMAS: { readonly [Kind in ChosenKind]: SchemaOf<Kind> } = {
  assign: { ownerId: id.allow(null), note, evenIfAway: flag },
  "assign-in-turn": { groupId: id, note },
  follow: { memberId: id, follows: flag.required() },
  categorise: { categoryId: id, give: flag.required() },
  file: {
    recordId: id,
    settle: flag.required(),
    means: Joi.valid(...FILING_MEANS).default("picker"),
    fields: FIELD_VALUES,
    part,
    // Only what is taken in with a record was filed elsewhere before.
    earlier: Joi.forbidden(),
  },
  particulars: { recordId: id, fields: FIELD_VALUES },
  unfile: { recordId: id, part },
  keep: {},
  settle: {},
  bin: {},
  restore: {},
  junk: {},
  rest: {
    // Whoever rests it without an end waits for somebody to write; whatever else would be for ever.
    until: instant.when("evenIfAnswered", { is: Joi.valid(false), otherwise: Joi.invalid(null) }),
    evenIfAnswered: flag,
  },
  expect: { until: instant, whom: Joi.valid(...WHOM), colleagueId: ID, besides: flag },
  extend: { expectationId: id, until: instant },
  withdraw: { expectationId: id },
  "stop-expecting": {},
  acknowledge: { messageId: id.allow(null) },
  expire: { at: instant },
  "no-answer": {},
  "let-in": {},
  urgency: { urgency: Joi.valid(...URGENCIES).required() },
  "follow-up": {
    forMember: id,
    dueAt: instant,
    text: Joi.string().trim().max(MAX_FOLLOW_UP_CHARACTERS).allow("").required(),
  },
  "follow-up-done": { followUpId: id },
  "follow-up-clear": { followUpId: id },
  note: { text: NOTE_TEXT },
};

const COMMON: Joi.PartialSchemaMap = {
  said: Joi.string().max(500).allow("").default(""),
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
  /** What the member was told that they decided. */
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
  if (error !== undefined) return err(problemOf(error));
  const read = decisionsIn(String(form.get("decisions") ?? ""));
  if (!read.ok) return read;
  const decisions = read.value.map((one) => withOwnId(one, newId));
  const ids = postedConversations(form);
  const list = value.scope === undefined ? null : { scope: value.scope, query: value.query, lane: value.lane ?? null };
  if (list === null && ids.length === 0) return err(speak("deciding.nothingIsSelectedSelectWhat"));
  if (list !== null && decisions.length > 1) return err(speak("deciding.severalDecisionsAtOnceAre"));
  return ok({ target: { ids, seenVersion: value.version ?? null }, decisions, list, said: value.said });
}

const TOGETHER = Joi.array<{ readonly kind: string }[]>()
  .items(Joi.object({ kind: Joi.string().required() }).unknown())
  .min(1)
  .max(MAX_TOGETHER)
  .required();

function decisionsIn(text: string): Result<readonly RowSelection[], string> {
  const { value, error } = TOGETHER.validate(readJson(text));
  if (error !== undefined) return err(speak("deciding.thatIsNothingOneCan"));
  const decisions: RowSelection[] = [];
  for (const posted of value) {
    const one = chosenIn(posted);
    if (!one.ok) return one;
    decisions.push(one.value);
  }
  return ok(decisions);
}

function chosenIn(posted: { readonly kind: string }): Result<RowSelection, string> {
  if (!Object.hasOwn(SCHEMAS, posted.kind)) return err(speak("deciding.thatIsNothingOneCan"));
  const fields: Joi.PartialSchemaMap = SCHEMAS[posted.kind as ChosenKind];
  const schema = Joi.object<RowSelection>({ ...fields, kind: Joi.string() });
  // What it is called is for the screen that posted it.
  const { value, error } = schema.validate(posted, { stripUnknown: true, convert: true });
  return error === undefined ? ok(value) : err(problemOf(error));
}
