import { later, MINUTE } from "../../core/kernel/instant";
import { inTransaction } from "../../storage/base/index";
import { strandedBulkRuns } from "../../storage/lists/index";
import { strandedImports, strandedOutgoing } from "../../storage/mail/index";
import { strandedZipExports } from "../../storage/records/index";
import type { Deps } from "../base/deps";
import { sendMessage } from "../sending/send-message";

// Handing over takes 30 s at most, a batch of an import some seconds.
const STRANDED_AFTER = 2 * MINUTE;
const MAX_AT_ONCE = 200;

/**
 * Takes up what a killed process left behind: what was being handed over is shown as uncertain, what was never tried,
 * and runs and imports that stand still, get a new job. Doing it twice does no harm.
 */
export async function resumeWork(deps: Deps, strandedAfter: number = STRANDED_AFTER): Promise<void> {
  const before = later(deps.now(), -strandedAfter);
  for (const { id, state } of await strandedOutgoing(deps.db, before, MAX_AT_ONCE)) {
    if (state === "going") await sendMessage(deps, id, { number: 1, last: true });
    else await inTransaction(deps.db, (trx) => deps.jobs.enqueue(trx, { kind: "send-message", messageId: id }));
  }
  for (const runId of await strandedBulkRuns(deps.db, before)) {
    await inTransaction(deps.db, (trx) => deps.jobs.enqueue(trx, { kind: "run-bulk", runId }));
  }
  for (const parcelId of await strandedZipExports(deps.db, before)) {
    await inTransaction(deps.db, (trx) => deps.jobs.enqueue(trx, { kind: "pack-parcel", parcelId }));
  }
  for (const importId of await strandedImports(deps.db, before)) {
    await inTransaction(deps.db, (trx) => deps.jobs.enqueue(trx, { kind: "run-import", importId }));
  }
}
