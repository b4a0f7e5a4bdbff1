import type { RunId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import type { TrayGrant } from "../../storage/access/index";
import { conversationsToUndo, newestUndoableBatch, type ToUndo } from "../../storage/facts/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { beginRun, DECIDED_AT_ONCE } from "./bulk-run";
import { type Undone, undoAtOnce } from "./undo";

// One key undoes what one just did; older things are undone from the journal, where one sees what they are.
const UNDO_KEY_REACH = DAY;

/** What undoing did, or the run that does it where it is about many conversations. */
export type UndoneOrRunning = Undone | { readonly runId: RunId };

/** Undoes the member's newest batch in the tray. */
export async function undoNewest(deps: Deps, grant: TrayGrant): Promise<Result<UndoneOrRunning, Refusal>> {
  const since = later(deps.now(), -UNDO_KEY_REACH);
  const batchId = await newestUndoableBatch(deps.db, grant.tray.id, grant.memberId, since);
  return batchId === null ? err({ kind: "nothing-to-undo" }) : undoSteps(deps, grant, { batchIds: [batchId] });
}

/** Takes back what was done: at once, or as a run where it is about many conversations. */
export async function undoSteps(deps: Deps, grant: TrayGrant, what: ToUndo): Promise<Result<UndoneOrRunning, Refusal>> {
  const ids = await conversationsToUndo(deps.db, grant.tray.id, what);
  if (ids.length <= DECIDED_AT_ONCE) return undoAtOnce(deps, grant, what);
  const run = await beginRun(deps, grant, ids, { kind: "undo", ...what }, "Undone");
  return run.ok ? ok({ runId: run.value }) : run;
}
