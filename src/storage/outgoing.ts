import type { EmailAddress } from "../core/kernel/email-address";
import { type ConversationId, type MessageId, type TrayId, trustedId } from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import { wholeBlob } from "./blobs";
import type { Delivery } from "./conversation-page";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { param } from "./rows";
import type { Recipients } from "./store-message";

export type OutgoingMessage = {
  readonly id: MessageId;
  readonly trayId: TrayId;
  readonly conversationId: ConversationId;
  readonly state: Delivery["state"];
  readonly from: EmailAddress;
  readonly to: readonly EmailAddress[];
  readonly raw: Uint8Array;
};

/** A message of ours with its bytes, held until the transaction ends; null when there is none of this id. */
export async function holdOutgoing(trx: Database, id: MessageId): Promise<OutgoingMessage | null> {
  const row = await knexOf(trx)("message")
    .first("id", "tray_id", "conversation_id", "delivery", "from_address", "recipients", "content", "runs")
    .join("blob", "blob.sha256", "message.raw_sha256")
    .where({ id, direction: "out" })
    .whereNotNull("delivery")
    .forUpdate("message");
  if (row === undefined) return null;
  const recipients: Recipients = row.recipients;
  return {
    id,
    trayId: trustedId<TrayId>(row.tray_id),
    conversationId: trustedId<ConversationId>(row.conversation_id),
    state: row.delivery,
    from: row.from_address,
    to: [...recipients.to, ...recipients.cc].map((mailbox) => mailbox.address),
    raw: await wholeBlob(trx, row),
  };
}

/** Keeps what became of sending a message. */
export async function setDelivery(trx: Database, id: MessageId, delivery: Delivery, at: Instant): Promise<void> {
  await knexOf(trx)("message")
    .where({ id })
    .update({ delivery: delivery.state, delivery_reason: delivery.reason, delivery_at: param(at) });
}
