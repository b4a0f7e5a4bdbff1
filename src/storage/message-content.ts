import type { EmailAddress } from "../core/kernel/email-address";
import type { MessageId } from "../core/kernel/ids";
import type { Attachment } from "../core/message/mail-message";
import { wholeBlob } from "./blobs";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import type { TrayGrant } from "./trays";

export type RawMessage = {
  readonly raw: Uint8Array;
  readonly attachments: readonly Attachment[];
  readonly fromAddress: EmailAddress;
};

/** The bytes of a message of the tray as they came, with what is known of its parts; null when the tray has none of this id. */
export async function rawMessage(db: Database, grant: TrayGrant, id: MessageId): Promise<RawMessage | null> {
  const row = await knexOf(db)("message")
    .first("content", "runs", "attachments", "from_address")
    .join("blob", "blob.sha256", "message.raw_sha256")
    .where({ id, tray_id: grant.tray.id });
  return row === undefined
    ? null
    : { raw: await wholeBlob(db, row), attachments: row.attachments, fromAddress: row.from_address as EmailAddress };
}
