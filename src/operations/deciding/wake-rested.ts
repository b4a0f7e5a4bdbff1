import { deriveDocket } from "../../core/docket/derive-docket";
import type { Effect } from "../../core/journal/entry";
import { type BatchId, type ConversationId, type TrayId, trustedId } from "../../core/kernel/ids";
import { type ConversationFacts, NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { inTransaction } from "../../storage/base/index";
import { factsOf, lockConversations } from "../../storage/facts/index";
import { dueRests, expiredConversations } from "../../storage/mail/index";
import type { Deps } from "../base/deps";
import { carryOut } from "../changes/change-conversations";

const BATCH = 200;

type Over = { readonly id: ConversationId; readonly trayId: TrayId };

/** Brings conversations back whose rest is over; gives how many. Those that somebody moved meanwhile stay where they are. */
export async function wakeRested(deps: Deps): Promise<number> {
  const over = await dueRests(deps.db, deps.now(), BATCH);
  await foundByTheClock(deps, over, () => [{ kind: "rest-ended" }]);
  return over.length;
}

/** Settles conversations that mattered until a moment which is over; gives how many. */
export async function lapseExpired(deps: Deps): Promise<number> {
  const over = await expiredConversations(deps.db, deps.now(), BATCH);
  // Somebody may have said since that it matters longer, or settled it.
  const isOver = (facts: ConversationFacts) => {
    const { expiresAt, standing } = deriveDocket(facts);
    const isOurs = standing.kind === "to-sort" || standing.kind === "our-move";
    return expiresAt !== null && expiresAt <= deps.now() && isOurs;
  };
  await foundByTheClock(deps, over, (facts) => (isOver(facts) ? [{ kind: "lapsed" }] : []));
  return over.length;
}

/** Writes down what the clock brought about, one transaction a tray. */
export async function foundByTheClock(
  deps: Deps,
  over: readonly Over[],
  effectsOf: (facts: ConversationFacts) => readonly Effect[],
): Promise<void> {
  const byTray = new Map<TrayId, ConversationId[]>();
  for (const { id, trayId } of over) byTray.set(trayId, [...(byTray.get(trayId) ?? []), id]);
  for (const [trayId, ids] of byTray) {
    await inTransaction(deps.db, async (trx) => {
      const held = await lockConversations(trx, trayId, ids);
      const facts = await factsOf(trx, ids);
      const changes = held.map((conversation) => {
        const known = facts.get(conversation.id) ?? NOTHING_HAPPENED;
        return { conversation, known, effects: effectsOf(known) };
      });
      await carryOut(trx, deps, null, trustedId<BatchId>(deps.newId()), changes);
    });
    for (const conversationId of ids) deps.publishChange({ trayId, conversationId });
  }
}
