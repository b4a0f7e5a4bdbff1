import type { CategoryReplacement } from "../../core/categories/category";
import type { Effect, JournalEntry } from "../../core/journal/entry";
import type { RuleMark } from "../../core/journal/rule-mark";
import type { EmailAddress } from "../../core/kernel/email-address";
import {
  type ConversationId,
  type EntryId,
  type MemberId,
  type MessageId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { FailedRecipient, MessageKind } from "../../core/message/mail-message";
import type { ConversationFacts, MessageFact, OwnerReplacement } from "../../core/standing/derive-standing";
import { replacedOwners } from "../access/members";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, atOrNull } from "../base/rows";
import { replacedCategories } from "./categories";

type MessageFactRow = {
  id: string;
  conversation_id: string;
  version: number;
  sent_at: Date;
  received_at: Date;
  direction: "in" | "out";
  kind: MessageKind;
  from_address: string;
  from_name: string;
  author_id: string | null;
  failed_recipients: FailedRecipient[];
  returns_at: Date | null;
  expires_at: Date | null;
};

type EntryRow = {
  id: string;
  conversation_id: string;
  version: number;
  at: Date;
  by_member_id: string | null;
  rule: RuleMark | null;
  effect: Effect;
};

/** What an entry of the journal is made of. */
export const ENTRY_COLUMNS = ["id", "conversation_id", "version", "at", "by_member_id", "rule", "effect"] as const;

/** A conversation held for changing: nobody else changes it until the transaction ends. */
export type HeldConversation = { readonly id: ConversationId; readonly trayId: TrayId; readonly version: number };

/** Holds conversations of one tray, always in the same order so that two who want the same ones never wait for each other. Missing ones are left out. */
export async function lockConversations(
  trx: Transaction,
  trayId: TrayId,
  ids: readonly ConversationId[],
): Promise<HeldConversation[]> {
  const rows: { id: string; version: number }[] = await versionsOf(trx, trayId, ids).forUpdate();
  return rows.map((row) => ({ id: trustedId<ConversationId>(row.id), trayId, version: row.version }));
}

/** The same without holding any of them: for what is only planned. */
export async function conversationsAsTheyAre(
  db: Database,
  trayId: TrayId,
  ids: readonly ConversationId[],
): Promise<HeldConversation[]> {
  const rows: { id: string; version: number }[] = await versionsOf(db, trayId, ids);
  return rows.map((row) => ({ id: trustedId<ConversationId>(row.id), trayId, version: row.version }));
}

function versionsOf(db: Database, trayId: TrayId, ids: readonly ConversationId[]) {
  return knexOf(db)("conversation").select("id", "version").where("tray_id", trayId).whereIn("id", ids).orderBy("id");
}

/** Holds conversations of whatever tray, for work on all of them. */
export async function conversationsHeld(trx: Transaction, ids: readonly ConversationId[]): Promise<HeldConversation[]> {
  const rows = await knexOf(trx)("conversation")
    .select("id", "tray_id", "version")
    .whereIn("id", ids)
    .whereNull("joined_to")
    .orderBy("id")
    .forUpdate();
  return rows.map((row) => ({
    id: trustedId<ConversationId>(row.id),
    trayId: trustedId<TrayId>(row.tray_id),
    version: row.version,
  }));
}

type Facts = {
  messages: MessageFact[];
  entries: JournalEntry[];
  replacedCategories: CategoryReplacement[];
  replacedOwners: OwnerReplacement[];
};

