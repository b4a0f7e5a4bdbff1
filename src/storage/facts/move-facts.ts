import { type ConversationId, type EntryId, type MessageId, type TrayId, trustedId } from "../../core/kernel/ids";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { lettersChanged } from "./filing-due";

/** A message or an entry and its place in the order of its conversation. */
export type Place<Id> = { readonly id: Id; readonly version: number };

export type Places = {
  readonly messages: readonly Place<MessageId>[];
  readonly entries: readonly Place<EntryId>[];
};

/** Everything that is in a conversation, in order. */
export async function placesIn(trx: Transaction, id: ConversationId): Promise<Places> {
  const ordered = (table: string) =>
    knexOf(trx)(table).select("id", "version").where({ conversation_id: id }).orderBy("version");
  const [messages, entries] = [await ordered("message"), await ordered("journal")];
  return {
    messages: messages.map(({ id: messageId, version }) => ({ id: trustedId<MessageId>(messageId), version })),
    entries: entries.map(({ id: entryId, version }) => ({ id: trustedId<EntryId>(entryId), version })),
  };
}

/**
 * Moves messages and entries that are in one conversation to these places in another of the tray; what is no longer
 * there stays where it is. Search and thread ids go with them.
 */
export async function moveFacts(
  trx: Transaction,
  trayId: TrayId,
  from: ConversationId,
  to: ConversationId,
  places: Places,
): Promise<void> {
  const builder = knexOf(trx);
  for (const [table, moved] of [
    ["message", places.messages],
    ["journal", places.entries],
  ] as const) {
    await builder.raw(
      /* sql */ `
      update ${table} as fact set conversation_id = :to, version = place.version
      from jsonb_to_recordset(cast(:places as jsonb)) as place(id uuid, version int)
      where fact.id = place.id and fact.conversation_id = :from`,
      { from, to, places: JSON.stringify(moved) },
    );
  }
  const ids = places.messages.map(({ id }) => id);
  await builder("message_search").whereIn("message_id", ids).update({ conversation_id: to });
  await builder.raw(
    /* sql */ `
    update thread_link set conversation_id = :to where tray_id = :trayId and conversation_id = :from and message_id in (
      select unnest(array[message_id] || in_reply_to || reference_ids) from message where id = any(:ids))`,
    { from, to, trayId, ids },
  );
}

// What a conversation has of its messages, counted from them.
const listedFrom = (which: string) => /* sql */ `(
      select conversation.id, count(message.id)::int as count,
        coalesce(max(message.received_at), conversation.last_message_at) as last_at,
        max(message.received_at) filter (where direction = 'in') as last_in_at,
        (select left(regexp_replace(coalesce(nullif(own_text, ''), rest_text), '\\s+', ' ', 'g'), 160)
         from message as newest join message_text on message_text.message_id = newest.id
         where newest.conversation_id = conversation.id and delivery is distinct from 'withdrawn' order by newest.version desc limit 1) as newest,
        (select coalesce(nullif(from_name, ''), from_address) from message as theirs
         where theirs.conversation_id = conversation.id and direction = 'in' and kind in ('person', 'calendar')
         order by version desc limit 1) as who,
        (select from_address from message as theirs
         where theirs.conversation_id = conversation.id and direction = 'in' and kind in ('person', 'calendar')
         order by version desc limit 1) as who_address,
        (select lower(trim(coalesce(substring(list_id from '<([^<>]+)>'), list_id))) from message as through where through.conversation_id = conversation.id and list_id is not null
         order by version desc limit 1) as list_id,
        coalesce(bool_or(message.attachments @> '[{"inline": false}]'), false) as has_attachment,
        (select subject from message as first where first.conversation_id = conversation.id order by sent_at limit 1) as subject
      from conversation left join message on message.conversation_id = conversation.id
        and message.delivery is distinct from 'withdrawn'
      where ${which} group by conversation.id
    )`;

/** How many conversations say otherwise than their messages how many these are, when the last came, and whether files are among them. */
export async function totalsAstray(db: Database): Promise<number> {
  const found = await ask<{ count: number }>(
    db,
    /* sql */ `
    select count(*)::int as count
    from conversation join ${listedFrom("joined_to is null")} as listed on listed.id = conversation.id
    where (message_count, last_message_at, conversation.last_in_at, conversation.has_attachment)
      is distinct from (listed.count, listed.last_at, listed.last_in_at, listed.has_attachment)`,
  );
  return found[0]?.count ?? 0;
}

/** Counts and newest words of conversations, again from their messages; one without any keeps its subject. */
export async function relist(trx: Transaction, ids: readonly ConversationId[]): Promise<void> {
  await knexOf(trx).raw(
    /* sql */ `
    update conversation set
      message_count = listed.count, last_message_at = listed.last_at, last_in_at = listed.last_in_at,
      newest_text = coalesce(listed.newest, conversation.newest_text), who = coalesce(listed.who, conversation.who),
      who_address = coalesce(listed.who_address, conversation.who_address), has_attachment = listed.has_attachment,
      subject = coalesce(listed.subject, conversation.subject), list_id = listed.list_id
    from ${listedFrom("conversation.id = any(:ids)")} as listed
    where conversation.id = listed.id`,
    { ids: [...ids] },
  );
  await lettersChanged(trx, ids);
}

/** Takes a conversation that has become a part of another out of every list; its address leads to the other one. */
export async function closeJoined(trx: Transaction, id: ConversationId, to: ConversationId): Promise<void> {
  await knexOf(trx)("conversation").where({ id }).update({
    joined_to: to,
    standing: "joined",
    category_ids: [],
    record_ids: [],
    owner_id: null,
    follower_ids: [],
    marks: "[]",
  });
}

/** Makes a conversation that had become a part of another one of its own again. */
export async function reopenJoined(trx: Transaction, id: ConversationId): Promise<void> {
  await knexOf(trx)("conversation").where({ id }).update({ joined_to: null });
}

/** The conversation that this one became a part of; null when it stands by itself or is not in the tray. */
export async function joinedTo(db: Database, trayId: TrayId, id: ConversationId): Promise<ConversationId | null> {
  const row = await knexOf(db)("conversation").first("joined_to").where({ id, tray_id: trayId });
  return row?.joined_to ? trustedId<ConversationId>(row.joined_to) : null;
}

/** Starts an empty conversation that messages are about to be moved to. */
export async function startEmpty(
  trx: Transaction,
  trayId: TrayId,
  id: ConversationId,
  subject: { readonly subject: string; readonly baseSubject: string },
  at: Date,
): Promise<void> {
  await knexOf(trx)("conversation").insert({
    id,
    tray_id: trayId,
    created_at: at,
    version: 0,
    message_count: 0,
    last_message_at: at,
    subject: subject.subject,
    base_subject: subject.baseSubject,
    who: "",
    newest_text: "",
    standing: "to-sort",
    standing_since: at,
    standing_reason: "{}",
    turn: "nobody",
    category_ids: [],
    record_ids: [],
    marks: "[]",
  });
}
