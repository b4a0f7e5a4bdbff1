import Joi from "joi";
import type { Decision } from "../../core/docket/plan-decision";
import {
  type CategoryId,
  type ConversationId,
  type ExpectationId,
  type MemberId,
  type RecordId,
  trustedId,
} from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { dayAtHour, endOfCalendarDay } from "../../core/worktime/calendar-day";
import type { Target } from "../../operations/index.server";

// As many as a screen can have chosen; all that match is a job of its own.
const MAX_CONVERSATIONS = 500;
const MAX_NOTE_CHARACTERS = 10_000;
// A rest ends when the office opens.
const REST_ENDS_AT_HOUR = 8;

type Circumstances = { readonly zone: string; readonly newId: () => string };
type Form = {
  readonly fields: Joi.PartialSchemaMap;
  /** The decision that checked fields make; null for a day that the calendar does not have. */
  readonly decision: (posted: Record<string, string>, at: Circumstances) => Decision | null;
};

const id = Joi.string().guid({ version: ["uuidv7"] });
const day = Joi.string().messages({ "string.empty": "Choose a day." });
const flag = Joi.string().valid("true", "false");

const FORMS: { readonly [Kind in Decision["kind"]]: Form } = {
  assign: {
    fields: { owner: id.allow("").required() },
    decision: ({ owner }) => ({ kind: "assign", ownerId: owner ? trustedId<MemberId>(owner) : null }),
  },
  categorise: {
    fields: { category: id.required(), give: flag.default("true") },
    decision: ({ category = "", give }) => ({
      kind: "categorise",
      categoryId: trustedId<CategoryId>(category),
      give: give === "true",
    }),
  },
  file: {
    fields: { record: id.required(), settle: flag.default("false") },
    decision: ({ record = "", settle }) => ({
      kind: "file",
      recordId: trustedId<RecordId>(record),
      settle: settle === "true",
    }),
  },
  unfile: {
    fields: { record: id.required() },
    decision: ({ record = "" }) => ({ kind: "unfile", recordId: trustedId<RecordId>(record) }),
  },
  keep: { fields: {}, decision: () => ({ kind: "keep" }) },
  settle: { fields: {}, decision: () => ({ kind: "settle" }) },
  bin: { fields: {}, decision: () => ({ kind: "bin" }) },
  restore: { fields: {}, decision: () => ({ kind: "restore" }) },
  rest: {
    fields: { day: day.required() },
    decision: ({ day: until = "" }, { zone }) => {
      const at = dayAtHour(until, REST_ENDS_AT_HOUR, zone);
      return at === null ? null : { kind: "rest", until: at };
    },
  },
  expect: {
    fields: { day: day.allow("").default("") },
    decision: ({ day: by = "" }, { zone, newId }) => {
      const until = by === "" ? null : endOfCalendarDay(by, zone);
      if (by !== "" && until === null) return null;
      return { kind: "expect", until, expectationId: trustedId<ExpectationId>(newId()) };
    },
  },
  "stop-expecting": { fields: {}, decision: () => ({ kind: "stop-expecting" }) },
  note: {
    fields: {
      text: Joi.string().trim().max(MAX_NOTE_CHARACTERS).required().messages({
        "string.empty": "Write something first.",
        "string.max": "A note has at most {#limit} characters.",
      }),
    },
    decision: ({ text = "" }) => ({ kind: "note", text }),
  },
};

const COMMON: Joi.PartialSchemaMap = {
  kind: Joi.string(),
  conversation: Joi.array().items(id).min(1).max(MAX_CONVERSATIONS).required(),
  version: Joi.number().integer().min(1),
};

/** What was posted, as a decision about conversations; a refusal is a sentence for the person who posted it. */
export function readDecision(
  form: FormData,
  zone: string,
  newId: () => string,
): Result<{ target: Target; decision: Decision }, string> {
  const kind = String(form.get("kind"));
  if (!isDecisionKind(kind)) return err("That is nothing one can decide.");
  const posted = { ...Object.fromEntries(form), conversation: form.getAll("conversation") };
  const { fields, decision: make } = FORMS[kind];
  const { value, error } = Joi.object({ ...COMMON, ...fields }).validate(posted, { stripUnknown: true });
  if (error !== undefined) return err(error.message);
  const decision = make(value, { zone, newId });
  if (decision === null) return err("That is no day of the calendar.");
  const ids = (value.conversation as string[]).map((one) => trustedId<ConversationId>(one));
  return ok({ target: { ids, seenVersion: value.version ?? null }, decision });
}

function isDecisionKind(text: string): text is Decision["kind"] {
  return Object.hasOwn(FORMS, text);
}
