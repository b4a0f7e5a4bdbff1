import { type ConversationId, type MessageId, type TrayId, trustedId } from "../../core/kernel/ids";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";

/** What a tray knows of some ids and messages; kept up to date by whoever stores one of them while it is held. */
export type KnownThreads = {
  /** The conversation of each id that was seen or named in the tray. */
  readonly conversations: Map<string, ConversationId>;
  /** The conversation that has a message already, by its dedupe key in hexadecimal digits. */
  readonly copies: Map<string, ConversationId>;
};

const hex = (key: Uint8Array) => Buffer.from(key).toString("hex");

/** The conversation that already has a message; null when it is new. */
export function copyOf(known: KnownThreads, dedupeKey: Uint8Array): ConversationId | null {
  return known.copies.get(hex(dedupeKey)) ?? null;
}

/** Notes what storing a message has added. */
export function noteStored(
  known: KnownThreads,
  ids: readonly string[],
  dedupeKey: Uint8Array,
  conversation: ConversationId,
): void {
  for (const id of ids) if (!known.conversations.has(id)) known.conversations.set(id, conversation);
  known.copies.set(hex(dedupeKey), conversation);
}

/** Notes that a conversation has become a part of another. */
export function noteJoined(known: KnownThreads, source: ConversationId, target: ConversationId): void {
  for (const map of [known.conversations, known.copies]) {
    for (const [key, conversation] of map) if (conversation === source) map.set(key, target);
  }
}

/**
 * What a tray knows of these message ids, and which of the messages it has already. Messages that share an id wait for
 * each other until the transaction ends: two of one new thread, arriving together, would otherwise start a conversation
 * each.
 */
export async function lockThreads(
  trx: Transaction,
  trayId: TrayId,
  ids: readonly string[],
  dedupeKeys: readonly Uint8Array[],
): Promise<KnownThreads> {
  const builder = knexOf(trx);
  // A statement sees what was committed before it began, so the locks need one of their own before the reading.
  await builder.raw(
    /* sql */ `
    select pg_advisory_xact_lock(key) from (
      select distinct hashtextextended(id, hashtext(?)) as key from unnest(?::text[]) as id order by key
    ) as keys`,
    [trayId, [...ids, ...dedupeKeys.map(hex)]],
  );
  const found = await ask<{ message_id: string | null; key: string | null; conversation_id: string }>(
    trx,
    /* sql */ `
    select message_id, null as key, conversation_id from thread_link where tray_id = ? and message_id = any(?)
    union all
    select null, encode(dedupe_key, 'hex'), conversation_id from message where tray_id = ? and dedupe_key = any(?)`,
    [trayId, [...ids], trayId, dedupeKeys.map((key) => Buffer.from(key))],
  );
  const known: KnownThreads = { conversations: new Map(), copies: new Map() };
  for (const row of found) {
    const conversation = trustedId<ConversationId>(row.conversation_id);
    if (row.message_id !== null) known.conversations.set(row.message_id, conversation);
    if (row.key !== null) known.copies.set(row.key, conversation);
  }
  return known;
}

/** Where messages of a tray lie that have these dedupe keys, in the order of the keys. */
export async function placesOfKeys(
  db: Database,
  trayId: TrayId,
  keys: readonly Uint8Array[],
): Promise<{ readonly messageId: MessageId; readonly conversationId: ConversationId }[]> {
  const found = await ask<{ id: string; conversation_id: string }>(
    db,
    /* sql */ `
    select message.id, conversation_id from unnest(cast(:keys as bytea[])) with ordinality as wanted(key, at)
      join message on message.tray_id = :trayId and dedupe_key = wanted.key
    order by wanted.at`,
    { trayId, keys: keys.map((key) => Buffer.from(key)) },
  );
  return found.map(({ id, conversation_id }) => ({
    messageId: trustedId<MessageId>(id),
    conversationId: trustedId<ConversationId>(conversation_id),
  }));
}
