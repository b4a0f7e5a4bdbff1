import type { RuleId, RunId } from "../../core/kernel/ids";
import { err, type Result } from "../../core/kernel/result";
import type { TrayGrant } from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import { allOfTray } from "../../storage/facts/index";
import { rulesSeenBy } from "../../storage/rules/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { ruleRefusal } from "../rules/rule-rights";
import { beginRun } from "./bulk-run";

/** Begins to let a rule act on everything that is there, as the rule is now; for those who may change the rule. */
export async function startRuleRun(
  deps: Deps,
  grant: TrayGrant,
  id: RuleId,
  words: string,
): Promise<Result<RunId, Refusal>> {
  const rule = (await rulesSeenBy(deps.db, grant)).find((one) => one.id === id);
  if (rule === undefined) return err({ kind: "no-such", what: "rule" });
  const refusal = ruleRefusal(grant, rule);
  if (refusal !== null) return err(refusal);
  const ids = await inTransaction(deps.db, (trx) => allOfTray(trx, grant.tray));
  return beginRun(deps, grant, ids, { kind: "rule", rule }, words);
}
