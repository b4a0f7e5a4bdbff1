import type { Category } from "../../core/categories/category";
import { inTreeOrder, type Placed, withAllUnder } from "../../core/categories/category-tree";
import type { CategoryId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { mayMembersChangeCategories, type TrayGrant } from "../../storage/access/index";
import {
  type CategoryCount,
  type CategoryFigures,
  type CategoryStep,
  categorySteps,
  countsByCategory,
  figuresOfCategory,
  type MatrixCell,
  matrixOfCategories,
} from "../../storage/categories/index";
import { categoriesOf } from "../../storage/facts/index";
import type { Deps } from "../base/deps";
import { categoryRight } from "./change-categories";

const STEPS_SHOWN = 12;
/** How many weeks the page of a category looks back. */
export const TREND_WEEKS = 12;

/** The categories of a tray, for whoever looks after them. */
export type CategoryCare = {
  readonly categories: readonly (Placed<Category> & Omit<CategoryCount, "id">)[];
  readonly steps: readonly CategoryStep[];
  /** Whether the viewer may change those of the tray, and those of all trays. */
  readonly mayChange: { readonly own: boolean; readonly common: boolean };
  /** Whether all members may, and not only those who lead. */
  readonly membersMay: boolean;
};

/** All categories of a tray as their tree is read, with how many conversations each has, and what was lately changed. */
export async function getCategoriesInCare(deps: Deps, grant: TrayGrant): Promise<CategoryCare> {
  const [categories, counts, steps, own, common, membersMay] = await Promise.all([
    categoriesOf(deps.db, grant.tray.id),
    deps.memory.recall(grant.tray.id, "counts", "categories", () => countsByCategory(deps.db, grant)),
    categorySteps(deps.db, grant.tray.id, STEPS_SHOWN),
    categoryRight(deps, grant, grant.tray.id),
    categoryRight(deps, grant, null),
    mayMembersChangeCategories(deps.db, grant.tray),
  ]);
  const counted = new Map(counts.map((count) => [count.id, count]));
  return {
    categories: inTreeOrder(categories).map((category) => {
      const { open, all } = counted.get(category.id) ?? { open: 0, all: 0 };
      return { ...category, open, all };
    }),
    steps,
    mayChange: { own: own === null, common: common === null },
    membersMay,
  };
}

/** A category with what it comes to. */
export type CategoryPage = {
  readonly category: Placed<Category>;
  readonly under: readonly Placed<Category>[];
  readonly figures: CategoryFigures;
  readonly until: Instant;
};

/** Looks at one category of a tray, with those under it; null when there is none. */
export async function getCategory(deps: Deps, grant: TrayGrant, id: CategoryId): Promise<CategoryPage | null> {
  const categories = inTreeOrder(await categoriesOf(deps.db, grant.tray.id));
  const category = categories.find((one) => one.id === id);
  if (category === undefined) return null;
  const until = deps.now();
  const figures = await figuresOfCategory(deps.db, grant, id, { until, weeks: TREND_WEEKS });
  const under = withAllUnder(categories, id);
  return { category, under: categories.filter((one) => one.id !== id && under.has(one.id)), figures, until };
}

/** The open conversations of a tray by category against owner or standing. */
export function categoryMatrix(deps: Deps, grant: TrayGrant, against: "owner" | "standing"): Promise<MatrixCell[]> {
  return deps.memory.recall(grant.tray.id, "counts", `matrix ${against}`, () =>
    matrixOfCategories(deps.db, grant, against),
  );
}
