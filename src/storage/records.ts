import { type ConversationId, type RecordId, trustedId } from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { type RecordViewer, seenBy } from "./record-access";
import { at } from "./rows";
import { type RawSheetRow, SHEET_COLUMNS, type SheetRow, sheetRowOf } from "./sheet-row";
import type { TrayGrant } from "./trays";

export type FilingRecord = {
  readonly id: RecordId;
  /** Reference code, unique. */
  readonly code: string;
  /** The name of its type, as it stands in a sentence. */
  readonly kind: string;
  readonly title: string;
  readonly parentId: RecordId | null;
  readonly closed: boolean;
};

type RecordRow = {
  id: string;
  code: string;
  kind: string;
  title: string;
  parent_id: string | null;
  closed_at: Date | null;
};

const RECORD_COLUMNS = /* sql */ `record.id, record.code, lower(record_type.name) as kind, record.title, record.parent_id, record.closed_at`;
const RECORDS = /* sql */ `record join record_type on record_type.id = record.type_id`;
// What a page of one record lists at most.
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

async function recordsWhere(
  db: Database,
  viewer: RecordViewer,
  condition: string,
  values: Readonly<Record<string, unknown>>,
  rest = "",
): Promise<FilingRecord[]> {
  const seen = seenBy(viewer);
  const found = await knexOf(db).raw<{ rows: RecordRow[] }>(
    `select ${RECORD_COLUMNS} from ${RECORDS} where ${seen.sql} and (${condition}) ${rest}`,
    { ...seen.values, ...values } as never,
  );
  return found.rows.map(recordOf);
}

/**
 * The records that a viewer may know of whose code or title has the text, at most so many: what begins with it first, then by
 * code, open ones before closed ones; all of them for an empty text.
 */
export function recordsLike(db: Database, viewer: RecordViewer, text: string, most: number): Promise<FilingRecord[]> {
  const escaped = text.replace(/[\\%_]/g, "\\$&");
  return recordsWhere(
    db,
    viewer,
    "record.merged_into is null and (record.code ilike :within or record.title ilike :within)",
    { within: `%${escaped}%`, begins: `${escaped}%`, most },
    `order by record.closed_at is not null, record.code not ilike :begins and record.title not ilike :begins, record.code
      limit :most`,
  );
}

/** Of the records of these ids those that the viewer may know of, in no order. */
export async function recordsByIds(
  db: Database,
  viewer: RecordViewer,
  ids: readonly RecordId[],
): Promise<FilingRecord[]> {
  return ids.length === 0 ? [] : recordsWhere(db, viewer, "record.id = any(:ids)", { ids: [...ids] });
}

/** Of the records that have these reference codes those that the viewer may know of. */
export async function recordsByCodes(
  db: Database,
  viewer: RecordViewer,
  codes: readonly string[],
): Promise<FilingRecord[]> {
  if (codes.length === 0) return [];
  return recordsWhere(db, viewer, "record.code = any(:codes) and record.merged_into is null", { codes: [...codes] });
}

/** What stands right under a record, of what the viewer may know of, by code. */
export function recordsUnder(db: Database, viewer: RecordViewer, id: RecordId): Promise<FilingRecord[]> {
  return recordsWhere(
    db,
    viewer,
    "record.parent_id = :id and record.merged_into is null",
    { id },
    "order by record.code",
  );
}

/** The record of a code; null when there is none that the viewer may know of. */
export async function recordByCode(db: Database, viewer: RecordViewer, code: string): Promise<FilingRecord | null> {
  return (await recordsByCodes(db, viewer, [code]))[0] ?? null;
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
