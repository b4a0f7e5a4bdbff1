import type { StepOutcome } from "./use-step";

/** What the server said to a step about records: done, with the record that it was about. */
export type RecordsOutcome =
  | (Extract<StepOutcome, { ok: true }> & { readonly id: string; readonly code: string })
  | Extract<StepOutcome, { ok: false }>;
