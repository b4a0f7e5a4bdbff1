import {
  type CountChange,
  DECIDED,
  LABEL_PREFIXES,
  type Label,
  SETTLED_UNANSWERED,
  UNFILED,
} from "../../core/filing/lesson";
import type { TrayId } from "../../core/kernel/ids";
import { ask } from "../base/ask";
import type { Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";

/**
 * What was decided where a feature was, as it is asked for: lists as PostgreSQL writes them, which is read faster than what
 * a driver makes of them, or null where they are not wanted.
 */
export type ToldRow = {
  readonly feature: string;
  readonly decided: number;
  readonly settled: number;
  readonly unfiled: number;
  readonly categories: string | null;
  readonly category_given: string | null;
  readonly records: string | null;
  readonly record_given: string | null;
};

/** A tray's categories and records, by the numbers that stand for them in those lists. */
export type LabelNames = ReadonlyMap<number, Label>;

/** How often each label was given, as a row has it. */
export function toldOf(row: ToldRow, names: LabelNames): Map<Label, number> {
  const told = new Map<Label, number>([[DECIDED, row.decided]]);
  if (row.settled !== 0) told.set(SETTLED_UNANSWERED, row.settled);
  if (row.unfiled !== 0) told.set(UNFILED, row.unfiled);
  addNamed(told, names, numbersIn(row.categories), numbersIn(row.category_given));
  addNamed(told, names, numbersIn(row.records), numbersIn(row.record_given));
  return told;
}

function addNamed(told: Map<Label, number>, names: LabelNames, ids: readonly number[], given: readonly number[]): void {
  for (const [at, id] of ids.entries()) {
    const label = names.get(id);
    if (label !== undefined) told.set(label, given[at] ?? 0);
  }
}

function listed(ids: string | null, given: string | null): (readonly [id: number, given: number])[] {
  const counts = numbersIn(given);
  return numbersIn(ids).map((id, at) => [id, counts[at] ?? 0]);
}

// "{1,2,3}"
const numbersIn = (written: string | null): number[] => JSON.parse(`[${written?.slice(1, -1) ?? ""}]`);
const written = (numbers: Iterable<number>): string => `{${[...numbers].join(",")}}`;

/** Adds to what was decided with each feature. */
export async function addToTold(trx: Transaction, trayId: TrayId, changes: readonly CountChange[]): Promise<void> {
  if (changes.length === 0) return;
  const byFeature = new Map<string, CountChange[]>();
  for (const change of changes) {
    const some = byFeature.get(change.feature) ?? [];
    some.push(change);
    byFeature.set(change.feature, some);
  }
  const numbers = await numbersOf(trx, trayId, changes);
  const held = await heldRows(trx, trayId, [...byFeature.keys()]);
  await saveRows(
    trx,
    trayId,
    held.map((row) => withChanges(row, byFeature.get(row.feature) ?? [], numbers)),
  );
}

/** The numbers of the categories and records among the labels, new ones for those that have none yet. */
async function numbersOf(
  trx: Transaction,
  trayId: TrayId,
  changes: readonly CountChange[],
): Promise<ReadonlyMap<Label, number>> {
  const labels = [...new Set(changes.map(({ label }) => label))].filter(isNumbered).toSorted();
  const rows = await ask<{ id: number; label: Label }>(
    trx,
    /* sql */ `
    with asked as (select unnest(cast(:labels as text[])) as label),
    added as (
      insert into filing_label (tray_id, label)
      select :trayId, label from asked
      where not exists (select from filing_label as known where tray_id = :trayId and known.label = asked.label)
      on conflict (tray_id, label) do update set label = excluded.label
      returning id, label
    )
    select id, label from added
    union all select id, label from filing_label join asked using (label) where tray_id = :trayId`,
    { trayId, labels },
  );
  return new Map(rows.map(({ id, label }) => [label, id]));
}

const isNumbered = (label: Label) =>
  label !== UNFILED && (label.startsWith(LABEL_PREFIXES.categorise) || label.startsWith(LABEL_PREFIXES.file));

// Always in the same order, so that two who count the same things never wait for each other.
async function heldRows(trx: Transaction, trayId: TrayId, features: readonly string[]): Promise<ToldRow[]> {
  const builder = knexOf(trx);
  const asked = { trayId, features: [...features].toSorted() };
  const rows = await ask<ToldRow>(
    trx,
    /* sql */ `
    select feature, decided, settled, unfiled, cast(categories as text), cast(category_given as text),
      cast(records as text), cast(record_given as text)
    from filing_told where tray_id = :trayId and feature = any(cast(:features as text[]))
    order by feature for update`,
    asked,
  );
  if (rows.length === features.length) return rows;
  // New ones, or such as somebody else came to nothing with at this moment.
  await builder.raw(
    /* sql */ `
    insert into filing_told (tray_id, feature) select :trayId, unnest(cast(:features as text[]))
    on conflict (tray_id, feature) do nothing`,
    asked,
  );
  return heldRows(trx, trayId, features);
}

function withChanges(row: ToldRow, changes: readonly CountChange[], numbers: ReadonlyMap<Label, number>): ToldRow {
  let { decided, settled, unfiled } = row;
  const categories = new Map(listed(row.categories, row.category_given));
  const records = new Map(listed(row.records, row.record_given));
  for (const { label, by } of changes) {
    if (label === DECIDED) decided += by;
    else if (label === SETTLED_UNANSWERED) settled += by;
    else if (label === UNFILED) unfiled += by;
    else add(label.startsWith(LABEL_PREFIXES.categorise) ? categories : records, numbers.get(label), by);
  }
  return {
    feature: row.feature,
    decided,
    settled,
    unfiled,
    categories: written(categories.keys()),
    category_given: written(categories.values()),
    records: written(records.keys()),
    record_given: written(records.values()),
  };
}

function add(counts: Map<number, number>, id: number | undefined, by: number): void {
  if (id === undefined) throw new Error("a label has no number");
  const given = (counts.get(id) ?? 0) + by;
  if (given === 0) counts.delete(id);
  else counts.set(id, given);
}

async function saveRows(trx: Transaction, trayId: TrayId, rows: readonly ToldRow[]): Promise<void> {
  await knexOf(trx).raw(
    /* sql */ `
    with new as (
      select * from jsonb_to_recordset(cast(:rows as jsonb)) as new(feature text, decided int, settled int, unfiled int,
        categories text, category_given text, records text, record_given text)
    ),
    gone as (
      delete from filing_told using new where tray_id = :trayId and filing_told.feature = new.feature and new.decided = 0
    )
    update filing_told set decided = new.decided, settled = new.settled, unfiled = new.unfiled,
      categories = cast(new.categories as int[]), category_given = cast(new.category_given as int[]),
      records = cast(new.records as int[]), record_given = cast(new.record_given as int[])
    from new where tray_id = :trayId and filing_told.feature = new.feature and new.decided <> 0`,
    { trayId, rows: JSON.stringify(rows) },
  );
}
