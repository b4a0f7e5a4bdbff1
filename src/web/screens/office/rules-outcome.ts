import type { RuleTrial } from "../../../operations/index.server";
import type { StepOutcome } from "../frame/use-step";

/** What the server said to a step about rules: done, or for which messages the tried rule would have been. */
export type RulesOutcome =
  | (Extract<StepOutcome, { ok: true }> & {
      readonly trial: RuleTrial<string> | null;
      readonly droppedId: string | null;
    })
  | Extract<StepOutcome, { ok: false }>;
