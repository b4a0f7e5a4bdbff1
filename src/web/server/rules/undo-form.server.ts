import Joi from "joi";
import type { Instant } from "../../../core/kernel/instant";
import { err, ok, type Result } from "../../../core/kernel/result";
import { readMoment } from "../base/moment-field.server";
import { speak } from "../base/say.server";

const STEP = Joi.object<{ do: "undo"; version: number; since: string }>({
  do: Joi.string().valid("undo").required(),
  version: Joi.number().integer().min(0).max(1_000_000).required(),
  since: Joi.string().allow("").max(30).required(),
});

/** Which version of a rule is to be undone, and since when (null: ever), read by the clock of a zone; or what is wrong, by field. */
export function readUndoStep(
  form: FormData,
  zone: string,
): Result<{ readonly version: number; readonly since: Instant | null }, Readonly<Record<string, string>>> {
  const { value, error } = STEP.validate(Object.fromEntries(form));
  if (error !== undefined) return err({ since: speak("server.thatIsNothingThatCan") });
  const since = readMoment(value.since, zone);
  return since.ok ? ok({ version: value.version, since: since.value }) : err({ since: since.error });
}
