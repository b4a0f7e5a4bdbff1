import type { Category, CategoryReplacement, Listed } from "../../core/categories/category";
import { type CategoryId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Ink } from "../../core/kernel/ink";
import type { Instant } from "../../core/kernel/instant";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";

export type CategoryRow = {
  id: string;
  tray_id: string | null;
  parent_id: string | null;
  code: string;
  name: string;
  ink: Ink;
  key: string | null;
  description: string;
  listed: Listed;
  retired_at: Date | string | null;
};

const COLUMNS = ["id", "tray_id", "parent_id", "code", "name", "ink", "key", "description", "listed", "retired_at"];

// A tray with more would not be read by anybody; the list is sent to every screen.
export const MAX_CATEGORIES = 1_000;

/** The categories of a tray, its own and those common to all, retired ones too, in the order set by hand. */
export async function categoriesOf(db: Database, trayId: TrayId): Promise<Category[]> {
  const rows: CategoryRow[] = await standing(db)
    .where((either) => either.whereNull("tray_id").orWhere("tray_id", trayId))
    .limit(MAX_CATEGORIES);
  return rows.map(categoryOf);
}

/**
 * The categories of all trays, held for changing: until the transaction ends nobody else changes one, and nobody gives one
 * to a conversation.
 */
export async function lockCategories(trx: Transaction): Promise<Category[]> {
  // Rows held one by one would not keep two people from adding the same category at the same time.
  await knexOf(trx).raw("lock table category in share row exclusive mode");
  const rows: CategoryRow[] = await standing(trx);
  return rows.map(categoryOf);
}

/**
 * Keeps all categories as they are until the transaction ends, which others may want at the same time: for whatever gives
 * or takes one. To be asked for before any conversation is held, as whoever changes categories holds them in that order.
 */
export async function lockCategoriesForShare(trx: Transaction): Promise<void> {
  await knexOf(trx).raw("lock table category in share mode");
}

function standing(db: Database) {
  return knexOf(db)("category").select(COLUMNS).whereNull("removed_at").orderBy(["position", "id"]);
}

/** A category from its row, as the table has it or as JSON. */
export function categoryOf(row: CategoryRow): Category {
  return {
    id: trustedId<CategoryId>(row.id),
    trayId: row.tray_id === null ? null : trustedId<TrayId>(row.tray_id),
    parentId: row.parent_id === null ? null : trustedId<CategoryId>(row.parent_id),
    code: row.code,
    name: row.name,
    ink: row.ink,
    key: row.key,
    description: row.description,
    listed: row.listed,
    retired: row.retired_at !== null,
  };
}

/** What categories are called, also those that are no more: the journal speaks of them. */
export async function categoryNames(db: Database, ids: readonly CategoryId[]): Promise<Map<CategoryId, string>> {
  const rows = await knexOf(db)("category").select("id", "name").whereIn("id", ids);
  return new Map(rows.map(({ id, name }) => [trustedId<CategoryId>(id), name]));
}

/** The categories that are no more, with what stands for them. */
export async function replacedCategories(db: Database): Promise<CategoryReplacement[]> {
  const rows = await knexOf(db)("category").select("id", "removed_at", "replaced_by").whereNotNull("removed_at");
  return rows.map(({ id, removed_at, replaced_by }) => ({
    at: at(removed_at),
    categoryId: trustedId<CategoryId>(id),
    by: replaced_by === null ? null : trustedId<CategoryId>(replaced_by),
  }));
}

/** Adds categories at the end of the order, in theirs. */
export async function addCategories(trx: Transaction, categories: readonly Category[], now: Instant): Promise<void> {
  if (categories.length === 0) return;
  const last = await knexOf(trx)("category").max("position as last").first();
  const next = Number(last?.last ?? -1) + 1;
  await knexOf(trx)("category").insert(
    categories.map((category, place) => ({ ...columnsOf(category, now), id: category.id, position: next + place })),
  );
}

/** Keeps a category as it is now. */
export async function saveCategory(trx: Transaction, category: Category, now: Instant): Promise<void> {
  const retiredAt = category.retired ? knexOf(trx).raw("coalesce(retired_at, ?)", [param(now)]) : null;
  await knexOf(trx)("category")
    .where("id", category.id)
    .update({ ...columnsOf(category, now), retired_at: retiredAt });
}

function columnsOf(category: Category, now: Instant) {
  const { trayId, parentId, code, name, ink, key, description, listed, retired } = category;
  const when = retired ? param(now) : null;
  return { tray_id: trayId, parent_id: parentId, code, name, ink, key, description, listed, retired_at: when };
}

/** Puts categories in this order among themselves. */
export async function orderCategories(trx: Transaction, ids: readonly CategoryId[]): Promise<void> {
  await knexOf(trx).raw(
    /* sql */ `
    with places as (select position, row_number() over (order by position, id) as at from category where id = any(:ids))
    update category set position = places.position
    from unnest(cast(:ids as uuid[])) with ordinality as wanted(id, at) join places using (at)
    where category.id = wanted.id`,
    { ids: [...ids] },
  );
}

/** Ends a category; from now on `by` stands for it, or nothing. */
export async function removeCategory(
  trx: Transaction,
  id: CategoryId,
  by: CategoryId | null,
  now: Instant,
): Promise<void> {
  await knexOf(trx)("category")
    .where("id", id)
    .update({ removed_at: param(now), replaced_by: by });
}
