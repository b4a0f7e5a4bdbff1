import type { Category, CategoryDraft } from "../../core/categories/category";
import { type CategoryProblems, checkCategory } from "../../core/categories/check-category";
import { type CategoryStepId, type TrayId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { allTrays, grantsOf, mayMembersChangeCategories, type TrayGrant } from "../../storage/access/index";
import { inTransaction, type Transaction } from "../../storage/base/index";
import { asCategoryStep, type CategoryUses } from "../../storage/categories/index";
import { lockCategories } from "../../storage/facts/index";
import type { Said } from "../../texts/said";
import type { Deps } from "../base/deps";
import { writtenDown } from "../base/written-down";
import type { Refusal } from "../refusals/refusal";

/** Why a change of categories was not made: as with anything, or for what is wrong in some fields. */
export type CategoryRefusal =
  | Refusal
  | { readonly kind: "problems"; readonly problems: CategoryProblems }
  /** What uses it is not what was announced; `uses` is how it is now. */
  | { readonly kind: "uses-changed"; readonly uses: CategoryUses };

/** What is changed when a change of categories is carried out, and what it is called; null words where nothing was to be done. */
export type CategoryChange<T> = { readonly words: Said | null; readonly value: T };

/** What came of a change, and the step to take it back by; null where nothing was to be done. */
export type CategoriesChanged<T> = { readonly value: T; readonly stepId: CategoryStepId | null };

/**
 * Changes categories of a tray (`scope` its id) or of all trays (null): alone, checked for the right to, kept as one step
 * that can be taken back. `change` gets the categories as they are seen where the change is seen: in all trays for those
 * of all.
 */
export async function changeCategories<T>(
  deps: Deps,
  grant: TrayGrant,
  scope: TrayId | null,
  change: (trx: Transaction, seen: readonly Category[]) => Promise<Result<CategoryChange<T>, CategoryRefusal>>,
): Promise<Result<CategoriesChanged<T>, CategoryRefusal>> {
  const refusal = await categoryRight(deps, grant, scope);
  if (refusal !== null) return err(refusal);
  const stepId = trustedId<CategoryStepId>(deps.newId());
  const done = await inTransaction(deps.db, async (trx): Promise<Result<CategoryChange<T>, CategoryRefusal>> => {
    const all = await lockCategories(trx);
    const step = { id: stepId, trayId: scope, at: deps.now(), by: grant.memberId };
    const kept = await asCategoryStep(trx, step, async () => {
      const changed = await change(trx, seenIn(all, scope));
      return { words: changed.ok && changed.value.words !== null ? writtenDown(changed.value.words) : null, changed };
    });
    return kept.changed;
  });
  if (!done.ok) return done;
  if (done.value.words === null) return ok({ value: done.value.value, stepId: null });
  await publishCategoryChange(deps, scope);
  return ok({ value: done.value.value, stepId });
}

/** The categories that are seen where one of this scope is seen: everywhere for one of all trays. */
export function seenIn(all: readonly Category[], scope: TrayId | null): Category[] {
  return scope === null ? [...all] : all.filter(({ trayId }) => trayId === null || trayId === scope);
}

/** Why a member may not change categories of a tray, or of all trays (null); null when she may. */
export async function categoryRight(deps: Deps, grant: TrayGrant, scope: TrayId | null): Promise<Refusal | null> {
  if (grant.role === "reader") return { kind: "readers-only-read" };
  if (scope === null) return (await leadsEverything(deps, grant)) ? null : { kind: "leads-of-all-only" };
  if (scope !== grant.tray.id) return { kind: "no-such", what: "tray" };
  if (grant.role === "lead" || (await mayMembersChangeCategories(deps.db, grant.tray))) return null;
  return { kind: "leads-only" };
}

// What is common to all trays is changed by those who answer for all of them.
async function leadsEverything(deps: Deps, grant: TrayGrant): Promise<boolean> {
  const [grants, trays] = await Promise.all([grantsOf(deps.db, grant.memberId, deps.now()), allTrays(deps.db)]);
  return grants.filter(({ role }) => role === "lead").length === trays.length;
}

/** Tells the open screens of a tray, or of all trays, that categories changed. */
export async function publishCategoryChange(deps: Deps, scope: TrayId | null): Promise<void> {
  const ids = scope === null ? (await allTrays(deps.db)).map(({ id }) => id) : [scope];
  for (const trayId of ids) deps.publishChange({ trayId, conversationId: null });
}

/** The refusal for a draft that may not be so; null when it may. */
export function draftRefusal(
  draft: CategoryDraft,
  id: Category["id"] | null,
  seen: readonly Category[],
): CategoryRefusal | null {
  const problems = checkCategory(draft, id, seen);
  return Object.keys(problems).length === 0 ? null : { kind: "problems", problems };
}
