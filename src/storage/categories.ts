import { type CategoryId, type TrayId, trustedId } from "../core/kernel/ids";
import type { Ink } from "../core/kernel/ink";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";

export type Category = {
  readonly id: CategoryId;
  readonly parentId: CategoryId | null;
  /** Two or three letters. */
  readonly code: string;
  readonly name: string;
  readonly ink: Ink;
};

type CategoryRow = { id: string; parent_id: string | null; code: string; name: string; ink: Ink };

// A tray with more would not be read by anybody; the list is sent to every screen.
const MAX_CATEGORIES = 1_000;

/** The categories to give in a tray, its own and those common to all, in the order set by hand. */
export async function categoriesOf(db: Database, trayId: TrayId): Promise<Category[]> {
  const rows: CategoryRow[] = await knexOf(db)("category")
    .select("id", "parent_id", "code", "name", "ink")
    .where((either) => either.whereNull("tray_id").orWhere("tray_id", trayId))
    .orderBy(["position", "id"])
    .limit(MAX_CATEGORIES);
  return rows.map((row) => ({
    id: trustedId<CategoryId>(row.id),
    parentId: row.parent_id === null ? null : trustedId<CategoryId>(row.parent_id),
    code: row.code,
    name: row.name,
    ink: row.ink,
  }));
}

/** Adds categories in their order; `trayId` null makes them common to all trays. */
export async function addCategories(
  db: Database,
  trayId: TrayId | null,
  categories: readonly Category[],
): Promise<void> {
  await knexOf(db)("category").insert(
    categories.map(({ id, parentId, code, name, ink }, position) => ({
      id,
      tray_id: trayId,
      parent_id: parentId,
      code,
      name,
      ink,
      position,
    })),
  );
}
