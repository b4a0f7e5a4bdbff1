import type { DecisionTarget, PostedDecision } from "./posted-decision";

export type DialogKind =
  | "join"
  | "assign"
  | "categories"
  | "give-by-key"
  | "file"
  | "expect"
  | "rest"
  | "expire"
  | "follow-up"
  | "note";

export type DialogProps = {
  readonly target: DecisionTarget;
  readonly onDecide: (decision: PostedDecision) => void;
  readonly onClose: () => void;
};
