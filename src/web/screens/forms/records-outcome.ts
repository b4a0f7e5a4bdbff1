import type { FormOutcome } from "./use-form-action";

/** What the server said to a step about records: done, with the record that it was about. */
export type RecordsOutcome =
  | (Extract<FormOutcome, { ok: true }> & { readonly id: string; readonly code: string })
  | Extract<FormOutcome, { ok: false }>;
