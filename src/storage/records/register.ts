import { isDeepStrictEqual } from "node:util";
import { wordFeatures } from "../../core/filing/features";
import type { EmailAddress } from "../../core/kernel/email-address";
import {
  type ConversationId,
  type GroupId,
  type MemberId,
  type RecordId,
  type RecordTypeId,
  trustedId,
} from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { RegisterEntry } from "../../core/records/register-entry";
import { type RecordViewer, seenBy } from "../access/record-access";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, atOrNull, param } from "../base/rows";
import { repointPlaces } from "../categories/category-uses";

/** A record with everything that the register says of it. */
export type RegisterRecord = RegisterEntry & {
  readonly id: RecordId;
  readonly code: string;
  readonly createdAt: Instant;
  readonly closedAt: Instant | null;
  readonly mergedInto: RecordId | null;
  /** Who may know of it all in all; null for everybody. */
  readonly viewers: readonly MemberId[] | null;
  /** Another one with every change. */
  readonly version: number;
};

type RegisterRow = {
  id: string;
  code: string;
  type_id: string;
  title: string;
  parent_id: string | null;
  responsible_id: string | null;
  note: string;
  addresses: string[];
  access_members: string[] | null;
  access_groups: string[] | null;
  viewers: string[] | null;
  created_at: Date;
  closed_at: Date | null;
  merged_into: string | null;
  version: number;
};

const members = (ids: readonly string[]) => ids.map((id) => trustedId<MemberId>(id));

function registerRecordOf(row: RegisterRow): RegisterRecord {
  return {
    id: trustedId<RecordId>(row.id),
    code: row.code,
    typeId: trustedId<RecordTypeId>(row.type_id),
    title: row.title,
    parentId: row.parent_id === null ? null : trustedId<RecordId>(row.parent_id),
    responsibleId: row.responsible_id === null ? null : trustedId<MemberId>(row.responsible_id),
    note: row.note,
    addresses: row.addresses as EmailAddress[],
    access:
      row.access_members === null
        ? null
        : {
            memberIds: members(row.access_members),
            groupIds: (row.access_groups ?? []).map((id) => trustedId<GroupId>(id)),
          },
    viewers: row.viewers === null ? null : members(row.viewers),
    createdAt: at(row.created_at),
    closedAt: atOrNull(row.closed_at),
    mergedInto: row.merged_into === null ? null : trustedId<RecordId>(row.merged_into),
    version: row.version,
  };
}

/** The records of the register that a viewer may know of, by code; those of some ids where they are given. */
export async function registerRecords(
  db: Database,
  viewer: RecordViewer,
  ids: readonly RecordId[] | null = null,
): Promise<RegisterRecord[]> {
  const seen = seenBy(viewer);
  const found = await ask<RegisterRow>(
    db,
    /* sql */ `
    select record.*, array(select address from record_address where record_id = record.id order by address) as addresses
    from record where ${seen.sql} and ${ids === null ? "record.merged_into is null" : "record.id = any(:ids)"}
    order by record.code`,
    { ...seen.values, ...(ids === null ? {} : { ids: [...ids] }) },
  );
  return found.map(registerRecordOf);
}

/** The codes that records have or had: those of what was disposed of are on its certificates, and are not given again. */
export async function codesTaken(db: Database): Promise<Set<string>> {
  const builder = knexOf(db);
  const disposedOf = builder("disposal_certificate").select("code");
  const rows: { code: string }[] = await builder("record").select("code").union(disposedOf);
  return new Set(rows.map(({ code }) => code));
}

/** Holds the register, so that of two changes each knows the other: what stands under what, and who may know of it. */
export async function lockRegister(trx: Transaction): Promise<void> {
  await knexOf(trx).raw("select pg_advisory_xact_lock(hashtextextended('register', 0))");
}

/** Keeps a record as it is until the transaction ends, which others may want at the same time: for whatever is filed on it. */
export async function lockRecordForShare(trx: Transaction, id: RecordId): Promise<void> {
  await knexOf(trx).raw("select id from record where id = :id for share", { id });
}

/** Holds a record, so that nothing is filed on it until the transaction ends; whoever files at this moment is waited for. */
export async function lockRecord(trx: Transaction, id: RecordId): Promise<void> {
  await knexOf(trx).raw("select id from record where id = :id for update", { id });
}

/** Keeps records as they are now, new ones and others; `refreshViewers` has to follow where access or places change. */
export async function saveRecords(trx: Transaction, records: readonly RegisterRecord[]): Promise<void> {
  if (records.length === 0) return;
  const builder = knexOf(trx);
  const ids = records.map(({ id }) => id);
  await builder("record")
    .insert(
      records.map((record) => ({
        id: record.id,
        code: record.code,
        type_id: record.typeId,
        title: record.title,
        title_words: wordFeatures(record.title),
        parent_id: record.parentId,
        responsible_id: record.responsibleId,
        note: record.note,
        access_members: record.access === null ? null : [...record.access.memberIds],
        access_groups: record.access === null ? null : [...record.access.groupIds],
        created_at: param(record.createdAt),
        closed_at: param(record.closedAt),
        merged_into: record.mergedInto,
        version: record.version,
      })),
    )
    .onConflict("id")
    .merge();
  await builder("record_address").whereIn("record_id", ids).delete();
  const addresses = records.flatMap(({ id, addresses: theirs }) =>
    theirs.map((address) => ({ record_id: id, address })),
  );
  if (addresses.length > 0) await builder("record_address").insert(addresses);
}

