import { type BatchId, type ConversationId, type TrayId, trustedId } from "../core/kernel/ids";
import { NOTHING_HAPPENED } from "../core/standing/derive-standing";
import { factsOf, holdConversations, inTransaction, restsOver } from "../storage/index";
import { carryOut } from "./change-conversations";
import type { Deps } from "./deps";

const BATCH = 200;

/** Brings conversations back whose rest is over; gives how many. Those that somebody moved meanwhile stay where they are. */
export async function wakeRested(deps: Deps): Promise<number> {
  const over = await restsOver(deps.db, deps.now(), BATCH);
  const byTray = new Map<TrayId, ConversationId[]>();
  for (const { id, trayId } of over) byTray.set(trayId, [...(byTray.get(trayId) ?? []), id]);
  for (const [trayId, ids] of byTray) {
    await inTransaction(deps.db, async (trx) => {
      const held = await holdConversations(trx, trayId, ids);
      const facts = await factsOf(trx, ids);
      const changes = held.map((conversation) => ({
        conversation,
        known: facts.get(conversation.id) ?? NOTHING_HAPPENED,
        effects: [{ kind: "rest-ended" } as const],
      }));
      await carryOut(trx, deps, null, trustedId<BatchId>(deps.newId()), changes);
    });
    for (const conversationId of ids) deps.tell({ trayId, conversationId });
  }
  return over.length;
}
