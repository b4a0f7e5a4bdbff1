import type { Category } from "../../core/categories/category";
import { withAllUnder } from "../../core/categories/category-tree";
import type { CategoryId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { withValueReplaced } from "../../core/lists/filter";
import { withCategoryReplaced } from "../../core/rules/rule";
import type { TrayGrant } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import {
  type CategoryUses,
  refoldCategories,
  repointPlaces,
  requery,
  usesOfCategory,
  viewsWithCategory,
} from "../../storage/categories/index";
import { recategoriseContacts } from "../../storage/conversation/index";
import { removeCategory, saveCategory } from "../../storage/facts/index";
import { keepRuleVersions, rulesNamingCategory, saveRule } from "../../storage/rules/index";
import { categoriesTexts } from "../../texts/en/categories";
import { saidOf } from "../../texts/said";
import type { Deps, Within } from "../base/deps";
import { type CategoriesChanged, type CategoryChange, type CategoryRefusal, draftRefusal } from "./change-categories";
import { onCategory } from "./save-category";

const said = saidOf(categoriesTexts);

/** What uses a category, for saying so before it is merged or deleted. */
export function usesBeforeEnding(deps: Deps, id: CategoryId): Promise<CategoryUses> {
  return usesOfCategory(deps.db, id);
}

/** How a category ends: which other stands for it from now on (null for none), and what was announced to use it. */
export type CategoryEnding = { readonly by: CategoryId | null; readonly announced: CategoryUses };

/**
 * Ends a category: another stands for it wherever it is used, or it is taken off there. What it was in conversations,
 * saved views, rules, with contacts and on shelves is one step, which can be taken back exactly. Nothing is done when what uses it is no longer
 * what was announced.
 */
export function endCategory(
  deps: Deps,
  grant: TrayGrant,
  id: CategoryId,
  { by, announced }: CategoryEnding,
): Promise<Result<CategoriesChanged<{ readonly conversations: number }>, CategoryRefusal>> {
  type Ended = Result<CategoryChange<{ conversations: number }>, CategoryRefusal>;
  return onCategory(deps, grant, id, async (trx, category, seen): Promise<Ended> => {
    const successor = by === null ? null : (seen.find((one) => one.id === by) ?? null);
    const refusal = successorRefusal(category, by, successor) ?? (await usesRefusal(trx, id, announced));
    if (refusal !== null) return err(refusal);
    const moved = await moveChildren(trx, deps, category, successor, seen);
    if (moved !== null) return err(moved);
    for (const view of await viewsWithCategory(trx, id)) {
      await requery(trx, view.id, withValueReplaced(view.query, "category", id, by));
    }
    await repointPlaces(trx, "category", id, by);
    for (const rule of await rulesNamingCategory(trx, id)) await saveRule(trx, withCategoryReplaced(rule, id, by));
    await keepRuleVersions(trx, grant.memberId, deps.now());
    await recategoriseContacts(trx, id, by);
    await removeCategory(trx, id, by, deps.now());
    const conversations = await refoldCategories(trx, [id]);
    const words =
      successor === null
        ? said("categories.deleted", { name: category.name })
        : said("categories.mergedInto", { name: category.name, into: successor.name });
    return ok({ words, value: { conversations } });
  });
}

function successorRefusal(
  category: Category,
  by: CategoryId | null,
  successor: Category | null,
): CategoryRefusal | null {
  if (by === null) return null;
  if (successor === null || successor.id === category.id) return { kind: "no-such", what: "category" };
  if (successor.retired) return { kind: "category-retired", name: successor.name };
  // In the other trays nobody would know it.
  if (category.trayId === null && successor.trayId !== null) return { kind: "not-in-all-trays", name: successor.name };
  return null;
}

async function usesRefusal(trx: Transaction, id: CategoryId, announced: CategoryUses): Promise<CategoryRefusal | null> {
  const uses = await usesOfCategory(trx, id);
  const isAsSaid = (Object.keys(uses) as (keyof CategoryUses)[]).every((use) => uses[use] === announced[use]);
  return isAsSaid ? null : { kind: "uses-changed", uses };
}

// What stands under it goes on standing under its successor, or one level up where there is none.
async function moveChildren(
  trx: Transaction,
  deps: Within,
  category: Category,
  successor: Category | null,
  seen: readonly Category[],
): Promise<CategoryRefusal | null> {
  const isBelow = successor !== null && withAllUnder(seen, category.id).has(successor.id);
  const parentId = successor === null || isBelow ? category.parentId : successor.id;
  for (const child of seen.filter((one) => one.parentId === category.id)) {
    const { id, retired, ...draft } = { ...child, parentId };
    // The name of what ends is free again.
    const refusal = draftRefusal(
      draft,
      id,
      seen.filter((one) => one.id !== category.id),
    );
    if (refusal !== null) return { kind: "name-there", name: child.name };
    await saveCategory(trx, { ...draft, id, retired }, deps.now());
  }
  return null;
}
