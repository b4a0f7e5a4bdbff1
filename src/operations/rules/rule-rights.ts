import type { Rule } from "../../core/rules/rule";
import type { TrayGrant } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import type { Within } from "../base/deps";
import { leadsEverywhere } from "../base/leads-everywhere";
import type { Refusal } from "../refusals/refusal";

/** Why a member may not keep or change a rule: a tray's is for those who lead it, a member's own for nobody else. */
export function ruleRefusal(grant: TrayGrant, { memberId }: Pick<Rule, "memberId">): Refusal | null {
  if (memberId === undefined) return grant.role === "lead" ? null : { kind: "leads-only" };
  return memberId === grant.memberId ? null : { kind: "no-such", what: "rule" };
}

/** Whether a member may keep rules as far as they are, or were, asked in all trays: a tray's only who leads every one. */
export async function mayKeepEverywhere(
  trx: Transaction,
  deps: Within,
  { memberId }: TrayGrant,
  rules: readonly Pick<Rule, "memberId" | "isEverywhere">[],
): Promise<boolean> {
  if (!rules.some((rule) => rule.isEverywhere === true && rule.memberId === undefined)) return true;
  return leadsEverywhere(trx, deps, memberId);
}
