import type { TrialView } from "../../server/rules/trial-view.server";
import type { FormOutcome } from "../forms/use-form-action";

/** What the server said to a step about rules: done, or for which messages the tried rule would have been. */
export type RulesOutcome =
  | (Extract<FormOutcome, { ok: true }> & {
      readonly trial: TrialView | null;
      readonly droppedId: string | null;
      /** The proposal that was declined. */
      readonly declinedId: string | null;
    })
  | Extract<FormOutcome, { ok: false }>;
