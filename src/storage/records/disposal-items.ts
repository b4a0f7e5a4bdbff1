import type { ConversationId, MemberId, RecordId } from "../../core/kernel/ids";
import { trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";
import { type Certificate, GONE_MESSAGES } from "./disposals";

/** What a certificate says that is known before anything has gone. */
type CertificateHead = Pick<Certificate, "id" | "byName" | "previewedAt" | "code" | "title" | "kind" | "why">;

/** A disposal that has begun: its record is nobody's to see any more, and its conversations go some at a time. */
export type BegunDisposal = {
  readonly recordId: RecordId;
  readonly byMemberId: MemberId | null;
  readonly head: CertificateHead;
  /** Who knew of the record; null for everybody. */
  readonly viewers: readonly string[] | null;
};

/** A conversation of such a record as it was shown. */
export type DisposalItem = { readonly id: ConversationId; readonly version: number; readonly goes: boolean };
/** Such a conversation as it is begun with; one with no more than a part on the record is not counted. */
export type NewDisposalItem = DisposalItem & { readonly isWhole: boolean };

/** Begins a disposal: from the commit on nobody finds the record. In a transaction that holds the register. */
export async function beginDisposal(
  trx: Transaction,
  { recordId, byMemberId, head, viewers }: BegunDisposal,
  items: readonly NewDisposalItem[],
  now: Instant,
): Promise<void> {
  const builder = knexOf(trx);
  await builder("disposal").insert({
    record_id: recordId,
    begun_at: param(now),
    by_member_id: byMemberId,
    certificate: JSON.stringify(head),
    viewers: viewers === null ? null : [...viewers],
  });
  await ask(
    trx,
    `insert into disposal_item (record_id, conversation_id, version, goes, is_whole)
      select :recordId, id, version, goes, is_whole from unnest(cast(:ids as uuid[]), cast(:versions as int[]),
        cast(:goes as boolean[]), cast(:wholes as boolean[])) as item(id, version, goes, is_whole)`,
    {
      recordId,
      ids: items.map(({ id }) => id),
      versions: items.map(({ version }) => version),
      goes: items.map(({ goes }) => goes),
      wholes: items.map(({ isWhole }) => isWhole),
    },
  );
  await builder("record").where({ id: recordId }).update({ access_members: [], access_groups: [], viewers: [] });
}

/** The disposals that have begun and not come to their end, the oldest first. */
export async function begunDisposals(db: Database): Promise<BegunDisposal[]> {
  const rows: {
    record_id: string;
    by_member_id: string | null;
    certificate: CertificateHead;
    viewers: string[] | null;
  }[] = await knexOf(db)("disposal").orderBy("begun_at");
  return rows.map((row) => ({
    recordId: trustedId<RecordId>(row.record_id),
    byMemberId: row.by_member_id === null ? null : trustedId<MemberId>(row.by_member_id),
    head: row.certificate,
    viewers: row.viewers,
  }));
}

/** Some of its conversations that are still to go or to be taken off, held; those that another process has in hand are left out. */
export async function lockDisposalItems(trx: Transaction, recordId: RecordId, limit: number): Promise<DisposalItem[]> {
  const rows: { conversation_id: string; version: number; goes: boolean }[] = await knexOf(trx)("disposal_item")
    .select("conversation_id", "version", "goes")
    .where({ record_id: recordId, is_done: false })
    .limit(limit)
    .forUpdate()
    .skipLocked();
  return rows.map((row) => ({
    id: trustedId<ConversationId>(row.conversation_id),
    version: row.version,
    goes: row.goes,
  }));
}

/** Notes of conversations that are about to be deleted what the certificate is to say of them. */
export async function noteGone(trx: Transaction, recordId: RecordId, ids: readonly ConversationId[]): Promise<void> {
  await ask(
    trx,
    /* sql */ `
    with gone as (${GONE_MESSAGES})
    update disposal_item set lines = whole.lines, documents = whole.documents, bytes = whole.bytes
    from (
      select conversation_id, jsonb_agg(jsonb_build_array(id, sha256)) as lines, sum(carried) as documents, sum(size) as bytes
      from gone group by conversation_id
    ) as whole
    where disposal_item.record_id = :recordId and disposal_item.conversation_id = whole.conversation_id`,
    { recordId, ids: [...ids] },
  );
}

/** Notes that conversations are done with, and which of them went. */
export async function endDisposalItems(
  trx: Transaction,
  recordId: RecordId,
  ids: readonly ConversationId[],
  gone: readonly ConversationId[],
): Promise<void> {
  await knexOf(trx)("disposal_item")
    .where({ record_id: recordId })
    .whereIn("conversation_id", [...ids])
    .update({ is_done: true, goes: knexOf(trx).raw("conversation_id = any(?)", [gone.map(String)]) });
}

/** What went in all once every conversation is done with, held for the end; null while one is not, or when it has ended. */
export async function lockWhatWent(
  trx: Transaction,
  recordId: RecordId,
): Promise<Pick<Certificate, "conversations" | "elsewhere" | "messages" | "documents" | "bytes" | "digest"> | null> {
  const builder = knexOf(trx);
  const [begun] = await builder("disposal").select("record_id").where({ record_id: recordId }).forUpdate();
  const [left] = await builder("disposal_item")
    .select("record_id")
    .where({ record_id: recordId, is_done: false })
    .limit(1);
  if (begun === undefined || left !== undefined) return null;
  const found = await ask<{
    conversations: number;
    elsewhere: number;
    messages: number;
    documents: number;
    bytes: string;
    digest: string;
  }>(
    trx,
    /* sql */ `
    with item as (select * from disposal_item where record_id = :recordId),
    put as (select id, encode(sha256, 'hex') as sha256, size from record_document where record_id = :recordId),
    lines as (
      select cast(line->>0 as uuid) as id, line->>1 as sha256 from item, jsonb_array_elements(item.lines) as line
      union all select id, sha256 from put
    )
    select (select count(*) filter (where goes)::int from item) as conversations,
      (select count(*) filter (where is_whole and not goes)::int from item) as elsewhere,
      (select coalesce(sum(jsonb_array_length(lines)), 0)::int from item) as messages,
      ((select coalesce(sum(documents), 0) from item) + (select count(*) from put))::int as documents,
      (select coalesce(sum(bytes), 0) from item) + (select coalesce(sum(size), 0) from put) as bytes,
      encode(sha256(convert_to(coalesce((select string_agg(id || ' ' || sha256, E'\\n' order by id) from lines), ''),
        'utf8')), 'hex') as digest`,
    { recordId },
  );
  const [whole] = found;
  return whole === undefined ? null : { ...whole, bytes: Number(whole.bytes) };
}
