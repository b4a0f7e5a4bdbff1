import type { PreviewView } from "../../server/automatic-answers/answer-view.server";
import type { FormOutcome } from "../forms/use-form-action";

/** What came of a step about automatic answers: what one would have done, and one that was removed and can be brought back. */
export type AnswersOutcome =
  | Extract<FormOutcome, { ok: false }>
  | (Extract<FormOutcome, { ok: true }> & { readonly preview: PreviewView | null; readonly droppedId: string | null });
