import { type RecordTypeId, trustedId } from "../../core/kernel/ids";
import { type CodePattern, codeOf, numberIn, seriesOn } from "../../core/records/code-pattern";
import type { FilingField } from "../../core/records/filing-field";
import type { RecordType } from "../../core/records/record-type";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";

type TypeRow = { id: string; name: string; code_pattern: string; fields: FilingField[] };

const typeOf = (row: TypeRow): RecordType => ({
  id: trustedId<RecordTypeId>(row.id),
  name: row.name,
  codePattern: row.code_pattern,
  fields: row.fields,
});

/** The types of records, in their order. */
export async function recordTypes(db: Database): Promise<RecordType[]> {
  const rows: TypeRow[] = await knexOf(db)("record_type")
    .select("id", "name", "code_pattern", "fields")
    .orderBy(["position", "id"]);
  return rows.map(typeOf);
}

/** Keeps a type, a new one at the end. */
export async function saveRecordType(trx: Transaction, type: RecordType): Promise<void> {
  await knexOf(trx).raw(
    /* sql */ `
    insert into record_type (id, name, code_pattern, fields, position)
    values (:id, :name, :codePattern, cast(:fields as jsonb), (select coalesce(max(position), -1) + 1 from record_type))
    on conflict (id) do update set name = excluded.name, code_pattern = excluded.code_pattern, fields = excluded.fields`,
    { ...type, fields: JSON.stringify(type.fields) },
  );
}

/** Holds the types, so that of two that are changed at once each knows the other. */
export async function lockRecordTypes(trx: Transaction): Promise<void> {
  await knexOf(trx).raw("lock table record_type in share row exclusive mode");
}

/**
 * The next code of a type on a day (`YYYY-MM-DD`). The number is given with the transaction: another one waits until it is
 * decided, and gets the same number if this one is rolled back, so that there are no gaps. Codes that were given by hand
 * are passed over.
 */
export async function nextCode(
  trx: Transaction,
  typeId: RecordTypeId,
  pattern: CodePattern,
  day: string,
): Promise<string> {
  const builder = knexOf(trx);
  const series = seriesOn(pattern, day);
  const found = await ask<{ last: number; is_new: boolean }>(
    trx,
    /* sql */ `
    insert into record_series as known (type_id, series, last) values (:typeId, :series, 0)
    on conflict (type_id, series) do update set last = known.last returning last, xmax = 0 as is_new`,
    { typeId, series },
  );
  const [before = "", after = ""] = series.split("#");
  const given: { code: string }[] = await builder("record")
    .select("code")
    .whereLike("code", `${before.replace(/[\\%_]/g, "\\$&")}%${after.replace(/[\\%_]/g, "\\$&")}`);
  const taken = new Set(given.map(({ code }) => numberIn(series, code) ?? 0));
  // A series goes on after whatever stood in the register before it was counted.
  const last = found[0]?.is_new === true ? Math.max(0, ...taken) : (found[0]?.last ?? 0);
  let number = last + 1;
  while (taken.has(number)) number += 1;
  await builder("record_series").where({ type_id: typeId, series }).update({ last: number });
  return codeOf(pattern, day, number);
}
