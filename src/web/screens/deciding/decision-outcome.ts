import type { AskedFields } from "../../../core/records/filing-field";

/** What the server said to a decision or to an undo. */
export type DecisionOutcome =
  /** `runId` when it is so much that it is done in the background. */
  | { readonly ok: true; readonly batchId: string; readonly count: number; readonly runId: string | null }
  /** `stale` when the server refused because things are no longer as they were shown: they have to be loaded anew. `asked` is
   *  what has to be filled in before something is filed. */
  | { readonly ok: false; readonly problem: string; readonly stale: boolean; readonly asked?: AskedFields }
  /** It never reached the server, so it is kept and sent again. */
  | { readonly ok: "unreachable" };

export type UndoOutcome =
  | { readonly ok: true; readonly message: string }
  | { readonly ok: false; readonly problem: string };
