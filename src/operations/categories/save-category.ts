import type { Category, CategoryDraft } from "../../core/categories/category";
import { withAllUnder } from "../../core/categories/category-tree";
import { proposeCode } from "../../core/categories/propose-code";
import { type CategoryId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import type { TrayGrant } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import {
  addCategories,
  categoriesOf,
  MAX_CATEGORIES,
  orderCategories,
  saveCategory as write,
} from "../../storage/facts/index";
import { categoriesTexts } from "../../texts/en/categories";
import { saidOf } from "../../texts/said";
import type { Deps } from "../base/deps";
import {
  type CategoriesChanged,
  type CategoryChange,
  type CategoryRefusal,
  changeCategories,
  draftRefusal,
} from "./change-categories";

const said = saidOf(categoriesTexts);

type Changed<T> = Promise<Result<CategoriesChanged<T>, CategoryRefusal>>;
type Change<T> = Result<CategoryChange<T>, CategoryRefusal>;

/** Creates a category at the end of its level; without a code it gets one that its name suggests. */
export function createCategory(deps: Deps, grant: TrayGrant, draft: CategoryDraft): Changed<CategoryId> {
  return changeCategories(deps, grant, draft.trayId, async (trx, seen): Promise<Change<CategoryId>> => {
    if (seen.length >= MAX_CATEGORIES) return err({ kind: "too-many", most: MAX_CATEGORIES });
    const wanted = tidied(draft, seen);
    const refusal = draftRefusal(wanted, null, seen);
    if (refusal !== null) return err(refusal);
    const id = trustedId<CategoryId>(deps.newId());
    await addCategories(trx, [{ ...wanted, id, retired: false }], deps.now());
    return ok({ words: said("categories.createdInSteps", { name: wanted.name }), value: id });
  });
}

/** Changes what a category is called, how it looks and where it stands; everywhere at once, as it is one and the same. */
export function changeCategory(
  deps: Deps,
  grant: TrayGrant,
  id: CategoryId,
  change: Partial<Omit<CategoryDraft, "trayId">>,
): Changed<null> {
  return onCategory(deps, grant, id, async (trx, category, seen): Promise<Change<null>> => {
    const { id: _, retired, ...before } = category;
    const wanted = tidied(
      { ...before, ...change },
      seen.filter((one) => one.id !== id),
    );
    const refusal = draftRefusal(wanted, id, seen);
    if (refusal !== null) return err(refusal);
    await write(trx, { ...wanted, id, retired }, deps.now());
    const isRenamed = wanted.name !== category.name;
    return ok({
      words: isRenamed
        ? said("categories.renamed", { name: category.name, to: wanted.name })
        : said("categories.changed", { name: category.name }),
      value: null,
    });
  });
}

/** Where a category is put: under which other (null at the top), and before which of those there (null at the end). */
export type CategoryPlace = { readonly parentId: CategoryId | null; readonly before: CategoryId | null };

/** Puts a category, with everything under it, at another place of the tree. */
export function placeCategory(deps: Deps, grant: TrayGrant, id: CategoryId, place: CategoryPlace): Changed<null> {
  return onCategory(deps, grant, id, async (trx, category, seen): Promise<Change<null>> => {
    const { id: _, retired, ...before } = category;
    const wanted = { ...before, parentId: place.parentId };
    const refusal = draftRefusal(wanted, id, seen);
    if (refusal !== null) return err(refusal);
    const level = seen.filter((one) => one.parentId === place.parentId && one.id !== id);
    const at = place.before === null ? -1 : level.findIndex((one) => one.id === place.before);
    const [above, below] = at === -1 ? [level, []] : [level.slice(0, at), level.slice(at)];
    await write(trx, { ...wanted, id, retired }, deps.now());
    await orderCategories(
      trx,
      [...above, category, ...below].map((one) => one.id),
    );
    return ok({ words: said("categories.movedInSteps", { name: category.name }), value: null });
  });
}

/** Offers a category no longer, with everything under it; what has it keeps it. */
export function retireCategory(deps: Deps, grant: TrayGrant, id: CategoryId): Changed<null> {
  return onCategory(deps, grant, id, async (trx, category, seen): Promise<Change<null>> => {
    const under = withAllUnder(seen, id);
    const ending = seen.filter((one) => under.has(one.id) && !one.retired);
    if (ending.length === 0) return ok({ words: null, value: null });
    for (const one of ending) await write(trx, { ...one, retired: true }, deps.now());
    return ok({ words: said("categories.retiredInSteps", { name: category.name }), value: null });
  });
}

/** Offers a retired category again, with those above it. */
export function bringBackCategory(deps: Deps, grant: TrayGrant, id: CategoryId): Changed<null> {
  return onCategory(deps, grant, id, async (trx, category, seen): Promise<Change<null>> => {
    const back = seen.filter((one) => one.retired && withAllUnder(seen, one.id).has(id));
    if (back.length === 0) return ok({ words: null, value: null });
    // Its key may be another's by now, which keeps it.
    const keys = new Set(seen.flatMap(({ key, retired }) => (retired ? [] : (key ?? []))));
    for (const one of back) {
      const key = one.key !== null && keys.has(one.key) ? null : one.key;
      await write(trx, { ...one, key, retired: false }, deps.now());
    }
    return ok({ words: said("categories.broughtBack", { name: category.name }), value: null });
  });
}

/** Changes one category of those that are seen in a tray, within its own scope. */
export async function onCategory<T>(
  deps: Deps,
  grant: TrayGrant,
  id: CategoryId,
  change: (trx: Transaction, category: Category, seen: readonly Category[]) => Promise<Change<T>>,
): Changed<T> {
  const known = (await categoriesOf(deps.db, grant.tray.id)).find((one) => one.id === id);
  if (known === undefined) return err({ kind: "no-such", what: "category" });
  return changeCategories(deps, grant, known.trayId, async (trx, seen): Promise<Change<T>> => {
    const category = seen.find((one) => one.id === id);
    return category === undefined ? err({ kind: "no-such", what: "category" }) : change(trx, category, seen);
  });
}

// As it is kept: without space around the words, the code in capitals, proposed where there is none.
function tidied(draft: CategoryDraft, others: readonly Category[]): CategoryDraft {
  const name = draft.name.trim().replaceAll(/\s+/g, " ");
  const code = draft.code.trim().toUpperCase() || proposeCode(name, new Set(others.map((other) => other.code)));
  return { ...draft, name, code, key: draft.key?.trim().toLowerCase() || null, description: draft.description.trim() };
}
