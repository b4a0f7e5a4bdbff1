/** What the server said to a decision or to an undo. */
export type DecisionOutcome =
  | { readonly ok: true; readonly batchId: string; readonly count: number }
  | { readonly ok: false; readonly problem: string };

export type UndoOutcome =
  | { readonly ok: true; readonly message: string }
  | { readonly ok: false; readonly problem: string };
