import Joi from "joi";
import { sizeInWords } from "../../../core/kernel/size-in-words";
import type { ZipExport, ZipExportForm } from "../../../operations/index.server";
import { speak } from "../base/say.server";

/** Mail that is taken out, as the corner of the screen shows it. */
export function zipExportView({ id, name, state, done, total, bytes, problem }: ZipExport) {
  return { id, name, state, done, total, problem, size: speak(sizeInWords(bytes)) };
}

export type ZipExportView = ReturnType<typeof zipExportView>;

const MAX_TEXT_CHARACTERS = 500;

/** What is to be taken out: of the record of this code, or (empty) of the tray. */
export type ZipExportOrder = {
  readonly code: string;
  readonly text: string;
  readonly everywhere: boolean;
} & ZipExportForm;

const ORDER = Joi.object({
  code: Joi.string().allow("").max(100).default(""),
  text: Joi.string().trim().allow("").max(MAX_TEXT_CHARACTERS).default(""),
  everywhere: Joi.string().valid("on", "").default(""),
  mbox: Joi.string().valid("on", "").default(""),
  notes: Joi.string().valid("on", "").default(""),
});

/** The order as it was posted; null where it is none. */
export function readZipExportOrder(form: FormData): ZipExportOrder | null {
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
