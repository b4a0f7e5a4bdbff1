import type { EmailAddress } from "../../core/kernel/email-address";
import { type ConversationId, type MessageId, trustedId } from "../../core/kernel/ids";
import type { Attachment } from "../../core/message/mail-message";
import type { SenderTrust } from "../../core/message/sender-trust";
import { listIdIn, type WaysToLeave } from "../../core/message/ways-to-leave";
import type { TrayGrant } from "../access/trays";
import { wholeBlob } from "../base/blobs";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";

export type RawMessage = {
  readonly raw: Uint8Array;
  readonly attachments: readonly Attachment[];
  readonly fromAddress: EmailAddress;
  /** Whether it was proved that it comes from that address. */
  readonly isVerified: boolean;
};

/** What leaving the list of a message has to know. */
export type ListMessage = {
  readonly conversationId: ConversationId;
  readonly ways: WaysToLeave;
  readonly list: string | null;
  readonly sender: EmailAddress;
  readonly isImitation: boolean;
};

/** A message of the tray whose list can be left; null when the tray has none of this id, or none can be left. */
export async function listMessage(db: Database, grant: TrayGrant, id: MessageId): Promise<ListMessage | null> {
  const row:
    | {
        conversation_id: string;
        unsubscribe: WaysToLeave;
        list_id: string | null;
        from_address: string;
        trust: SenderTrust | null;
      }
    | undefined = await knexOf(db)("message")
    .first("conversation_id", "unsubscribe", "list_id", "from_address", "trust")
    .where({ id, tray_id: grant.tray.id })
    .whereNotNull("unsubscribe");
  if (row === undefined) return null;
  return {
    conversationId: trustedId<ConversationId>(row.conversation_id),
    ways: row.unsubscribe,
    list: row.list_id === null ? null : listIdIn(row.list_id),
    sender: row.from_address as EmailAddress,
    isImitation: row.trust?.verdict === "imitation",
  };
}

/** The text of a message of the tray: its own words, and what it quotes; null when the tray has none of this id. */
export async function messageText(
  db: Database,
  grant: TrayGrant,
  id: MessageId,
): Promise<{ readonly own: string; readonly rest: string } | null> {
  const row = await knexOf(db)("message")
    .first("own_text", "rest_text")
    .join("message_text", "message_text.message_id", "message.id")
    .where({ id, "message.tray_id": grant.tray.id });
  return row === undefined ? null : { own: row.own_text, rest: row.rest_text };
}

/** The bytes of a message of the tray as they came, with what is known of its parts; null when the tray has none of this id. */
export async function rawMessage(db: Database, grant: TrayGrant, id: MessageId): Promise<RawMessage | null> {
  const row = await knexOf(db)("message")
    .first("content", "runs", "attachments", "from_address", "trust")
    .join("blob", "blob.sha256", "message.raw_sha256")
    .where({ id, tray_id: grant.tray.id });
  return row === undefined
    ? null
    : {
        raw: await wholeBlob(db, row),
        attachments: row.attachments,
        fromAddress: row.from_address as EmailAddress,
        isVerified: row.trust?.verdict === "verified",
      };
}

/** The address that a message is from; null when the tray has no such message. */
export async function senderOf(db: Database, grant: TrayGrant, id: MessageId): Promise<EmailAddress | null> {
  const row = await knexOf(db)("message").first("from_address").where({ id, tray_id: grant.tray.id });
  return row === undefined ? null : (row.from_address as EmailAddress);
}
