import type { PreviewView } from "../../server/records/retention-view.server";
import type { FormOutcome } from "../forms/use-form-action";

/** What came of a step about how long records are kept; with what would go, where that was asked. */
export type RetentionOutcome =
  | { readonly ok: true; readonly said: string; readonly preview?: PreviewView }
  | Extract<FormOutcome, { ok: false }>;
