import Joi from "joi";
import type { FieldValues } from "../../../core/records/filing-field";
import { readJson } from "../base/read-json.server";

/** The particulars of what is filed. */
export const FIELD_VALUES = Joi.object().pattern(Joi.string().max(40), Joi.string().allow("").max(2_000)).max(50);

/** The same as a form carries them beside a letter: JSON, empty for none. */
export const FILED_FIELDS = Joi.string().allow("").max(20_000).default("");

/** What was typed on the filing sheet; what is none of it counts as left empty, which is then asked for. */
export function readFields(text: string): FieldValues {
  const { value, error } = FIELD_VALUES.validate(readJson(text));
  return error === undefined && value !== null ? value : {};
}
