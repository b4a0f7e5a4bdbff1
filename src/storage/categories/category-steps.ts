import { isDeepStrictEqual } from "node:util";
import type { Category } from "../../core/categories/category";
import { type CategoryId, type CategoryStepId, type MemberId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, atOrNull, param } from "../base/rows";
import { type CategoryRow, categoryOf } from "../facts/categories";

/** The tables that a change of categories can touch, each with `id` as its key. */
const TABLES = ["category", "saved_view", "place", "rule", "contact"] as const;
type Table = (typeof TABLES)[number];
type Row = Readonly<Record<string, unknown>>;
type ChangedRow = {
  readonly table: Table;
  readonly id: string;
  readonly before: Row | null;
  readonly after: Row | null;
};

/** A change of categories, as it is looked back at. */
export type CategoryStep = {
  readonly id: CategoryStepId;
  readonly at: Instant;
  readonly by: MemberId;
  readonly words: string;
  readonly undoneAt: Instant | null;
};

type NewStep = Pick<CategoryStep, "id" | "at" | "by"> & { readonly trayId: TrayId | null };

/**
 * Carries a change of categories out and keeps what it changed, row by row, so that it can be taken back exactly. A change
 * whose words are null is not kept, as it did nothing.
 */
export async function asCategoryStep<T extends { readonly words: string | null }>(
  trx: Transaction,
  step: NewStep,
  change: () => Promise<T>,
): Promise<T> {
  const before = await snapshot(trx);
  const done = await change();
  if (done.words === null) return done;
  const after = await snapshot(trx);
  const changed = [...new Set([...before.keys(), ...after.keys()])].flatMap((key): ChangedRow[] => {
    const [was, is] = [before.get(key), after.get(key)];
    if (isDeepStrictEqual(was?.row, is?.row)) return [];
    const [table, id] = [(was ?? is)?.table, (was ?? is)?.id];
    return table === undefined || id === undefined
      ? []
      : [{ table, id, before: was?.row ?? null, after: is?.row ?? null }];
  });
  await knexOf(trx)("category_step").insert({
    id: step.id,
    tray_id: step.trayId,
    at: param(step.at),
    by_member_id: step.by,
    words: done.words,
    changed: JSON.stringify(changed),
  });
  return done;
}

type Snapshot = Map<string, { readonly table: Table; readonly id: string; readonly row: Row }>;

// There are few of them, and what a change touches is known only afterwards.
async function snapshot(trx: Transaction): Promise<Snapshot> {
  const found = await ask<{ table: Table; id: string; row: Row }>(
    trx,
    /* sql */ `
    select 'category' as table, id, to_jsonb(category) as row from category
    union all select 'saved_view', id, to_jsonb(saved_view) from saved_view
    union all select 'place', id, to_jsonb(place) from place
    union all select 'rule', id, to_jsonb(rule) from rule
    union all select 'contact', id, to_jsonb(contact) from contact`,
  );
  return new Map(found.map((one) => [`${one.table} ${one.id}`, one]));
}

/** The newest changes of the categories that are seen in a tray. */
export async function categorySteps(db: Database, trayId: TrayId, limit: number): Promise<CategoryStep[]> {
  const rows = await knexOf(db)("category_step")
    .select("id", "at", "by_member_id", "words", "undone_at")
    .where((either) => either.whereNull("tray_id").orWhere("tray_id", trayId))
    .orderBy([
      { column: "at", order: "desc" },
      { column: "id", order: "desc" },
    ])
    .limit(limit);
  return rows.map((row) => ({
    id: trustedId<CategoryStepId>(row.id),
    at: at(row.at),
    by: trustedId<MemberId>(row.by_member_id),
    words: row.words,
    undoneAt: atOrNull(row.undone_at),
  }));
}

/** The tray whose categories a change was about, null for all trays; undefined when there is no such change. */
export async function scopeOfStep(db: Database, id: CategoryStepId): Promise<TrayId | null | undefined> {
  const step = await knexOf(db)("category_step").select("tray_id").where("id", id).first();
  if (step === undefined) return undefined;
  return step.tray_id === null ? null : trustedId<TrayId>(step.tray_id);
}

/** What became of taking a change back. */
export type StepUndoing =
  | { readonly kind: "undone"; readonly words: string; readonly ended: CategoryId[] }
  | { readonly kind: "none" }
  /** Something of it was changed again since, or cannot be so any more. */
  | { readonly kind: "changed-since" };

/**
 * Puts every row that a change touched back as it was, if none was changed since. A category that it made ends again, as
 * conversations may have it by now. `mayBe` says whether the categories that were changed may be so again. `ended` are
 * those that ended or came back.
 */
export async function undoCategoryStep(
  trx: Transaction,
  id: CategoryStepId,
  { by, now, mayBe }: { by: MemberId; now: Instant; mayBe: (restored: readonly Category[]) => boolean },
): Promise<StepUndoing> {
  const step = await knexOf(trx)("category_step").where({ id, undone_at: null }).forUpdate().first();
  if (step === undefined) return { kind: "none" };
  const changed: ChangedRow[] = step.changed;
  for (const { table, id: rowId, after } of changed) {
    if (!isDeepStrictEqual(await rowNow(trx, table, rowId), after)) return { kind: "changed-since" };
  }
  const categories = changed.filter(({ table }) => table === "category");
  const restored = categories.flatMap(({ before }) =>
    before === null || before.removed_at !== null ? [] : categoryOf(before as CategoryRow),
  );
  if (!mayBe(restored)) return { kind: "changed-since" };
  for (const row of changed) await putBack(trx, row, now);
  await knexOf(trx)("category_step")
    .where("id", id)
    .update({ undone_at: param(now), undone_by_member_id: by });
  const ended = categories.filter(({ before, after }) => before === null || before.removed_at !== after?.removed_at);
  return {
    kind: "undone",
    words: step.words,
    ended: ended.map((row) => trustedId<CategoryId>(row.id)),
  };
}

async function rowNow(trx: Transaction, table: Table, id: string): Promise<Row | null> {
  const found = await ask<{ row: Row }>(trx, /* sql */ "select to_jsonb(kept) as row from ?? as kept where id = ?", [
    table,
    id,
  ]);
  return found[0]?.row ?? null;
}

async function putBack(trx: Transaction, { table, id, before }: ChangedRow, now: Instant): Promise<void> {
  const builder = knexOf(trx);
  if (before === null) {
    const made = builder(table).where("id", id);
    await (table === "category" ? made.update({ removed_at: param(now) }) : made.delete());
    return;
  }
  // What had no row before got one by the change; what has one is made what it was.
  await builder.raw(
    /* sql */ "insert into ?? select * from jsonb_populate_record(null::??, ?) on conflict (id) do update set " +
      Object.keys(before)
        .map(() => "?? = excluded.??")
        .join(", "),
    [table, table, JSON.stringify(before), ...Object.keys(before).flatMap((column) => [column, column])],
  );
}
