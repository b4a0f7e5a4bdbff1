import {
  CATEGORY_COLUMNS,
  linesOfCategories,
  type PlannedLine,
  planCategoryTable,
} from "../../core/categories/category-table";
import { STARTING_SETS } from "../../core/categories/starting-sets";
import type { TrayId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { readTable, writeTable } from "../../mail/index";
import type { TrayGrant } from "../../storage/access/index";
import { addCategories, categoriesOf, MAX_CATEGORIES, saveCategory } from "../../storage/facts/index";
import { categoriesTexts } from "../../texts/en/categories";
import { type Said, saidOf } from "../../texts/said";
import { noteExport } from "../base/access-log";
import type { Deps } from "../base/deps";
import { writtenDown } from "../base/written-down";
import {
  type CategoriesChanged,
  type CategoryChange,
  type CategoryRefusal,
  changeCategories,
} from "./change-categories";

const said = saidOf(categoriesTexts);

/** The categories of a tray, its own and those of all, as CSV (RFC 4180). */
export async function exportCategories(deps: Deps, grant: TrayGrant): Promise<string> {
  const categories = await categoriesOf(deps.db, grant.tray.id);
  await noteExport(deps, grant, "categories", categories.length, "CSV");
  return writeTable(CATEGORY_COLUMNS, linesOfCategories(categories));
}

/** A line of a file of categories with its number in the file, and what it comes to. */
export type ReportedLine = PlannedLine & { readonly line: number };

/** What a file of categories would change in a tray, line by line, without changing anything. */
export async function tryCategoryTable(
  deps: Deps,
  grant: TrayGrant,
  text: string,
): Promise<Result<readonly ReportedLine[], Said>> {
  const table = readTable(text, CATEGORY_COLUMNS);
  if (!table.ok) return table;
  const seen = await categoriesOf(deps.db, grant.tray.id);
  return ok(reported(table.value, planCategoryTable(lines(table.value), seen, grant.tray.id, deps.newId)));
}

type TableRow = { readonly line: number; readonly cells: Readonly<Record<string, string>> };
const lines = (rows: readonly TableRow[]) => rows.map(({ cells }) => cells);

function reported(rows: readonly TableRow[], planned: readonly PlannedLine[]): ReportedLine[] {
  return planned.map((plan, at) => ({ ...plan, line: rows[at]?.line ?? at + 1 }));
}

type Imported = Promise<Result<CategoriesChanged<readonly ReportedLine[]>, CategoryRefusal>>;

/** Takes a file of categories into a tray: what is right in it in one step, the rest is reported. The text has been tried. */
export async function importCategories(deps: Deps, grant: TrayGrant, text: string): Imported {
  const table = readTable(text, CATEGORY_COLUMNS);
  if (!table.ok) return err({ kind: "nothing-chosen" });
  return takeIn(deps, grant, grant.tray.id, table.value, said("categories.tookCategoriesInFromA"));
}

/** Gives a tray the categories of a starting set; those that it has already stay as they are. */
export async function beginWithSet(deps: Deps, grant: TrayGrant, setId: string): Imported {
  const set = STARTING_SETS.find(({ id }) => id === setId);
  if (set === undefined) return err({ kind: "nothing-chosen" });
  const rows = set.categories.map(({ name, ink, under }, at) => ({
    line: at + 1,
    cells: { path: [under, name].flatMap((one) => (one === undefined ? [] : writtenDown(one))).join(" › "), ink },
  }));
  return takeIn(deps, grant, grant.tray.id, rows, said("categories.beganWithTheSet", { name: set.name }));
}

function takeIn(deps: Deps, grant: TrayGrant, scope: TrayId, rows: readonly TableRow[], words: Said): Imported {
  type TakenIn = Result<CategoryChange<readonly ReportedLine[]>, CategoryRefusal>;
  return changeCategories(deps, grant, scope, async (trx, seen): Promise<TakenIn> => {
    const planned = planCategoryTable(lines(rows), seen, scope, deps.newId);
    const added = planned.flatMap((plan) => (plan.kind === "new" ? [plan.category] : []));
    const changed = planned.flatMap((plan) => (plan.kind === "changed" ? [plan.category] : []));
    if (seen.length + added.length > MAX_CATEGORIES) return err({ kind: "too-many", most: MAX_CATEGORIES });
    await addCategories(trx, added, deps.now());
    for (const category of changed) await saveCategory(trx, category, deps.now());
    const isNothing = added.length + changed.length === 0;
    return ok({ words: isNothing ? null : words, value: reported(rows, planned) });
  });
}
