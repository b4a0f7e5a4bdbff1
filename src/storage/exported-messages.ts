import type { EmailAddress } from "../core/kernel/email-address";
import type { ConversationId, MessageId, TrayId } from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import { type BlobRow, wholeBlob } from "./blobs";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { at } from "./rows";
import type { Recipients } from "./store-message";

/** A message with its bytes, for taking it out. */
export type RawWithPeople = {
  readonly raw: Uint8Array;
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
  "content",
  "runs",
];

/** The messages of some conversations of a tray with their bytes, in order of time; at most `limit`. What was taken back before it went is not among them. */
export async function rawMessagesOf(
  db: Database,
  trayId: TrayId,
  ids: readonly ConversationId[],
  limit: number,
): Promise<RawWithPeople[]> {
  const rows = await knexOf(db)("message")
    .select(COLUMNS)
    .join("blob", "blob.sha256", "message.raw_sha256")
    .where("message.tray_id", trayId)
    .whereIn("conversation_id", ids)
    .whereRaw("delivery is distinct from 'withdrawn'")
    .orderBy(["sent_at", "id"])
    .limit(limit);
  return Promise.all(rows.map((row) => withBytes(db, row)));
}

/** The next messages of a whole tray after one, in order of their ids: a page of a long walk. */
export async function rawMessagesAfter(
  db: Database,
  trayId: TrayId,
  after: MessageId | null,
  limit: number,
): Promise<(RawWithPeople & { readonly id: MessageId })[]> {
  const rows: (Row & { id: MessageId })[] = await knexOf(db)("message")
    .select(["id", ...COLUMNS])
    .join("blob", "blob.sha256", "message.raw_sha256")
    .where("message.tray_id", trayId)
    .whereRaw("delivery is distinct from 'withdrawn'")
    .modify((query) => void (after !== null && query.where("id", ">", after)))
    .orderBy("id")
    .limit(limit);
  return Promise.all(rows.map(async (row) => ({ id: row.id, ...(await withBytes(db, row)) })));
}

type Row = BlobRow & {
  sent_at: Date;
  direction: "in" | "out";
  subject: string;
  message_id: string | null;
  from_name: string;
  from_address: string;
  recipients: Recipients;
};

async function withBytes(db: Database, row: Row): Promise<RawWithPeople> {
  return {
    raw: await wholeBlob(db, row),
    sentAt: at(row.sent_at),
    direction: row.direction,
    subject: row.subject,
    messageId: row.message_id,
    fromName: row.from_name,
    fromAddress: row.from_address as EmailAddress,
    recipients: row.recipients,
  };
}
