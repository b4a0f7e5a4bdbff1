import type { DraftAttachmentId } from "../kernel/ids";
import { sentencesOf } from "./sentences";

/** A file that is to go with a message that is being written: the bytes lie in the store. */
export type DraftAttachment = {
  readonly id: DraftAttachmentId;
  readonly name: string;
  /** In bytes. */
  readonly size: number;
};

/** What the files of one message may come to, in bytes: a third more on the way, which most mail servers still take. */
export const MOST_ENCLOSED_BYTES = 20_000_000;
/** How many files go with one message at most. */
export const MOST_ENCLOSURES = 30;

// How one says that something goes along, in the languages that dates are read in; not what somebody else sent.
const ENCLOSING = [
  /\b(?:i|we)(?:['’]ve| have| am| are)? (?:also |just )?(?:attach|enclos)(?:e|ed|ing)?\b/iu,
  /\b(?:is|are) (?:attached|enclosed)\b(?! to (?!this\b))/iu,
  /\b(?:find|see) (?:it |them )?(?:the )?(?:attached|enclosed|attachments?|enclosures?)\b/iu,
  /^(?:attached|enclosed)\b/iu,
  /\b(?:in|as|with) (?:the|an) (?:attachment|enclosure)\b|\bthe attached\b/iu,
  /\b(?:anbei|im anhang|als anhang|beigefügt\w*|angehängt)\b/iu,
  /\bci-joint\w*|\ben (?:annexe|pièce jointe)\b/iu,
  /\b(?:bijgevoegd\w*|(?:in de|als) bijlage)\b/iu,
  /\badjunt[oa]s?\b/iu,
];

/** The first sentence of a text by which its writer says that something goes along with it; null where none does. */
export function mentionsAttachment(text: string): string | null {
  return sentencesOf(text).find((one) => ENCLOSING.some((pattern) => pattern.test(one.text)))?.text ?? null;
}
