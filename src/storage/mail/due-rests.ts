import { type ConversationId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";

/** Conversations that are still with us although their time is over, the longest over first. */
export async function expiredConversations(
  db: Database,
  now: Instant,
  limit: number,
): Promise<{ id: ConversationId; trayId: TrayId }[]> {
  const rows = await knexOf(db)("conversation")
    .select("id", "tray_id")
    .whereIn("standing", ["to-sort", "our-move"])
    .where("expires_at", "<=", param(now))
    .orderBy("expires_at")
    .limit(limit);
  return rows.map((row) => ({ id: trustedId<ConversationId>(row.id), trayId: trustedId<TrayId>(row.tray_id) }));
}

/** Conversations whose rest is over and that still rest, the longest over first. */
export async function dueRests(
  db: Database,
  now: Instant,
  limit: number,
): Promise<{ id: ConversationId; trayId: TrayId }[]> {
  const rows = await knexOf(db)("conversation")
    .select("id", "tray_id")
    .where("standing", "resting")
    .where("resting_until", "<=", param(now))
    .orderBy("resting_until")
    .limit(limit);
  return rows.map((row) => ({ id: trustedId<ConversationId>(row.id), trayId: trustedId<TrayId>(row.tray_id) }));
}
