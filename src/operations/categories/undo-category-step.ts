import { checkCategory } from "../../core/categories/check-category";
import type { CategoryStepId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import type { TrayGrant } from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import { refoldCategories, scopeOfStep, undoCategoryStep } from "../../storage/categories/index";
import { lockCategories } from "../../storage/facts/index";
import { keepRuleVersions } from "../../storage/rules/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { categoryRight, publishCategoryChange, seenIn } from "./change-categories";

/** Takes a change of categories back, if nothing of it was changed again since; gives what it had been, in words. */
export async function undoCategories(
  deps: Deps,
  grant: TrayGrant,
  stepId: CategoryStepId,
): Promise<Result<string, Refusal>> {
  const scope = await scopeOfStep(deps.db, stepId);
  if (scope === undefined) return err({ kind: "nothing-to-undo" });
  const refusal = await categoryRight(deps, grant, scope);
  if (refusal !== null) return err(refusal);
  const undone = await inTransaction(deps.db, async (trx) => {
    const all = await lockCategories(trx);
    const outcome = await undoCategoryStep(trx, stepId, {
      by: grant.memberId,
      now: deps.now(),
      mayBe: (restored) => {
        const next = [...all.filter(({ id }) => !restored.some((one) => one.id === id)), ...restored];
        return restored.every(({ id, ...draft }) => {
          return Object.keys(checkCategory(draft, id, seenIn(next, draft.trayId))).length === 0;
        });
      },
    });
    if (outcome.kind === "undone") await keepRuleVersions(trx, grant.memberId, deps.now());
    if (outcome.kind === "undone" && outcome.ended.length > 0) await refoldCategories(trx, outcome.ended);
    return outcome;
  });
  if (undone.kind === "none") return err({ kind: "nothing-to-undo" });
  if (undone.kind === "changed-since") return err({ kind: "changed-since" });
  await publishCategoryChange(deps, scope);
  return ok(undone.words);
}
