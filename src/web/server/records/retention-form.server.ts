import Joi from "joi";
import { type PolicyId, type RecordId, trustedId } from "../../../core/kernel/ids";
import type { Instant } from "../../../core/kernel/instant";
import { err, ok, type Result } from "../../../core/kernel/result";
import { COUNTS_FROM, ENDS_IN, type RetentionPolicy } from "../../../core/retention/policy";
import { endOfCalendarDay } from "../../../core/time/calendar-day";
import { ID, ID_OR_NONE } from "../base/fields.server";
import { speak } from "../base/say.server";

/** Something that is done about how long records are kept. */
export type RetentionStep =
  | { readonly do: "policy"; readonly policy: Omit<RetentionPolicy, "id"> & { readonly id: PolicyId | null } }
  | { readonly do: "remove"; readonly id: PolicyId }
  | {
      readonly do: "bear";
      readonly bearer: "record" | "record_type" | "category";
      readonly id: string;
      readonly policyId: PolicyId | null;
    }
  | { readonly do: "preview"; readonly recordId: RecordId }
  | { readonly do: "dispose"; readonly recordId: RecordId; readonly previewId: string }
  | { readonly do: "keep"; readonly recordId: RecordId; readonly until: Instant; readonly day: string }
  | { readonly do: "hold"; readonly recordId: RecordId; readonly reason: string }
  | { readonly do: "release"; readonly recordId: RecordId; readonly holdId: string };

const id = ID.required();
const record = { record: id };

const FORMS = {
  policy: Joi.object({
    id: ID_OR_NONE,
    name: Joi.string().allow("").max(1_000).required(),
    period: Joi.string().allow("").max(100).required(),
    countsFrom: Joi.string()
      .valid(...COUNTS_FROM)
      .required(),
    endsIn: Joi.string()
      .valid(...ENDS_IN)
      .required(),
  }),
  remove: Joi.object({ id }),
  bear: Joi.object({
    bearer: Joi.string().valid("record", "record_type", "category").required(),
    id,
    policy: ID_OR_NONE,
  }),
  preview: Joi.object(record),
  dispose: Joi.object({ ...record, preview: id }),
  keep: Joi.object({ ...record, until: Joi.string().allow("").max(20).required() }),
  hold: Joi.object({ ...record, reason: Joi.string().allow("").max(1_000).required() }),
  release: Joi.object({ ...record, hold: id }),
} as const;

/** The posted step; what is wrong is said by field. */
export function readRetentionStep(form: FormData, zone: string): Result<RetentionStep, Record<string, string>> {
  const step = String(form.get("do"));
  if (!Object.hasOwn(FORMS, step)) return err({ do: speak("records.thatIsNothingOneCan") });
  const kind = step as keyof typeof FORMS;
  const { value, error } = FORMS[kind].validate(Object.fromEntries(form), { stripUnknown: true });
  if (error !== undefined) return err({ do: speak("records.thatCannotBeDoneSomething") });
  const recordId = trustedId<RecordId>(value.record ?? "");
  switch (kind) {
    case "policy": {
      const { name, period, countsFrom, endsIn } = value;
      const policyId = value.id === "" ? null : trustedId<PolicyId>(value.id);
      return ok({ do: kind, policy: { id: policyId, name, period, countsFrom, endsIn } });
    }
    case "remove":
      return ok({ do: kind, id: trustedId<PolicyId>(value.id) });
    case "bear":
      return ok({
        do: kind,
        bearer: value.bearer,
        id: value.id,
        policyId: value.policy === "" ? null : trustedId<PolicyId>(value.policy),
      });
    case "preview":
      return ok({ do: kind, recordId });
    case "dispose":
      return ok({ do: kind, recordId, previewId: value.preview });
    case "keep": {
      const until = endOfCalendarDay(value.until, zone);
      return until === null
        ? err({ until: speak("records.chooseADayUntilWhich") })
        : ok({ do: kind, recordId, until, day: value.until });
    }
    case "hold":
      return ok({ do: kind, recordId, reason: value.reason });
    case "release":
      return ok({ do: kind, recordId, holdId: value.hold });
  }
}
