/** What the server said to a decision or to an undo. */
export type DecisionOutcome =
  | { readonly ok: true; readonly batchId: string; readonly count: number }
  /** `stale` when the server refused because things are no longer as they were shown: they have to be loaded anew. */
  | { readonly ok: false; readonly problem: string; readonly stale: boolean };

export type UndoOutcome =
  | { readonly ok: true; readonly message: string }
  | { readonly ok: false; readonly problem: string };
