import type { EmailAddress, Mailbox } from "../../core/kernel/email-address";
import { type ConversationId, type MessageId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { RecipientReport } from "../../core/message/mail-message";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";
import type { Recipients } from "./store-message";

const IS_PART = /* sql */ `
  exists (select 1 from message where message.conversation_id = c.id and (message.from_address = :person
    or message.recipients -> 'to' @> cast(:box as jsonb) or message.recipients -> 'cc' @> cast(:box as jsonb)))`;

const asked = (person: EmailAddress) => ({ person, box: JSON.stringify([{ address: person }]) });

/** Who has written in some conversations, or was written to in them. */
export async function peopleIn(
  db: Database,
  ids: readonly ConversationId[],
): Promise<Map<ConversationId, Set<EmailAddress>>> {
  const people = new Map(ids.map((id) => [id, new Set<EmailAddress>()]));
  const rows: { conversation_id: string; from_address: EmailAddress; recipients: Recipients }[] = await knexOf(db)(
    "message",
  )
    .select("conversation_id", "from_address", "recipients")
    .whereIn("conversation_id", ids);
  for (const { conversation_id, from_address, recipients } of rows) {
    const some = people.get(trustedId(conversation_id));
    for (const address of [from_address, ...recipients.to, ...recipients.cc].map(addressIn)) some?.add(address);
  }
  return people;
}

const addressIn = (one: EmailAddress | Mailbox) => (typeof one === "string" ? one : one.address);

/**
 * The conversation that an answer without references belongs to: of the same subject, or filed to a record that its
 * subject names, with this person in it, and not long ago; the newest one. Null when there is none.
 */
export async function conversationOfSubject(
  db: Database,
  trayId: TrayId,
  subject: { readonly base: string; readonly recordCodes: readonly string[] },
  person: EmailAddress,
  within: { readonly since: Instant; readonly until: Instant },
): Promise<ConversationId | null> {
  const found = await ask<{ id: string }>(
    db,
    /* sql */ `
    select c.id from conversation as c
    where c.tray_id = :trayId and c.joined_to is null
      and c.last_message_at > :since and c.last_message_at < :until
      and ((c.base_subject = :base and c.base_subject <> '')
        or c.record_ids && (select array_agg(record.id) from record where record.code = any(:codes)))
      and ${IS_PART}
    order by c.last_message_at desc limit 1`,
    {
      trayId,
      since: param(within.since) as Date,
      until: param(within.until) as Date,
      base: subject.base,
      codes: [...subject.recordCodes],
      ...asked(person),
    },
  );
  const row = found[0];
  return row === undefined ? null : trustedId<ConversationId>(row.id);
}

/** A message of ours that a report is about. */
export type ReportedMessage = { readonly messageId: MessageId; readonly conversationId: ConversationId };

/** Our message that a report is about: by its Message-ID, else the newest one that went to a recipient it names. */
export async function reportedMessage(
  db: Database,
  trayId: TrayId,
  ids: readonly string[],
  recipients: readonly EmailAddress[],
  since: Instant,
): Promise<ReportedMessage | null> {
  const found = await ask<{ id: string; conversation_id: string }>(
    db,
    /* sql */ `
    select id, conversation_id from (
      select id, conversation_id, sent_at, 0 as way from message
      where tray_id = :trayId and direction = 'out' and message_id = any(:ids)
      union all
      select message.id, message.conversation_id, recipient.sent_at, 1 from outgoing_recipient as recipient
      join message on message.id = recipient.message_id
      where recipient.tray_id = :trayId and recipient.address = any(:recipients) and recipient.sent_at > :since
    ) as candidate order by way, sent_at desc limit 1`,
    { trayId, ids: [...ids], recipients: [...recipients], since: param(since) as Date },
  );
  const row = found[0];
  if (row === undefined) return null;
  return { messageId: trustedId<MessageId>(row.id), conversationId: trustedId<ConversationId>(row.conversation_id) };
}

/** Remembers to whom a message goes, so that reports find it. */
export async function saveRecipients(
  trx: Transaction,
  message: { readonly id: MessageId; readonly trayId: TrayId; readonly sentAt: Instant },
  addresses: readonly EmailAddress[],
): Promise<void> {
  const rows = [...new Set(addresses)].map((address) => ({
    message_id: message.id,
    tray_id: message.trayId,
    address,
    sent_at: param(message.sentAt),
    state: "given",
    detail: "",
  }));
  if (rows.length > 0) await knexOf(trx)("outgoing_recipient").insert(rows).onConflict().ignore();
}

/** Notes what a mail system reports of the recipients of a message. What failed stays failed, whatever is reported later. */
export async function noteReports(
  trx: Transaction,
  id: MessageId,
  reports: readonly RecipientReport[],
  at: Instant,
): Promise<void> {
  for (const { address, state, detail } of reports) {
    // A report may name where the mail was sent on to; of a single recipient it can only be that one.
    await knexOf(trx).raw(
      /* sql */ `
      update outgoing_recipient set state = :state, detail = :detail, reported_at = :at
      where message_id = :id and state <> 'failed' and (address = :address
        or (select count(*) from outgoing_recipient as other where other.message_id = :id) = 1)`,
      { id, address, state, detail: detail.slice(0, 500), at: param(at) as Date },
    );
  }
}

/** Addresses from which mail came under a name before, a few. */
export async function addressesOfName(db: Database, trayId: TrayId, name: string): Promise<EmailAddress[]> {
  const found = await ask<{ from_address: string }>(
    db,
    /* sql */ `
    select distinct from_address from (
      select from_address from message where tray_id = :trayId and from_name = :name and direction = 'in' limit 200
    ) as seen limit 20`,
    { trayId, name },
  );
  return found.map((row) => row.from_address as EmailAddress);
}

/** Remembers one more way on which a message reached the tray. */
export async function saveRoutes(
  trx: Transaction,
  trayId: TrayId,
  dedupeKey: Uint8Array,
  routes: readonly { readonly address: EmailAddress; readonly sender: string }[],
  listId: string | null,
  at: Instant,
): Promise<void> {
  for (const { address, sender } of routes) {
    await knexOf(trx).raw(
      /* sql */ `
      insert into arrival_route (message_id, address, sender, list_id, at)
      select id, :address, :sender, :listId, :at from message where tray_id = :trayId and dedupe_key = :dedupeKey
      on conflict do nothing`,
      { address, sender, listId, at: param(at) as Date, trayId, dedupeKey: Buffer.from(dedupeKey) },
    );
  }
}
