import { type BatchId, type MessageId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import type { TrayGrant } from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import { entriesToUndo, lockConversations, relist } from "../../storage/facts/index";
import { forgetWords, lockOutgoing, type OutgoingRow, outgoingOf, setDelivery } from "../../storage/mail/index";
import type { Deps } from "../base/deps";
import { undoEntries } from "../deciding/undo";
import type { Refusal } from "../refusals/refusal";
import { type WrittenAgain, writtenAgain } from "./write-again";

/** A message that was taken back, for writing it again. */
export type RecalledMessage = WrittenAgain & { readonly conversationId: OutgoingRow["conversationId"] };

/** Takes a message back that has not gone yet, or will never go; what went with it in the journal is undone. */
export async function recallMessage(
  deps: Deps,
  grant: TrayGrant,
  id: MessageId,
): Promise<Result<RecalledMessage, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const taken = await inTransaction(deps.db, async (trx): Promise<Result<RecalledMessage, Refusal>> => {
    const message = await lockOutgoing(trx, id);
    if (message === null || message.trayId !== grant.tray.id) return err({ kind: "no-such", what: "message" });
    if (message.state !== "waiting" && message.state !== "failed") return err({ kind: "already-sent" });
    await setDelivery(trx, id, { state: "withdrawn", reason: null }, deps.now());
    await forgetWords(trx, id);
    const held = await lockConversations(trx, grant.tray.id, [message.conversationId]);
    const entries = await entriesToUndo(trx, grant.tray.id, { batchIds: [trustedId<BatchId>(id)] });
    await undoEntries(trx, deps, grant, held, entries);
    await relist(trx, [message.conversationId]);
    return ok({ conversationId: message.conversationId, ...(await writtenAgain(trx, deps, grant, message.raw)) });
  });
  if (taken.ok) deps.publishChange({ trayId: grant.tray.id, conversationId: taken.value.conversationId });
  return taken;
}

const MAX_ROWS = 200;

/** What a tray has to send, and what went lately. */
export function getOutgoing(deps: Deps, grant: TrayGrant): Promise<OutgoingRow[]> {
  return outgoingOf(deps.db, grant, MAX_ROWS);
}
