import type { RuleId } from "../../core/kernel/ids";
import { type Instant, instant } from "../../core/kernel/instant";
import { err, type Result } from "../../core/kernel/result";
import type { TrayGrant } from "../../storage/access/index";
import { rulesSeenBy } from "../../storage/rules/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { ruleRefusal } from "../rules/rule-rights";
import { type UndoneOrRunning, undoSteps } from "./undo-steps";

/** Takes back what a version of a rule did (0: before versions were kept) since a moment (null: ever); for those who may change it. */
export async function undoRuleVersion(
  deps: Deps,
  grant: TrayGrant,
  { id, version, since }: { readonly id: RuleId; readonly version: number; readonly since: Instant | null },
): Promise<Result<UndoneOrRunning, Refusal>> {
  const rule = (await rulesSeenBy(deps.db, grant)).find((one) => one.id === id);
  const refusal = ruleRefusal(grant, rule ?? {});
  if (refusal !== null) return err(refusal);
  return undoSteps(deps, grant, { ruleId: id, version, since: since ?? instant(0) });
}