/** How many records have other words of their title than it has; there must be none. */
export async function titlesAstray(db: Database): Promise<number> {
  const rows: { title: string; title_words: string[] }[] = await knexOf(db)("record").select("title", "title_words");
  return rows.filter(
    ({ title, title_words }) => !isDeepStrictEqual(title_words.toSorted(), wordFeatures(title).toSorted()),
  ).length;
}

/** Something that was done to a record, in words that stay true: "closed it". */
export type RecordStep = {
  readonly id: string;
  readonly recordId: RecordId;
  readonly at: Instant;
  readonly by: MemberId | null;
  readonly words: string;
};

/** Writes down what was done to records. */
export async function addRecordSteps(trx: Transaction, steps: readonly RecordStep[]): Promise<void> {
  if (steps.length === 0) return;
  await knexOf(trx)("record_step").insert(
    steps.map(({ id, recordId, at: when, by, words }) => ({
      id,
      record_id: recordId,
      at: param(when),
      by_member_id: by,
      words,
    })),
  );
}

const MOST_STEPS = 50;

/** What was done to a record, the newest first. */
export async function recordSteps(db: Database, recordId: RecordId): Promise<RecordStep[]> {
  const rows = await knexOf(db)("record_step")
    .where({ record_id: recordId })
    .orderBy([
      { column: "at", order: "desc" },
      { column: "id", order: "desc" },
    ])
    .limit(MOST_STEPS);
  return rows.map((row) => ({
    id: row.id,
    recordId,
    at: at(row.at),
    words: row.words,
    by: row.by_member_id === null ? null : trustedId<MemberId>(row.by_member_id),
  }));
}

/** The conversations that are filed on a record, or have a part that is, in whatever tray; at most `most`. */
export async function allFiledOn(trx: Transaction, id: RecordId, most: number): Promise<ConversationId[]> {
  const found = await ask<{ id: string }>(
    trx,
    /* sql */ `select id from conversation where record_ids @> array[cast(:id as uuid)] and joined_to is null
      union select conversation_id from filed_part where record_id = :id
      order by id limit :most`,
    { id, most },
  );
  return found.map((row) => trustedId<ConversationId>(row.id));
}

/** Has what named a record name another: what stands under it, shelves, rules, covers. */
export async function repointRecord(trx: Transaction, from: RecordId, to: RecordId): Promise<void> {
  const builder = knexOf(trx);
  await builder.raw("update record set parent_id = :to, version = version + 1 where parent_id = :from", { from, to });
  await repointPlaces(trx, "record", from, to);
  // Ids stand nowhere but where something is named.
  await builder.raw(
    /* sql */ `update rule set
        condition = cast(replace(cast(condition as text), :from, :to) as jsonb),
        exception = cast(replace(cast(exception as text), :from, :to) as jsonb),
        actions = cast(replace(cast(actions as text), :from, :to) as jsonb)
      where strpos(concat(condition, exception, actions), :from) > 0`,
    { from, to },
  );
  await builder.raw(
    /* sql */ `update automatic_answer set texts = cast(replace(cast(texts as text), :from, :to) as jsonb)
      where strpos(cast(texts as text), :from) > 0`,
    { from, to },
  );
  await builder.raw(
    /* sql */ `delete from cover where record_id = :from and exists (select 1 from cover as other
      where other.time_off_id = cover.time_off_id and other.tray_id = cover.tray_id and other.record_id = :to)`,
    { from, to },
  );
  await builder("cover").where("record_id", from).update({ record_id: to });
  await builder("record_document").where("record_id", from).update({ record_id: to });
  await builder("retention_hold").where("record_id", from).update({ record_id: to });
}

/** The code of the record that the one of a code was merged into, through however many; null when it was not. */
export async function mergedInto(db: Database, viewer: RecordViewer, code: string): Promise<string | null> {
  const seen = seenBy(viewer);
  const found = await ask<{ code: string }>(
    db,
    /* sql */ `
    with recursive way as (
      select merged_into as id, 1 as step from record where code = :code and merged_into is not null
      union all select record.merged_into, step + 1 from record join way on record.id = way.id
        where record.merged_into is not null and step < 50)
    select record.code from way join record on record.id = way.id where ${seen.sql} order by step desc limit 1`,
    { code, ...seen.values },
  );
  return found[0]?.code ?? null;
}
