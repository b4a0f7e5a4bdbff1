import { type ConversationId, type TrayId, trustedId } from "../core/kernel/ids";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";

export type KnownThreads = {
  /** The conversation of each id that was seen or named in the tray. */
  readonly conversations: ReadonlyMap<string, ConversationId>;
  /** The conversation that already has this very message; null when it is new. */
  readonly copyIn: ConversationId | null;
};

/**
 * What a tray knows of these message ids, and whether it has the message already. Messages that share an id wait for each
 * other until the transaction ends: two of one new thread, arriving together, would otherwise start a conversation each.
 */
export async function lockThreads(
  trx: Database,
  trayId: TrayId,
  ids: readonly string[],
  dedupeKey: Uint8Array,
): Promise<KnownThreads> {
  const builder = knexOf(trx);
  // A statement sees what was committed before it began, so the locks need one of their own before the reading.
  await builder.raw(
    /* sql */ `
    select pg_advisory_xact_lock(key) from (
      select distinct hashtextextended(id, hashtext(?)) as key from unnest(?::text[]) as id order by key
    ) as keys`,
    [trayId, [...ids, Buffer.from(dedupeKey).toString("hex")]],
  );
  const found = await builder.raw<{ rows: { message_id: string | null; conversation_id: string }[] }>(
    /* sql */ `
    select message_id, conversation_id from thread_link where tray_id = ? and message_id = any(?)
    union all
    select null, conversation_id from message where tray_id = ? and dedupe_key = ?`,
    [trayId, [...ids], trayId, Buffer.from(dedupeKey)],
  );
  const conversations = new Map<string, ConversationId>();
  let copyIn: ConversationId | null = null;
  for (const row of found.rows) {
    const conversation = trustedId<ConversationId>(row.conversation_id);
    if (row.message_id === null) copyIn = conversation;
    else conversations.set(row.message_id, conversation);
  }
  return { conversations, copyIn };
}
