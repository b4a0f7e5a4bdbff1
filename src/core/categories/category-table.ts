import { categoriesTexts } from "../../texts/en/categories";
import { type Said, saidOf } from "../../texts/said";
import type { TrayId } from "../kernel/ids";
import { type CategoryId, trustedId } from "../kernel/ids";
import { INKS, type Ink } from "../kernel/ink";
import { type Category, type CategoryDraft, LISTED, type Listed } from "./category";
import { inTreeOrder, pathInWords } from "./category-tree";
import { checkCategory } from "./check-category";
import { proposeCode } from "./propose-code";

const said = saidOf(categoriesTexts);

/** The columns of a table of categories, in their order; only the path has to be there. */
export const CATEGORY_COLUMNS = ["path", "code", "ink", "key", "listed", "retired", "description"] as const;
type Column = (typeof CATEGORY_COLUMNS)[number];

/** A line of a table of categories: the path as "Invoices › Payment reminders", the rest as text. */
export type CategoryLine = { readonly [C in Column]?: string };

/** Categories as lines of a table, as their tree is read. */
export function linesOfCategories(categories: readonly Category[]): Required<CategoryLine>[] {
  return inTreeOrder(categories).map(({ path, code, ink, key, listed, retired, description }) => ({
    path: pathInWords(path),
    code,
    ink,
    key: key ?? "",
    listed,
    retired: retired ? "yes" : "",
    description,
  }));
}

/** What a line of a table comes to. */
export type PlannedLine = { readonly path: string } & (
  | { readonly kind: "new" | "changed" | "same"; readonly category: Category }
  | { readonly kind: "problem"; readonly problem: Said }
);

/**
 * What the lines of a table would make of the categories that are seen (`seen`) in a tray, or in all trays (`scope` null):
 * each line is new, changes the one of its path, changes nothing, or has a problem. A parent stands above its children.
 * `newId` gives the ids of the new ones.
 */
export function planCategoryTable(
  lines: readonly CategoryLine[],
  seen: readonly Category[],
  scope: TrayId | null,
  newId: () => string,
): PlannedLine[] {
  const known = new Map(inTreeOrder(seen).map(({ depth: _, path, ...category }) => [keyOf(path), category]));
  return lines.map((line): PlannedLine => {
    const path = readPath(line.path ?? "");
    const words = pathInWords(path);
    const planned = planLine(line, path, known, scope, newId);
    if ("values" in planned) return { path: words, kind: "problem", problem: planned };
    const before = known.get(keyOf(path));
    known.set(keyOf(path), planned);
    const kind = before === undefined ? "new" : isSame(before, planned) ? "same" : "changed";
    return { path: words, kind, category: planned };
  });
}

// "›" as we write it, ">" and "/" as it is typed.
function readPath(text: string): string[] {
  return text
    .split(/[›>/]/)
    .map((name) => name.trim().replaceAll(/\s+/g, " "))
    .filter((name) => name !== "");
}

function keyOf(path: readonly string[]): string {
  return path.join("\n").toLowerCase();
}

/** The category that a line makes, or what is wrong with it. */
function planLine(
  line: CategoryLine,
  path: readonly string[],
  known: ReadonlyMap<string, Category>,
  scope: TrayId | null,
  newId: () => string,
): Category | Said {
  const name = path.at(-1);
  if (name === undefined) return said("categories.itHasNoPath");
  const parent = path.length === 1 ? null : known.get(keyOf(path.slice(0, -1)));
  if (parent === undefined) return said("categories.thereIsNoAboveIt", { path: pathInWords(path.slice(0, -1)) });
  const before = known.get(keyOf(path));
  const others = [...known.values()].filter((one) => one.id !== before?.id);
  const read = readCells(line, before, parent);
  if ("values" in read) return read;
  const trayId = before === undefined ? scope : before.trayId;
  const code = read.code || before?.code || proposeCode(name, new Set(others.map((other) => other.code)));
  const draft: CategoryDraft = { ...read, code, trayId, parentId: parent?.id ?? null, name: before?.name ?? name };
  const id = before?.id ?? trustedId<CategoryId>(newId());
  const problem = Object.values(checkCategory(draft, before?.id ?? null, [...known.values()]))[0];
  if (problem !== undefined) return problem;
  const category = { ...draft, id, retired: isYes(line.retired) ?? before?.retired ?? false };
  const isOfAll = before !== undefined && before.trayId === null && scope !== null;
  return isOfAll && !isSame(before, category) ? said("categories.itIsCommonToAll") : category;
}

type Cells = Pick<CategoryDraft, "code" | "ink" | "key" | "listed" | "description">;

function readCells(line: CategoryLine, before: Category | undefined, parent: Category | null): Cells | Said {
  const ink = (line.ink ?? "").trim().toLowerCase() || before?.ink || parent?.ink || INKS[0];
  if (!INKS.includes(ink as Ink)) return said("categories.isNoneOfTheTwelve", { ink });
  const listed = (line.listed ?? "").trim().toLowerCase() || before?.listed || "open";
  if (!LISTED.includes(listed as Listed))
    return said("categories.isNoneOf", { listed, known: { all: LISTED, by: "comma" } });
  // A column that is not there leaves things as they are; one that is empty empties them.
  const key = line.key === undefined ? (before?.key ?? null) : line.key.trim().toLowerCase() || null;
  return {
    code: (line.code ?? "").trim().toUpperCase(),
    ink: ink as Ink,
    listed: listed as Listed,
    key,
    description: line.description?.trim() ?? before?.description ?? "",
  };
}

function isYes(text: string | undefined): boolean | undefined {
  if (text === undefined) return undefined;
  return ["yes", "true", "1", "retired"].includes(text.trim().toLowerCase());
}

const COMPARED = ["code", "ink", "key", "listed", "description", "retired", "parentId"] as const;

function isSame(a: Category, b: Category): boolean {
  return COMPARED.every((field) => a[field] === b[field]);
}
