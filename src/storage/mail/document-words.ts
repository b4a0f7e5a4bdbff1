import { type MessageId, trustedId } from "../../core/kernel/ids";
import type { Attachment } from "../../core/message/mail-message";
import { type BlobRow, wholeBlob } from "../base/blobs";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";

/** A message whose attachments have not been read yet. */
export type UnreadCarrier = {
  readonly id: MessageId;
  readonly attachments: readonly Attachment[];
  readonly raw: () => Promise<Uint8Array>;
};

/** Messages with attachments that have not been read yet, the newest first. */
export async function unreadCarriers(db: Database, limit: number): Promise<UnreadCarrier[]> {
  const rows: (BlobRow & { id: string; attachments: Attachment[] })[] = await knexOf(db)("message")
    .select("id", "attachments", "content", "runs")
    .join("blob", "blob.sha256", "message.raw_sha256")
    .where({ documents_read: false })
    .whereRaw("attachments <> '[]'")
    .orderBy("id", "desc")
    .limit(limit);
  return rows.map(({ id, attachments, content, runs }) => ({
    id: trustedId<MessageId>(id),
    attachments,
    raw: () => wholeBlob(db, { content, runs }),
  }));
}

/** The words of an attachment, as a tsvector in its text form. */
export type AttachmentWords = { readonly index: number; readonly vector: string };

// PostgreSQL 12.11: a tsvector has less than 1 MiB, which is never more than its text form has.
const MOST_BYTES_OF_WORDS = 1_048_576;

/** Keeps the words of the attachments of a message: it is found by them as well, unless they would be too many for one. */
export async function saveAttachmentWords(
  trx: Transaction,
  id: MessageId,
  words: readonly AttachmentWords[],
  all: string,
): Promise<void> {
  const builder = knexOf(trx);
  // Whoever was faster has written the same.
  if ((await builder("message").where({ id, documents_read: false }).update({ documents_read: true })) === 0) return;
  for (const { index, vector } of words)
    await builder.raw(
      /* sql */ `insert into attachment_words (message_id, attachment, vector) values (:id, :index, cast(:vector as tsvector))
      on conflict (message_id, attachment) do update set vector = excluded.vector`,
      { id, index, vector },
    );
  await builder.raw(
    /* sql */ `update message_search set vector = vector || cast(:all as tsvector)
    where message_id = :id and octet_length(vector::text) + octet_length(:all) < ${MOST_BYTES_OF_WORDS}`,
    { id, all },
  );
}

/** A file on a record that has not been read yet. */
export type UnreadDocument = {
  readonly id: string;
  readonly name: string;
  readonly contentType: string;
  readonly content: () => Promise<Uint8Array>;
};

/** Files on records that have not been read yet, the newest first. */
export async function unreadDocuments(db: Database, limit: number): Promise<UnreadDocument[]> {
  const rows: (BlobRow & { id: string; file_name: string; content_type: string })[] = await knexOf(db)(
    "record_document",
  )
    .select("id", "file_name", "content_type", "blob.content", "runs")
    .join("blob", "blob.sha256", "record_document.sha256")
    .whereNull("vector")
    .orderBy("id", "desc")
    .limit(limit);
  return rows.map(({ id, file_name, content_type, content, runs }) => ({
    id,
    name: file_name,
    contentType: content_type,
    content: () => wholeBlob(db, { content, runs }),
  }));
}

/** Keeps the words of a file on a record. */
export async function saveDocumentWords(trx: Transaction, id: string, vector: string): Promise<void> {
  await knexOf(trx).raw("update record_document set vector = cast(:vector as tsvector) where id = :id", { id, vector });
}
