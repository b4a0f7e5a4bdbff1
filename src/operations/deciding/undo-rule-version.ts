import type { RuleId } from "../../core/kernel/ids";
import { type Instant, instant } from "../../core/kernel/instant";
import { err, type Result } from "../../core/kernel/result";
import type { TrayGrant } from "../../storage/access/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { type UndoneOrRunning, undoSteps } from "./undo-steps";

/** Takes back what a version of a rule did (0: before versions were kept) since a moment (null: ever); for those who lead the tray. */
export async function undoRuleVersion(
  deps: Deps,
  grant: TrayGrant,
  { id, version, since }: { readonly id: RuleId; readonly version: number; readonly since: Instant | null },
): Promise<Result<UndoneOrRunning, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  return undoSteps(deps, grant, { ruleId: id, version, since: since ?? instant(0) });
}
