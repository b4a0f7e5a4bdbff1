import { MOST_ENCLOSED_BYTES } from "../../../core/writing/draft-attachment";

/** The most that a form has, in bytes, where nothing else is said. */
export const MOST_FORM_BYTES = 256 * 1024;

const WRITTEN_BYTES = 4 * 1024 * 1024;
// A decision names each conversation that it is about, and may be about 20,000.
const CHOSEN_BYTES = 1_280_000;
const TABLE_BYTES = 4 * 1024 * 1024;
// The form around a file takes some room of its own.
const AROUND_A_FILE = 16 * 1024;
const DOCUMENT_BYTES = 50_000_000;
const IMPORTED_BYTES = 4 * 1024 * 1024 * 1024;

const LIMITS: Readonly<Record<string, number>> = {
  "routes/writing/answer": WRITTEN_BYTES,
  "routes/writing/write": WRITTEN_BYTES,
  "routes/writing/drafts": WRITTEN_BYTES,
  "routes/writing/own-draft": WRITTEN_BYTES,
  "routes/writing/text-suggestions": WRITTEN_BYTES,
  "routes/deciding/decide": CHOSEN_BYTES,
  "routes/templates/templates": WRITTEN_BYTES,
  "routes/categories/categories-import": TABLE_BYTES,
  "routes/rules/rules-import": TABLE_BYTES,
  "routes/records/records-import": TABLE_BYTES,
  "routes/records/arrangement": TABLE_BYTES,
  "routes/writing/draft-attachments": MOST_ENCLOSED_BYTES + AROUND_A_FILE,
  "routes/records/record-documents": DOCUMENT_BYTES + AROUND_A_FILE,
  // Its bytes go on as they come and are never held.
  "routes/office/import-upload": IMPORTED_BYTES,
};

/** The most bytes that the body of a request to a route may have. */
export function mostBytesTo(routeId: string): number {
  return LIMITS[routeId] ?? MOST_FORM_BYTES;
}
