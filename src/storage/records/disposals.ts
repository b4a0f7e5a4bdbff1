import { type ConversationId, type RecordId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";
import { repointPlaces } from "../categories/category-uses";
import type { HeldConversation } from "../facts/conversation-facts";
import { learn } from "../facts/filing-lessons";
import { deleteConversations, deleteUnusedBlobs } from "./bins";
import { dropZipExportsByWords } from "./zip-exports";

/** A conversation on a record that is to go, or stays as something else needs it. */
type NamedConversation = {
  readonly id: ConversationId;
  readonly subject: string;
  readonly who: string;
  readonly newestAt: Instant;
  readonly messages: number;
  readonly trayId: TrayId;
  /** A version that a change since would leave behind. */
  readonly version: number;
};

/** What the disposal of a record comes to. */
export type Named = {
  readonly goes: readonly NamedConversation[];
  /** On another record as well, or with a part that is: taken off this one, and kept. */
  readonly elsewhere: readonly NamedConversation[];
  /** Conversations on it that are in an open standing; while there is one, nothing goes. */
  readonly open: number;
  readonly messages: number;
  readonly documents: number;
  /** Of the messages as they came and the documents that were put there. */
  readonly bytes: number;
  /** SHA-256, in hexadecimal digits, of the lines of what goes: an id and the SHA-256 of its bytes, in order of id. */
  readonly digest: string;
};

type Row = {
  id: string;
  subject: string;
  who: string;
  last_message_at: Date;
  message_count: number;
  tray_id: string;
  version: number;
  is_open: boolean;
  is_elsewhere: boolean;
};

/** The messages of conversations (`:ids`) as a disposal counts them. */
export const GONE_MESSAGES = /* sql */ `
  select message.id, conversation_id, encode(raw_sha256, 'hex') as sha256, blob.size,
    (select count(*) from jsonb_array_elements(attachments) as one where not (one->>'inline')::boolean) as carried
  from message join blob on blob.sha256 = message.raw_sha256 where conversation_id = any(:ids)`;

/** What would go with a record now, over all trays. */
export async function namedForDisposal(db: Database, recordId: RecordId): Promise<Named> {
  const found = await ask<Row>(
    db,
    /* sql */ `
    select c.id, c.subject, c.who, c.last_message_at, c.message_count, c.tray_id, c.version,
      c.standing in ('to-sort', 'our-move', 'waiting', 'resting') as is_open,
      cardinality(c.record_ids) > 1 or exists (select 1 from filed_part
        where conversation_id = c.id and record_id <> :recordId) as is_elsewhere
    from conversation as c where c.record_ids @> array[cast(:recordId as uuid)] and c.joined_to is null
    order by c.last_message_at, c.id`,
    { recordId },
  );
  const goes = found.filter(({ is_elsewhere }) => !is_elsewhere);
  const sums = await ask<{ messages: number; carried: number; put: number; bytes: string; digest: string }>(
    db,
    /* sql */ `
    with gone as (${GONE_MESSAGES}
    ), put as (
      select id, encode(sha256, 'hex') as sha256, size from record_document where record_id = :recordId
    ), lines as (select id, sha256 from gone union all select id, sha256 from put)
    select (select count(*)::int from gone) as messages, (select coalesce(sum(carried), 0)::int from gone) as carried,
      (select count(*)::int from put) as put,
      (select coalesce(sum(size), 0) from gone) + (select coalesce(sum(size), 0) from put) as bytes,
      encode(sha256(convert_to(coalesce((select string_agg(id || ' ' || sha256, E'\\n' order by id) from lines), ''),
        'utf8')), 'hex') as digest`,
    { ids: goes.map(({ id }) => id), recordId },
  );
  const [sum] = sums;
  if (sum === undefined) throw new Error("counting gave no row");
  const namedOf = (row: Row): NamedConversation => ({
    id: trustedId<ConversationId>(row.id),
    subject: row.subject,
    who: row.who,
    trayId: trustedId<TrayId>(row.tray_id),
    newestAt: at(row.last_message_at),
    messages: row.message_count,
    version: row.version,
  });
  return {
    goes: goes.map(namedOf),
    elsewhere: found.filter(({ is_elsewhere }) => is_elsewhere).map(namedOf),
    open: found.filter(({ is_open }) => is_open).length,
    messages: sum.messages,
    documents: sum.carried + sum.put,
    bytes: Number(sum.bytes),
    digest: sum.digest,
  };
}

/** What somebody was shown, or the tray announced (`byName` null), of a disposal. */
export type Preview = {
  readonly id: string;
  readonly at: Instant;
  readonly by: string | null;
  readonly digest: string;
  readonly elsewhere: number;
};

/** Keeps what was shown of a disposal, in place of what was shown before. */
export async function savePreview(
  trx: Transaction,
  recordId: RecordId,
  { id, at: when, by }: Pick<Preview, "id" | "at" | "by">,
  named: Named,
): Promise<void> {
  await knexOf(trx)("disposal_preview")
    .insert({
      id,
      record_id: recordId,
      at: param(when),
      by_member_id: by,
      named: JSON.stringify({ digest: named.digest, elsewhere: named.elsewhere.length }),
    })
    .onConflict("record_id")
    .merge();
}

type PreviewRow = {
  id: string;
  record_id: string;
  at: Date;
  by_member_id: string | null;
  named: { digest: string; elsewhere: number };
};

/** What was last shown of the disposals of records. */
export async function previewsOf(db: Database, ids: readonly RecordId[]): Promise<Map<RecordId, Preview>> {
  const rows: PreviewRow[] = await knexOf(db)("disposal_preview").whereIn("record_id", ids);
  return new Map(
    rows.map(({ id, record_id, at: when, by_member_id, named }) => [
      trustedId<RecordId>(record_id),
      { id, at: at(when), by: by_member_id, digest: named.digest, elsewhere: named.elsewhere },
    ]),
  );
}

/** Deletes conversations of a record, held, with what was learned from how they were decided. */
export async function deleteFiled(trx: Transaction, held: readonly HeldConversation[], now: Instant): Promise<void> {
  if (held.length === 0) return;
  await learn(
    trx,
    held.map(({ id, trayId }) => ({ id, trayId, labels: [], isOver: false, seen: false })),
  );
  await deleteConversations(
    trx,
    held.map(({ id }) => id),
    now,
  );
}

/**
 * Deletes a record with what was put on it, and what nothing else needs of those bytes; what named it on shelves, in rules,
 * covers and trees names nothing any more. Its conversations have been deleted or taken off it before.
 */
export async function deleteRecord(trx: Transaction, id: RecordId, now: Instant): Promise<void> {
  const builder = knexOf(trx);
  const documents: { sha256: Buffer }[] = await builder("record_document").where({ record_id: id }).delete("sha256");
  await deleteUnusedBlobs(
    trx,
    documents.map(({ sha256 }) => sha256),
    now,
  );
  await dropZipExportsByWords(trx);
  await builder("filed_part").where({ record_id: id }).delete();
  await builder("cover").where({ record_id: id }).delete();
  await repointPlaces(trx, "record", id, null);
  // What was merged into it led here, and leads nowhere now.
  await builder.raw(
    /* sql */ `
    with recursive stub as (
      select record.id from record where merged_into = :id
      union select record.id from record join stub on record.merged_into = stub.id)
    delete from record where id in (select id from stub)`,
    { id },
  );
  await builder("record").where({ id }).delete();
}

/** What went, for good: it outlives its record. */
export type Certificate = {
  readonly id: string;
  readonly at: Instant;
  readonly byName: string;
  readonly previewedAt: Instant;
  readonly code: string;
  readonly title: string;
  readonly kind: string;
  readonly why: string;
  readonly conversations: number;
  readonly elsewhere: number;
} & Pick<Named, "messages" | "documents" | "bytes" | "digest">;

/** Writes a certificate, for those who knew of its record (null: everybody). */
export async function addCertificate(
  trx: Transaction,
  { at: when, byName, previewedAt, ...certificate }: Certificate,
  viewers: readonly string[] | null,
): Promise<void> {
  await knexOf(trx)("disposal_certificate").insert({
    ...certificate,
    at: param(when),
    by_name: byName,
    previewed_at: param(previewedAt),
    viewers: viewers === null ? null : [...viewers],
  });
}

const MOST_CERTIFICATES = 1_000;

/** The certificate of this id; null before it is written. */
export async function certificateById(db: Database, id: string): Promise<Certificate | null> {
  const row: CertificateRow | undefined = await knexOf(db)("disposal_certificate").first().where({ id });
  return row === undefined ? null : certificateOf(row);
}

/** The certificates of what a member knew of, the newest first. */
export async function certificatesFor(db: Database, memberId: string): Promise<Certificate[]> {
  const rows: CertificateRow[] = await knexOf(db)("disposal_certificate")
    .whereRaw("viewers is null or cast(? as uuid) = any(viewers)", [memberId])
    .orderBy([{ column: "at", order: "desc" }, "id"])
    .limit(MOST_CERTIFICATES);
  return rows.map(certificateOf);
}

type CertificateRow = Omit<Certificate, "at" | "byName" | "previewedAt" | "bytes"> & {
  readonly at: Date;
  readonly by_name: string;
  readonly previewed_at: Date;
  readonly bytes: string;
};

function certificateOf(row: CertificateRow): Certificate {
  return {
    id: row.id,
    at: at(row.at),
    byName: row.by_name,
    previewedAt: at(row.previewed_at),
    code: row.code,
    title: row.title,
    kind: row.kind,
    why: row.why,
    digest: row.digest,
    conversations: row.conversations,
    messages: row.messages,
    documents: row.documents,
    elsewhere: row.elsewhere,
    bytes: Number(row.bytes),
  };
}
