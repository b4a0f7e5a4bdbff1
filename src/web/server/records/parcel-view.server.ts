import Joi from "joi";
import { sizeInWords } from "../../../core/kernel/size-in-words";
import type { Parcel, ParcelForm } from "../../../operations/index.server";

/** Mail that is taken out, as the corner of the screen shows it. */
export function parcelView({ id, name, state, done, total, bytes, problem }: Parcel) {
  return { id, name, state, done, total, problem, size: sizeInWords(bytes) };
}

export type ParcelView = ReturnType<typeof parcelView>;

const MAX_TEXT_CHARACTERS = 500;

/** What is to be taken out: of the record of this code, or (empty) of the tray. */
export type ParcelOrder = { readonly code: string; readonly text: string; readonly everywhere: boolean } & ParcelForm;

const ORDER = Joi.object({
  code: Joi.string().allow("").max(100).default(""),
  text: Joi.string().trim().allow("").max(MAX_TEXT_CHARACTERS).default(""),
  everywhere: Joi.string().valid("on", "").default(""),
  mbox: Joi.string().valid("on", "").default(""),
  notes: Joi.string().valid("on", "").default(""),
});

/** The order as it was posted; null where it is none. */
export function readParcelOrder(form: FormData): ParcelOrder | null {
  const { value, error } = ORDER.validate(Object.fromEntries(form), { stripUnknown: true });
  if (error !== undefined) return null;
  const { code, text, everywhere, mbox, notes } = value;
  return {
    code,
    text,
    everywhere: everywhere === "on",
    format: mbox === "on" ? "mbox" : "eml",
    withNotes: notes === "on",
  };
}
