import type { RecordId } from "../kernel/ids";
import type { FieldValues } from "./filing-field";

/** By which means something is filed by hand; a rule stands in the journal by itself. */
export const FILING_MEANS = ["picker", "shelf", "proposal", "sending"] as const;
export type FilingMeans = (typeof FILING_MEANS)[number];

const WORDS: Readonly<Record<FilingMeans, string>> = {
  ...{ picker: "by hand", shelf: "onto the shelf", proposal: "as proposed", sending: "with an answer" },
};

/** By which means, as a word in a table; where nothing was noted, a hand did it. */
export function meansInWords(means: FilingMeans = "picker"): string {
  return WORDS[means];
}

/** How something is filed: on which record, by which means, with which particulars. */
export type Filing = {
  readonly recordId: RecordId;
  readonly means?: FilingMeans;
  readonly fields?: FieldValues;
};
