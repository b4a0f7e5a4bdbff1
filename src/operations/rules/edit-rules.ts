import { type RuleId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { checkRule, type RuleProblems } from "../../core/rules/check-rule";
import { withoutLoneGroups } from "../../core/rules/condition";
import type { NamedKind } from "../../core/rules/gone-names";
import { namedBy } from "../../core/rules/named-by";
import type { Rule } from "../../core/rules/rule";
import { groupsOf, membersWithRoles, type TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { contactsByIds, templatesOfTray } from "../../storage/conversation/index";
import { categoriesOf, lockCategoriesForShare } from "../../storage/facts/index";
import { recordsByIds } from "../../storage/records/index";
import {
  type KeptRule,
  keepRuleVersions,
  orderRules,
  removeRule,
  roundsOf,
  rulesSeenBy,
  ruleToChange,
  saveRule,
  stoppedRules,
} from "../../storage/rules/index";
import { rulesTexts } from "../../texts/en/rules";
import { saidOf } from "../../texts/said";
import type { Asking, Deps, Within } from "../base/deps";
import { cachedTrays, ownAddresses } from "../base/routing-cache";
import type { Refusal } from "../refusals/refusal";
import { withDetails } from "./rule-details";
import { mayKeepEverywhere, ruleRefusal } from "./rule-rights";
import { tryRule } from "./try-rule";

const said = saidOf(rulesTexts);

/** Why a rule was not kept: something is wrong with it, or with keeping it, or it would sweep away most of what comes. */
export type RuleRefusal =
  | Refusal
  | { readonly kind: "problems"; readonly problems: RuleProblems }
  | { readonly kind: "sweeping"; readonly count: number; readonly of: number; readonly trayName: string };

/** A rule as it is edited; without an id it is a new one. Whose it is stays what it was in the beginning. */
export type RuleDraft = Omit<Rule, "id" | "version"> & { readonly id: RuleId | null };

/** A rule, and the name of the tray that keeps it where that is another one, in which it is changed. */
export type SeenRule = KeptRule & { readonly keptIn: string | null };

/** The rules that are asked in a tray in their order: its own, those of all trays, and the member's own. */
export async function getRules(deps: Deps, grant: TrayGrant): Promise<readonly SeenRule[]> {
  const [rules, trays] = [await rulesSeenBy(deps.db, grant), await cachedTrays(deps)];
  const nameOf = (id: KeptRule["trayId"]) => trays.find((tray) => tray.id === id)?.name ?? "";
  return rules.map((rule) => ({ ...rule, keptIn: rule.trayId === grant.tray.id ? null : nameOf(rule.trayId) }));
}

/** Of the rules that are asked in a tray those that are stopped, as they name what is no more, and which kinds of things. */
export async function getStoppedRules(
  deps: Asking,
  grant: TrayGrant,
): Promise<ReadonlyMap<RuleId, readonly NamedKind[]>> {
  return stoppedRules(deps.db, await rulesSeenBy(deps.db, grant));
}

/** Keeps a rule; a tray's for those who lead it, one of all trays for those who lead them all. One that would throw away most of what comes needs the tray's name. */
export async function editRule(
  deps: Deps,
  grant: TrayGrant,
  draft: RuleDraft,
  typedName = "",
): Promise<Result<RuleId, RuleRefusal>> {
  const first = ruleRefusal(grant, draft);
  if (first !== null) return err(first);
  const swept = typedName.trim() === grant.tray.name ? null : await sweptBy(deps, grant, draft);
  if (swept !== null) return err({ kind: "sweeping", ...swept, trayName: grant.tray.name });
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<RuleId, RuleRefusal>> => {
    // A category must not end while a rule comes to give it.
    await lockCategoriesForShare(trx);
    const refusal = (await draftRefusal(trx, deps, grant, draft)) ?? (await actionRefusal(trx, grant, draft));
    if (refusal !== null) return err(refusal);
    const detailed = await withDetails({ ...deps, db: trx }, grant, draft);
    if ("problems" in detailed) return err({ kind: "problems", problems: detailed.problems });
    const id = draft.id ?? trustedId<RuleId>(deps.newId());
    const which = {
      condition: withoutLoneGroups(draft.condition),
      exception: draft.exception === null ? null : withoutLoneGroups(draft.exception),
    };
    await saveRule(trx, { ...detailed, ...which, name: draft.name.trim(), id, trayId: grant.tray.id });
    await keepRuleVersions(trx, grant.memberId, deps.now());
    return ok(id);
  });
}

// Among the rules that are there: it is one of them, or stands beside them.
async function draftRefusal(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  draft: RuleDraft,
): Promise<RuleRefusal | null> {
  const rules = (await rulesSeenBy(trx, grant)).filter(
    ({ trayId, memberId }) => trayId === grant.tray.id && memberId === draft.memberId,
  );
  const before = rules.find(({ id }) => id === draft.id);
  if (draft.id !== null && before === undefined) return { kind: "no-such", what: "rule" };
  const others = rules.filter(({ id }) => id !== draft.id);
  const wrong = checkRule(draft, others, await ownAddresses({ ...deps, db: trx }));
  const mayBeOfAll = await mayKeepEverywhere(trx, deps, grant, [draft, before ?? {}]);
  const problems = mayBeOfAll ? wrong : { everywhere: said("rules.leadsOfAllTrays"), ...wrong };
  return Object.keys(problems).length > 0 ? { kind: "problems", problems } : null;
}

// What takes so much of what came out of sight is asked about twice.
const SWEEPS = 0.5;
const FEW = 20;

async function sweptBy(
  deps: Deps,
  grant: TrayGrant,
  draft: RuleDraft,
): Promise<{ readonly count: number; readonly of: number } | null> {
  if (!draft.isOn || !draft.actions.some(({ kind }) => kind === "bin" || kind === "junk")) return null;
  const tried = await tryRule(deps, grant, draft);
  if (!tried.ok) return null;
  const { count, of } = tried.value;
  return count >= FEW && count > of * SWEEPS ? { count, of } : null;
}

async function actionRefusal(trx: Transaction, grant: TrayGrant, draft: RuleDraft): Promise<Refusal | null> {
  const refusal = await namedRefusal(trx, grant, draft);
  if (refusal !== null) return refusal;
  const owners = draft.actions.flatMap((action) => (action.kind === "assign" ? [action.ownerId] : []));
  const members = owners.length === 0 ? [] : await membersWithRoles(trx, grant.tray.id);
  const reader = members.find(({ id, role }) => role === "reader" && owners.includes(id));
  return reader === undefined ? null : { kind: "only-reads", name: reader.name };
}

/** Why something cannot name what it names, as there is none of that in the tray, or none that its author may know of; null when it can. */
export async function namedRefusal(
  trx: Transaction,
  grant: TrayGrant,
  rule: Pick<Rule, "condition" | "exception" | "actions">,
): Promise<Refusal | null> {
  const named = namedBy([rule]);
  const known = new Set((await categoriesOf(trx, grant.tray.id)).map(({ id }) => id));
  if (named.categories.some((id) => !known.has(id))) return { kind: "no-such", what: "category" };
  const records = new Set((await recordsByIds(trx, grant, named.records)).map(({ id }) => id));
  if (named.records.some((id) => !records.has(id))) return { kind: "no-such", what: "record" };
  const contacts = new Set((await contactsByIds(trx, grant.tray.id, named.contacts)).map(({ id }) => id));
  if (named.contacts.some((id) => !contacts.has(id))) return { kind: "no-such", what: "contact" };
  const rounds = new Set((await roundsOf(trx, grant.tray.id)).map(({ id }) => id));
  if (named.rounds.some((id) => !rounds.has(id))) return { kind: "no-such", what: "round" };
  const groups = new Set((await groupsOf(trx, grant)).map(({ id }) => id));
  if (named.groups.some((id) => !groups.has(id))) return { kind: "no-such", what: "group" };
  const templates = new Set((await templatesOfTray(trx, grant.tray.id)).map(({ id }) => id));
  if (named.templates.some((id) => !templates.has(id))) return { kind: "no-such", what: "template" };
  const members = new Set((await membersWithRoles(trx, grant.tray.id)).map(({ id }) => id));
  return named.members.some((id) => !members.has(id)) ? { kind: "no-such", what: "member" } : null;
}

/** Takes a rule away, or brings it back; for those who may change it. */
export async function dropRule(
  deps: Deps,
  grant: TrayGrant,
  id: RuleId,
  drops: boolean,
): Promise<Result<null, Refusal>> {
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<null, Refusal>> => {
    const rule = await ruleToChange(trx, grant.tray.id, id);
    if (rule === null) return err(grant.role === "lead" ? { kind: "no-such", what: "rule" } : { kind: "leads-only" });
    const refusal = ruleRefusal(grant, rule);
    if (refusal !== null) return err(refusal);
    if (!(await mayKeepEverywhere(trx, deps, grant, [rule]))) return err({ kind: "leads-of-all-only" });
    await removeRule(trx, id, drops ? deps.now() : null);
    return ok(null);
  });
}

/** Has the tray's rules asked in another order; for those who lead it. */
export async function placeRules(deps: Deps, grant: TrayGrant, ids: readonly RuleId[]): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  await orderRules(deps.db, grant.tray.id, ids);
  return ok(null);
}
