import { type MemberId, type RecordId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Filing } from "../../core/records/filing-means";
import type { Query } from "../../core/search/query";
import { blobBySha256, saveBlob } from "../base/blobs";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";
import { tsqueryText } from "../lists/search-messages";
import { deleteUnusedBlobs } from "./bins";

/** A file that somebody put on a record herself. */
export type RecordDocument = {
  readonly id: string;
  readonly recordId: RecordId;
  readonly fileName: string;
  readonly contentType: string;
  readonly size: number;
  readonly sha256: string;
  readonly at: Instant;
  /** Whose it is, in words. */
  readonly who: string;
  readonly by: MemberId | null;
  /** How it was filed with the message that it once came with; null for what came with none. */
  readonly filing: Pick<Filing, "fields" | "earlier"> | null;
};

type Row = {
  id: string;
  record_id: string;
  file_name: string;
  content_type: string;
  size: number;
  sha256: Buffer;
  at: Date;
  who: string;
  by_member_id: string | null;
  filing: RecordDocument["filing"];
};

// Its words are for looking through alone.
const COLUMNS = [
  "id",
  "record_id",
  "file_name",
  "content_type",
  "size",
  "sha256",
  "at",
  "who",
  "by_member_id",
  "filing",
];

const documentOf = (row: Row): RecordDocument => ({
  id: row.id,
  fileName: row.file_name,
  contentType: row.content_type,
  size: row.size,
  who: row.who,
  filing: row.filing,
  recordId: trustedId<RecordId>(row.record_id),
  sha256: row.sha256.toString("hex"),
  at: at(row.at),
  by: row.by_member_id === null ? null : trustedId<MemberId>(row.by_member_id),
});

/** Puts a file on a record; the same bytes are stored once. Null when it has it already, under that name. */
export async function addRecordDocument(
  trx: Transaction,
  document: Omit<RecordDocument, "size" | "sha256">,
  content: Uint8Array,
): Promise<RecordDocument | null> {
  const builder = knexOf(trx);
  const sha256 = await saveBlob(trx, content);
  const known = { record_id: document.recordId, file_name: document.fileName, sha256 };
  if ((await builder("record_document").first("id").where(known)) !== undefined) return null;
  await builder("record_document").insert({
    ...known,
    id: document.id,
    content_type: document.contentType,
    size: content.byteLength,
    at: param(document.at),
    who: document.who,
    by_member_id: document.by,
    filing: document.filing === null ? null : JSON.stringify(document.filing),
  });
  return { ...document, size: content.byteLength, sha256: sha256.toString("hex") };
}

/** Which of the files that were put on a record have the words of a query, as far as they have been read. */
export async function recordDocumentsWith(db: Database, recordId: RecordId, query: Query): Promise<Set<string>> {
  const rows: { id: string }[] = await knexOf(db)("record_document")
    .select("id")
    .where({ record_id: recordId })
    .whereRaw("vector @@ to_tsquery('simple', ?)", [tsqueryText(query)]);
  return new Set(rows.map(({ id }) => id));
}

/** The files that were put on a record, the newest first. */
export async function recordDocumentsOf(db: Database, recordId: RecordId): Promise<RecordDocument[]> {
  const rows: Row[] = await knexOf(db)("record_document")
    .select(COLUMNS)
    .where({ record_id: recordId })
    .orderBy([{ column: "at", order: "desc" }, "id"]);
  return rows.map(documentOf);
}

/** A file on a record with its bytes; null when the record has none of this id. */
export async function recordDocument(
  db: Database,
  recordId: RecordId,
  id: string,
): Promise<{ readonly document: RecordDocument; readonly content: Uint8Array } | null> {
  const row: Row | undefined = await knexOf(db)("record_document").first(COLUMNS).where({ id, record_id: recordId });
  if (row === undefined) return null;
  const content = await blobBySha256(db, row.sha256.toString("hex"));
  return content === null ? null : { document: documentOf(row), content };
}

/** Takes a file off a record, and its bytes where nothing else needs them. False when there was none. */
export async function removeRecordDocument(
  trx: Transaction,
  recordId: RecordId,
  id: string,
  now: Instant,
): Promise<boolean> {
  const gone: { sha256: Buffer }[] = await knexOf(trx)("record_document")
    .where({ id, record_id: recordId })
    .delete()
    .returning("sha256");
  await deleteUnusedBlobs(
    trx,
    gone.map(({ sha256 }) => sha256),
    now,
  );
  return gone.length > 0;
}