/** Everything that happened in these conversations and was not undone: four questions at once, however many there are. */
export async function factsOf(
  db: Database,
  ids: readonly ConversationId[],
): Promise<Map<ConversationId, ConversationFacts>> {
  const builder = knexOf(db);
  const messagesIn = builder("message")
    .select(
      "id",
      "conversation_id",
      "version",
      "sent_at",
      "received_at",
      "direction",
      "kind",
      "from_address",
      "from_name",
      "author_id",
      "failed_recipients",
      "returns_at",
      "expires_at",
    )
    .whereIn("conversation_id", ids)
    .whereRaw("delivery is distinct from 'withdrawn'")
    .orderBy("version");
  const entriesIn = builder("journal as entry")
    .select(ENTRY_COLUMNS)
    .whereIn("conversation_id", ids)
    .whereNull("undoes")
    .whereNotExists(builder("journal as undo").select(builder.raw("1")).whereRaw("undo.undoes = entry.id"))
    .orderBy("version");
  const [messages, entries, replaced, gone]: [MessageFactRow[], EntryRow[], CategoryReplacement[], OwnerReplacement[]] =
    await Promise.all([messagesIn, entriesIn, replacedCategories(db), replacedOwners(db)]);
  const facts = new Map(
    ids.map((id) => {
      const nothing: Facts = { messages: [], entries: [], replacedCategories: replaced, replacedOwners: gone };
      return [id, nothing];
    }),
  );
  for (const row of messages) facts.get(trustedId(row.conversation_id))?.messages.push(messageFactOf(row));
  for (const row of entries) facts.get(trustedId(row.conversation_id))?.entries.push(entryOf(row));
  return facts;
}

function messageFactOf(row: MessageFactRow): MessageFact {
  return {
    id: trustedId<MessageId>(row.id),
    version: row.version,
    at: at(row.sent_at),
    arrivedAt: at(row.received_at),
    direction: row.direction,
    kind: row.kind,
    from: row.from_address as EmailAddress,
    fromName: row.from_name,
    authorId: row.author_id === null ? null : trustedId<MemberId>(row.author_id),
    failedRecipients: row.failed_recipients.map((recipient) => recipient.address),
    returnsAt: atOrNull(row.returns_at),
    expiresAt: atOrNull(row.expires_at),
  };
}

/** A journal entry from its row. */
export function entryOf(row: Omit<EntryRow, "conversation_id">): JournalEntry {
  return {
    id: trustedId<EntryId>(row.id),
    version: row.version,
    at: at(row.at),
    by: row.by_member_id === null ? null : trustedId<MemberId>(row.by_member_id),
    ...(row.rule === null ? {} : { rule: row.rule }),
    effect: row.effect,
  };
}

/** The addresses from outside that wrote in some conversations. */
export async function sendersIn(db: Database, ids: readonly ConversationId[]): Promise<EmailAddress[]> {
  const rows: { from_address: EmailAddress }[] = await knexOf(db)("message")
    .distinct("from_address")
    .whereIn("conversation_id", ids)
    .where("direction", "in");
  return rows.map((row) => row.from_address);
}

/** When the newest of our messages among these Message-IDs was written; null where none is ours. */
export async function newestOfOurs(
  db: Database,
  trayId: TrayId,
  messageIds: readonly string[],
): Promise<Instant | null> {
  const row = await knexOf(db)("message")
    .max("sent_at as at")
    .where({ tray_id: trayId, direction: "out" })
    .whereIn("message_id", messageIds)
    .first();
  return atOrNull(row?.at ?? null);
}

/** The conversations of a tray in which an answer by one of these addresses was awaited, the newest first. */
export async function askedOf(
  db: Database,
  trayId: TrayId,
  addresses: readonly EmailAddress[],
  limit: number,
): Promise<ConversationId[]> {
  const found = await ask<{ id: string }>(
    db,
    /* sql */ `
    select c.id from conversation as c
    where c.tray_id = :trayId and c.joined_to is null and c.who_address = any(:addresses)
      and exists (select 1 from journal where journal.conversation_id = c.id and journal.kind = 'expected')
    order by c.last_message_at desc limit :limit`,
    { trayId, addresses: [...addresses], limit },
  );
  return found.map(({ id }) => trustedId<ConversationId>(id));
}
