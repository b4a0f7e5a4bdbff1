import type { Effect } from "../core/journal/entry";
import type { EmailAddress } from "../core/kernel/email-address";
import { type BatchId, type ConversationId, trustedId } from "../core/kernel/ids";
import { err, ok, type Result } from "../core/kernel/result";
import { parseMessage, readMailFiles } from "../mail/index";
import { factsOf, holdConversations, inTransaction, type Tray } from "../storage/index";
import { carryOut } from "./change-conversations";
import type { Deps } from "./deps";
import { keepInTray } from "./keep-in-tray";
import { traysOfAddresses } from "./tray-directory";

export type ImportReport = {
  readonly read: number;
  readonly added: number;
  readonly knownAlready: number;
  readonly conversations: number;
};

export type ImportOptions = {
  /** Settle what the import touches: it is the past, and nobody has to sort it. */
  readonly asHistory: boolean;
  readonly onProgress: (read: number) => void;
};

const PROGRESS_EVERY = 100;

/** Takes the messages of a file or folder (mbox, eml) into a tray. A second import of the same adds nothing. */
export async function importMail(
  deps: Deps,
  path: string,
  trayAddress: EmailAddress,
  options: ImportOptions,
): Promise<Result<ImportReport, { kind: "no-such-tray" }>> {
  const [tray] = await traysOfAddresses(deps, [trayAddress]);
  if (tray === undefined) return err({ kind: "no-such-tray" });
  const touched = new Set<ConversationId>();
  let read = 0;
  let added = 0;
  for await (const raw of readMailFiles(path)) {
    const { message } = await parseMessage(raw);
    const incoming = {
      ...{ message, raw, receivedAt: deps.now(), imported: true },
      ...{ signatures: [], recipients: [], envelopeSender: "" },
    };
    const kept = await inTransaction(deps.db, (trx) => keepInTray(trx, deps, tray, incoming));
    read += 1;
    if (kept.outcome !== "known-already") {
      added += 1;
      touched.add(kept.conversationId);
    }
    if (read % PROGRESS_EVERY === 0) options.onProgress(read);
  }
  if (options.asHistory) await settleAll(deps, tray, [...touched]);
  for (const conversationId of touched) deps.tell({ trayId: tray.id, conversationId });
  return ok({ read, added, knownAlready: read - added, conversations: touched.size });
}

const SETTLE_BATCH = 500;

async function settleAll(deps: Deps, tray: Tray, ids: readonly ConversationId[]): Promise<void> {
  const batchId = trustedId<BatchId>(deps.newId());
  const effects: Effect[] = [{ kind: "settled" }];
  for (let start = 0; start < ids.length; start += SETTLE_BATCH) {
    const some = ids.slice(start, start + SETTLE_BATCH);
    await inTransaction(deps.db, async (trx) => {
      const held = await holdConversations(trx, tray.id, some);
      const facts = await factsOf(trx, some);
      const changes = held.map((conversation) => ({
        conversation,
        known: facts.get(conversation.id) ?? { messages: [], entries: [] },
        effects,
      }));
      await carryOut(trx, deps, null, batchId, changes);
    });
  }
}
