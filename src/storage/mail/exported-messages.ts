import type { EmailAddress } from "../../core/kernel/email-address";
import type { ConversationId, MessageId, TrayId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { type BlobRow, wholeBlob } from "../base/blobs";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at } from "../base/rows";
import type { Recipients } from "../facts/store-message";

/** A message and whom it went between, for taking it out. */
export type MessageWithPeople = {
  readonly sentAt: Instant;
  readonly direction: "in" | "out";
  readonly subject: string;
  readonly messageId: string | null;
  readonly fromName: string;
  readonly fromAddress: EmailAddress;
  readonly recipients: Recipients;
};

const COLUMNS = [
  "sent_at",
  "direction",
  "subject",
  "message.message_id",
  "from_name",
  "from_address",
  "recipients",
] as const;

/** The messages of some conversations of a tray without their bytes, in order of time; at most `limit`. What was taken back before it went is not among them. */
export async function messagesToExport(
  db: Database,
  trayId: TrayId,
  ids: readonly ConversationId[],
  limit: number,
): Promise<(MessageWithPeople & { readonly id: MessageId })[]> {
  const rows: (Row & { id: MessageId })[] = await knexOf(db)("message")
    .select("id", ...COLUMNS)
    .where("message.tray_id", trayId)
    .whereIn("conversation_id", ids)
    .whereRaw("delivery is distinct from 'withdrawn'")
    .orderBy(["sent_at", "id"])
    .limit(limit);
  return rows.map((row) => ({ id: row.id, ...withPeople(row) }));
}

/** The next messages of a whole tray after one, in order of their ids: a page of a long walk. */
export async function rawMessagesAfter(
  db: Database,
  trayId: TrayId,
  after: MessageId | null,
  limit: number,
): Promise<(MessageWithPeople & { readonly id: MessageId; readonly raw: Uint8Array })[]> {
  const rows: (Row & BlobRow & { id: MessageId })[] = await knexOf(db)("message")
    .select("id", ...COLUMNS, "content", "runs")
    .join("blob", "blob.sha256", "message.raw_sha256")
    .where("message.tray_id", trayId)
    .whereRaw("delivery is distinct from 'withdrawn'")
    .modify((query) => void (after !== null && query.where("id", ">", after)))
    .orderBy("id")
    .limit(limit);
  return Promise.all(rows.map(async (row) => ({ id: row.id, ...withPeople(row), raw: await wholeBlob(db, row) })));
}

type Row = {
  sent_at: Date;
  direction: "in" | "out";
  subject: string;
  message_id: string | null;
  from_name: string;
  from_address: string;
  recipients: Recipients;
};

function withPeople(row: Row): MessageWithPeople {
  return {
    sentAt: at(row.sent_at),
    direction: row.direction,
    subject: row.subject,
    messageId: row.message_id,
    fromName: row.from_name,
    fromAddress: row.from_address as EmailAddress,
    recipients: row.recipients,
  };
}
