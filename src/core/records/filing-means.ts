import { recordsTexts } from "../../texts/en/records";
import { type Said, saidOf } from "../../texts/said";
import type { MessageId, RecordId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import type { FieldValues } from "./filing-field";

const said = saidOf(recordsTexts);

/** By which means something is filed by hand; a rule stands in the journal by itself. */
export const FILING_MEANS = ["picker", "shelf", "proposal", "sending"] as const;
/** Also what was filed elsewhere once and was taken in with its record. */
export type FilingMeans = (typeof FILING_MEANS)[number] | "import";

const WORDS: Readonly<Record<FilingMeans, Said>> = {
  picker: said("records.byHand"),
  shelf: said("records.ontoTheShelf"),
  proposal: said("records.asProposed"),
  sending: said("records.withAnAnswer"),
  import: said("records.takenIn"),
};

/** By which means, as a word in a table; where nothing was noted, a hand did it. */
export function meansInWords(means: FilingMeans = "picker"): Said {
  return WORDS[means];
}

/** How something is filed: on which record, by which means, with which particulars. */
export type Filing = {
  readonly recordId: RecordId;
  readonly means?: FilingMeans;
  readonly fields?: FieldValues;
  /** Where it was taken in from elsewhere: who filed it there, when, and how, in words. */
  readonly earlier?: { readonly by: string; readonly at: Instant; readonly how: string };
};

/** A part of a conversation that can be filed without the rest of it. */
export type MessagePart = {
  readonly messageId: MessageId;
  /** One of its attachments alone, by its index; null for all of the message. */
  readonly attachment: number | null;
};

/** What two parts have in common only if they are the same. */
export const partKey = ({ messageId, attachment }: MessagePart) => `${messageId}/${attachment ?? ""}`;
