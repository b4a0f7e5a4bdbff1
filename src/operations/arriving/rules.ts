import { type MemberId, type RecordId, type RuleId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { whyRuleHolds } from "../../core/rules/match-rule";
import { checkRule, type Rule, type RuleProblems } from "../../core/rules/rule";
import { membersWithRoles, type TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { categoriesOf, lockCategoriesForShare } from "../../storage/facts/index";
import { newestArrivals, orderRules, removeRule, rulesOf, saveRule } from "../../storage/mail/index";
import { recordsByIds } from "../../storage/records/index";
import type { Wording } from "../../texts/said";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";

/** Why a rule was not kept: something is wrong with it, or with keeping it. */
export type RuleRefusal = Refusal | { readonly kind: "problems"; readonly problems: RuleProblems };

/** A rule as it is edited; without an id it is a new one. */
export type RuleDraft = Omit<Rule, "id"> & { readonly id: RuleId | null };

/** The rules of a tray in the order in which they are asked, with the codes of the records that they file to. */
export async function getRules(
  deps: Deps,
  grant: TrayGrant,
): Promise<{ readonly rules: readonly Rule[]; readonly codes: ReadonlyMap<RecordId, string> }> {
  const rules = await rulesOf(deps.db, grant.tray.id);
  const records = await recordsByIds(
    deps.db,
    grant,
    rules.flatMap(({ actions }) => actions.recordId ?? []),
  );
  return { rules, codes: new Map(records.map(({ id, code }) => [id, code])) };
}

/** Keeps a rule; for those who lead the tray. */
export async function editRule(deps: Deps, grant: TrayGrant, draft: RuleDraft): Promise<Result<RuleId, RuleRefusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<RuleId, RuleRefusal>> => {
    // A category must not end while a rule comes to give it.
    await lockCategoriesForShare(trx);
    const rules = await rulesOf(trx, grant.tray.id);
    if (draft.id !== null && !rules.some(({ id }) => id === draft.id)) return err({ kind: "no-such", what: "rule" });
    const problems = checkRule(
      draft,
      rules.filter(({ id }) => id !== draft.id),
    );
    if (Object.keys(problems).length > 0) return err({ kind: "problems", problems });
    const refusal = await actionRefusal(trx, grant, draft);
    if (refusal !== null) return err(refusal);
    const id = draft.id ?? trustedId<RuleId>(deps.newId());
    await saveRule(trx, { ...draft, name: draft.name.trim(), id, trayId: grant.tray.id });
    return ok(id);
  });
}

async function actionRefusal(trx: Transaction, grant: TrayGrant, { actions }: RuleDraft): Promise<Refusal | null> {
  const known = new Set((await categoriesOf(trx, grant.tray.id)).map(({ id }) => id));
  if (actions.categoryIds.some((id) => !known.has(id))) return { kind: "no-such", what: "category" };
  if (actions.recordId !== null && (await recordsByIds(trx, grant, [actions.recordId])).length === 0)
    return { kind: "no-such", what: "record" };
  return actions.ownerId === null ? null : ownerRefusal(trx, grant, actions.ownerId);
}

async function ownerRefusal(trx: Transaction, grant: TrayGrant, ownerId: MemberId): Promise<Refusal | null> {
  const owner = (await membersWithRoles(trx, grant.tray.id)).find(({ id }) => id === ownerId);
  if (owner === undefined) return { kind: "no-such", what: "member" };
  return owner.role === "reader" ? { kind: "only-reads", name: owner.name } : null;
}

/** Takes a rule away, or brings it back; for those who lead the tray. */
export async function dropRule(
  deps: Deps,
  grant: TrayGrant,
  id: RuleId,
  drops: boolean,
): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const found = await removeRule(deps.db, grant.tray.id, id, drops ? deps.now() : null);
  return found ? ok(null) : err({ kind: "no-such", what: "rule" });
}

/** Has the rules of a tray asked in another order; for those who lead it. */
export async function placeRules(deps: Deps, grant: TrayGrant, ids: readonly RuleId[]): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  await orderRules(deps.db, grant.tray.id, ids);
  return ok(null);
}

const TRIED_ON = 200;

/** What a rule would have been for. */
export type RuleTrial<Why = Wording> = {
  readonly of: number;
  readonly matches: readonly {
    readonly id: string;
    readonly who: string;
    readonly subject: string;
    readonly why: Why;
  }[];
};

/** For which of the newest messages of a tray a rule would have been. */
export async function tryRule(
  deps: Deps,
  grant: TrayGrant,
  rule: Pick<Rule, "conditions" | "exceptions">,
): Promise<RuleTrial> {
  const sample = await newestArrivals(deps.db, grant, TRIED_ON);
  const matches = sample.flatMap((message) => {
    const why = whyRuleHolds(rule, message);
    const { id, subject, fromName, from } = message;
    return why === null ? [] : [{ id, who: fromName || (from ?? ""), subject, why }];
  });
  return { of: sample.length, matches };
}
