import type { FormOutcome } from "../forms/use-form-action";

/** What came of a step about rounds; one that was removed can be brought back. */
export type RoundOutcome =
  | Extract<FormOutcome, { ok: false }>
  | (Extract<FormOutcome, { ok: true }> & { readonly droppedId: string | null });
