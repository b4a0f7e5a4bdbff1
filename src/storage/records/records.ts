import { type RecordId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { type RecordViewer, seenBy } from "../access/record-access";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { at } from "../base/rows";

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
  const found = await ask<RecordRow>(
    db,
    `select ${RECORD_COLUMNS} from ${RECORDS} where ${seen.sql} and (${condition}) ${rest}`,
    { ...seen.values, ...values },
  );
  return found.map(recordOf);
}

/**
 * The records that a viewer may know of whose code or title has the text, at most so many: what begins with it first, then by
 * code, open ones before closed ones; all of them for an empty text.
 */
export function recordsLike(db: Database, viewer: RecordViewer, text: string, most: number): Promise<FilingRecord[]> {
  const escaped = text.toLowerCase().replace(/[\\%_]/g, "\\$&");
  return recordsWhere(
    db,
    viewer,
    "record.merged_into is null and (record.folded_code like :within or record.folded_title like :within)",
    { within: `%${escaped}%`, begins: `${escaped}%`, most },
    `order by record.closed_at is not null, record.folded_code not like :begins and record.folded_title not like :begins, record.code
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

/** How many conversations are filed on each record, and when the newest message there came, in a tray. */
export async function filedCounts(
  db: Database,
  trayId: TrayId,
): Promise<Map<RecordId, { filed: number; open: number; newest: Instant }>> {
  const found = await ask<{ record_id: string; filed: number; open: number; newest: Date }>(
    db,
    /* sql */ `
    select record_id, count(*)::int as filed, count(*) filter (where standing in ('to-sort', 'our-move', 'waiting', 'resting'))::int as open,
      max(last_message_at) as newest
    from conversation cross join lateral unnest(record_ids) as record_id
    where record_ids <> '{}' and tray_id = :trayId group by record_id`,
    { trayId },
  );
  return new Map(
    found.map((row) => [
      trustedId<RecordId>(row.record_id),
      { filed: row.filed, open: row.open, newest: at(row.newest) },
    ]),
  );
}
