import type { EmailAddress } from "../../core/kernel/email-address";
import { type ConversationId, type MemberId, type MessageId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { type Kept, readStoredWording, storedWording } from "../../texts/stored";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import { wholeBlob } from "../base/blobs";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, atOrNull, param } from "../base/rows";
import type { Delivery } from "../conversation/conversation-page";
import type { Recipients } from "../facts/store-message";

export type OutgoingMessage = {
  readonly id: MessageId;
  readonly trayId: TrayId;
  readonly conversationId: ConversationId;
  readonly state: Delivery["state"];
  readonly from: EmailAddress;
  /** Whether the tray sends it by itself. */
  readonly isAutomatic: boolean;
  readonly to: readonly EmailAddress[];
  readonly raw: Uint8Array;
  /** Whether the mail systems on its way are asked to report (RFC 3461). */
  readonly asksReport: boolean;
};

const everybodyIn = ({ to, cc, bcc = [] }: Recipients) => [...to, ...cc, ...bcc];

/** A message of ours with its bytes, held until the transaction ends; null when there is none of this id. */
export async function lockOutgoing(trx: Transaction, id: MessageId): Promise<OutgoingMessage | null> {
  const row = await knexOf(trx)("message")
    .first(
      "id",
      "tray_id",
      "conversation_id",
      "delivery",
      "from_address",
      "recipients",
      "content",
      "runs",
      "asks_report",
      "kind",
    )
    .join("blob", "blob.sha256", "message.raw_sha256")
    .where({ id, direction: "out" })
    .whereNotNull("delivery")
    .forUpdate("message");
  if (row === undefined) return null;
  return {
    id,
    trayId: trustedId<TrayId>(row.tray_id),
    conversationId: trustedId<ConversationId>(row.conversation_id),
    state: row.delivery,
    from: row.from_address,
    isAutomatic: row.kind === "automatic",
    to: everybodyIn(row.recipients).map(({ address }) => address),
    raw: await wholeBlob(trx, row),
    asksReport: row.asks_report,
  };
}

/** Keeps what became of sending a message. */
export async function setDelivery(
  trx: Transaction,
  id: MessageId,
  delivery: Pick<Delivery, "state" | "reason">,
  at: Instant,
): Promise<void> {
  await knexOf(trx)("message")
    .where({ id })
    .update({
      delivery: delivery.state,
      delivery_reason: delivery.reason === null ? null : storedWording(delivery.reason),
      delivery_at: param(at),
    });
}

/** Lets one sender at a time look how much went out lately, until its transaction ends: two that look at once both see room. */
export async function lockSendingRate(trx: Transaction): Promise<void> {
  await knexOf(trx).raw("select pg_advisory_xact_lock(hashtextextended('pace of sending', 0))");
}

/** How many messages were handed over since a moment, of all trays; of one domain, or of all (null). */
export async function handedOverSince(db: Database, domain: string | null, since: Instant): Promise<number> {
  const found = await ask<{ count: number }>(
    db,
    /* sql */ `
    select count(*)::int as count from message where delivery in ('going', 'sent') and delivery_at > :since
      and (cast(:domain as text) is null or exists (select 1 from outgoing_recipient as recipient
        where recipient.message_id = message.id and split_part(recipient.address, '@', 2) = :domain))`,
    { since: param(since) as Date, domain },
  );
  return found[0]?.count ?? 0;
}

/** Takes the words of a message that never went out of the search. */
export async function forgetWords(trx: Transaction, id: MessageId): Promise<void> {
  await knexOf(trx)("message_search").where({ message_id: id }).delete();
}

/** A message of ours on its way, or stuck. */
export type OutgoingRow = {
  readonly id: MessageId;
  readonly conversationId: ConversationId;
  readonly subject: string;
  readonly to: readonly EmailAddress[];
  readonly state: Delivery["state"];
  readonly reason: Kept | null;
  readonly at: Instant;
  readonly leavesAt: Instant | null;
  readonly authorId: MemberId | null;
};

/** What a tray has to send: what waits, goes or failed, newest first, and below it what went lately. */
export async function outgoingOf(db: Database, grant: TrayGrant, limit: number): Promise<OutgoingRow[]> {
  const columns = ["id", "conversation_id", "subject", "recipients", "delivery", "delivery_reason", "received_at"];
  const rows = await knexOf(db)("message")
    .select(...columns, "leaves_at", "author_id")
    .where({ tray_id: grant.tray.id, direction: "out" })
    .whereIn("delivery", ["waiting", "going", "failed", "sent"])
    .orderByRaw("delivery = 'sent', received_at desc")
    .limit(limit);
  return rows.map((row) => ({
    id: trustedId<MessageId>(row.id),
    conversationId: trustedId<ConversationId>(row.conversation_id),
    subject: row.subject,
    to: everybodyIn(row.recipients).map(({ address }) => address),
    state: row.delivery,
    reason: row.delivery_reason === null ? null : readStoredWording(row.delivery_reason),
    at: at(row.received_at),
    leavesAt: atOrNull(row.leaves_at),
    authorId: row.author_id === null ? null : trustedId<MemberId>(row.author_id),
  }));
}

/** Messages that a process left behind when it was killed: being handed over, or never tried, since before a moment. */
export async function strandedOutgoing(
  db: Database,
  before: Instant,
  limit: number,
): Promise<{ readonly id: MessageId; readonly state: "going" | "waiting" }[]> {
  const rows = await knexOf(db)("message")
    .select("id", "delivery")
    .where({ direction: "out" })
    .where((either) =>
      either
        .where((going) => going.where("delivery", "going").where("delivery_at", "<", param(before)))
        .orWhere((waiting) =>
          waiting.where("delivery", "waiting").whereNull("delivery_reason").where("leaves_at", "<", param(before)),
        ),
    )
    .limit(limit);
  return rows.map((row) => ({ id: trustedId<MessageId>(row.id), state: row.delivery }));
}
