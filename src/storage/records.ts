import { type ConversationId, type RecordId, trustedId } from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { at, param } from "./rows";
import { type RawSheetRow, SHEET_COLUMNS, type SheetRow, sheetRowOf } from "./sheet-row";
import type { TrayGrant } from "./trays";

export type FilingRecord = {
  readonly id: RecordId;
  /** Reference code, unique. */
  readonly code: string;
  readonly kind: "client" | "project";
  readonly title: string;
  readonly parentId: RecordId | null;
  readonly closed: boolean;
};

export type RecordRow = {
  id: string;
  code: string;
  kind: "client" | "project";
  title: string;
  parent_id: string | null;
  closed_at: Date | null;
};

const RECORD_COLUMNS = ["id", "code", "kind", "title", "parent_id", "closed_at"] as const;
// What a page of the register and a page of one record list at most.
const MAX_RECORDS = 500;
const MAX_FILED = 200;

function recordOf(row: RecordRow): FilingRecord {
  return {
    id: trustedId<RecordId>(row.id),
    code: row.code,
    kind: row.kind,
    title: row.title,
    parentId: row.parent_id === null ? null : trustedId<RecordId>(row.parent_id),
    closed: row.closed_at !== null,
  };
}

/** The records whose code or title has the text, by code, open ones first; all of them for an empty text. The grant shows that a member asks. */
export async function recordsLike(db: Database, _grant: TrayGrant, text: string): Promise<FilingRecord[]> {
  const builder = knexOf(db);
  const pattern = `%${text.replace(/[\\%_]/g, "\\$&")}%`;
  const rows: RecordRow[] = await builder("record")
    .select(RECORD_COLUMNS)
    .where((either) => either.whereILike("code", pattern).orWhereILike("title", pattern))
    .orderByRaw("closed_at is not null, code")
    .limit(MAX_RECORDS);
  return rows.map(recordOf);
}

/** The records of these ids, in no order. */
export async function recordsByIds(db: Database, ids: readonly RecordId[]): Promise<FilingRecord[]> {
  if (ids.length === 0) return [];
  const rows: RecordRow[] = await knexOf(db)("record").select(RECORD_COLUMNS).whereIn("id", ids);
  return rows.map(recordOf);
}

/** The records that have these reference codes. */
export async function recordsByCodes(db: Database, codes: readonly string[]): Promise<FilingRecord[]> {
  if (codes.length === 0) return [];
  const rows: RecordRow[] = await knexOf(db)("record").whereIn("code", codes);
  return rows.map(recordOf);
}

/** The record of a code; null when there is none. */
export async function recordByCode(db: Database, code: string): Promise<FilingRecord | null> {
  const row = await knexOf(db)("record")
    .first(...RECORD_COLUMNS)
    .where({ code });
  return row === undefined ? null : recordOf(row);
}

/** How many conversations are filed on each record, and when the newest message there came, over the viewer's trays. */
export async function filedCounts(
  db: Database,
  grant: TrayGrant,
): Promise<Map<RecordId, { filed: number; open: number; newest: Instant }>> {
  const found = await knexOf(db).raw<{ rows: { record_id: string; filed: number; open: number; newest: Date }[] }>(
    /* sql */ `
    select record_id, count(*)::int as filed, count(*) filter (where standing in ('to-sort', 'our-move', 'waiting', 'resting'))::int as open,
      max(last_message_at) as newest
    from conversation cross join lateral unnest(record_ids) as record_id
    where record_ids <> '{}' and tray_id in (select tray_id from tray_member where member_id = :memberId)
    group by record_id`,
    { memberId: grant.memberId },
  );
  return new Map(
    found.rows.map((row) => [
      trustedId<RecordId>(row.record_id),
      { filed: row.filed, open: row.open, newest: at(row.newest) },
    ]),
  );
}

/** A conversation filed on a record, with the tray it lives in. */
export type FiledConversation = SheetRow & { readonly traySlug: string };

/** The conversations filed on a record that the viewer may see, in whichever of her trays, newest message first. */
export async function conversationsOnRecord(
  db: Database,
  grant: TrayGrant,
  recordId: RecordId,
): Promise<FiledConversation[]> {
  const found = await knexOf(db).raw<{ rows: (RawSheetRow & { tray_slug: string })[] }>(
    /* sql */ `
    select ${SHEET_COLUMNS}, tray.slug as tray_slug
    from conversation as c join tray on tray.id = c.tray_id
      join tray_member on tray_member.tray_id = c.tray_id and tray_member.member_id = :memberId
    where c.record_ids @> array[cast(:recordId as uuid)]
    order by c.last_message_at desc, c.id desc limit :limit`,
    { memberId: grant.memberId, recordId, limit: MAX_FILED },
  );
  return found.rows.map((row) => ({ ...sheetRowOf(row), traySlug: row.tray_slug }));
}

/** A message as one line of a record's correspondence. */
export type FiledMessage = {
  readonly conversationId: ConversationId;
  readonly direction: "in" | "out";
  readonly fromName: string;
  readonly ownText: string;
  readonly sentAt: Instant;
};

/** The newest messages of each of these conversations, oldest first, at most `perConversation` each, in one query. */
export async function newestMessagesOf(
  db: Database,
  ids: readonly ConversationId[],
  perConversation: number,
): Promise<FiledMessage[]> {
  const found = await knexOf(db).raw<{
    rows: { conversation_id: string; direction: "in" | "out"; from_name: string; own_text: string; sent_at: Date }[];
  }>(
    /* sql */ `
    select newest.* from unnest(cast(:ids as uuid[])) as wanted(id) cross join lateral (
      select message.id, conversation_id, direction, coalesce(nullif(from_name, ''), from_address) as from_name,
        left(own_text, 400) as own_text, sent_at
      from message join message_text on message_text.message_id = message.id
      where conversation_id = wanted.id order by sent_at desc, message.id desc limit :limit
    ) as newest order by sent_at, id`,
    { ids: [...ids], limit: perConversation } as never,
  );
  return found.rows.map((row) => ({
    conversationId: trustedId<ConversationId>(row.conversation_id),
    direction: row.direction,
    fromName: row.from_name,
    ownText: row.own_text,
    sentAt: at(row.sent_at),
  }));
}

/** Adds records. */
export async function addRecords(
  db: Database,
  records: readonly (FilingRecord & { createdAt: Instant })[],
): Promise<void> {
  await knexOf(db)("record").insert(
    records.map((record) => ({
      id: record.id,
      code: record.code,
      kind: record.kind,
      title: record.title,
      parent_id: record.parentId,
      closed_at: record.closed ? param(record.createdAt) : null,
      created_at: param(record.createdAt),
    })),
  );
}
