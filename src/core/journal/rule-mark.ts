import type { RuleId } from "../kernel/ids";

/** The mark that a rule leaves in the journal: which one it was, and what of the message it was for. */
export type RuleMark = {
  readonly id: RuleId;
  readonly name: string;
  readonly why: string;
  /** Which version of the rule it was; absent where that was not kept yet. */
  readonly version?: number;
};
