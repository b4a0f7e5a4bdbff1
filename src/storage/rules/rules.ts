import { type CategoryId, type MemberId, type RuleId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Condition } from "../../core/rules/condition";
import { ON_ARRIVAL, type Rule, type RuleAction, type RuleMoment } from "../../core/rules/rule";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { atOrNull, param } from "../base/rows";

export type KeptRule = Rule & { readonly trayId: TrayId };

/** What of a rule changes from version to version. */
export type RuleRow = {
  name: string;
  is_on: boolean;
  condition: Condition;
  exception: Condition | null;
  actions: RuleAction[];
  is_last: boolean;
  moment: RuleMoment;
  valid_from: Date | null;
  valid_until: Date | null;
  everywhere: boolean;
  version: number;
};
type KeptRow = RuleRow & { id: string; tray_id: string; member_id: string | null };

function keptRuleOf(row: KeptRow): KeptRule {
  const own = row.member_id === null ? {} : { memberId: trustedId<MemberId>(row.member_id) };
  return { id: trustedId<RuleId>(row.id), trayId: trustedId<TrayId>(row.tray_id), ...own, ...ruleOf(row) };
}

export function ruleOf(row: RuleRow): Omit<Rule, "id"> {
  return {
    name: row.name,
    isOn: row.is_on,
    condition: row.condition,
    exception: row.exception,
    actions: row.actions,
    isLast: row.is_last,
    times: { moment: row.moment, from: atOrNull(row.valid_from), until: atOrNull(row.valid_until) },
    ...(row.everywhere ? { isEverywhere: true } : {}),
    version: row.version,
  };
}

const VERSION = /* sql */ `
  (select coalesce(max(rule_version.version), 0) from rule_version where rule_id = rule.id) as version`;

/** The rules of all trays, each tray's in the order in which they are asked. */
export async function allRules(db: Database): Promise<KeptRule[]> {
  const builder = knexOf(db);
  const rows: KeptRow[] = await builder("rule")
    .select("rule.*", builder.raw(VERSION))
    .whereNull("removed_at")
    .orderBy("position")
    .orderBy("id");
  return rows.map(keptRuleOf);
}

/** Of all rules those that are asked in a tray, in the order in which they are: its own, those of all trays, members' own. */
export function askedIn<R extends Pick<KeptRule, "trayId" | "memberId" | "isEverywhere">>(
  trayId: TrayId,
  all: readonly R[],
): R[] {
  const isIts = (rule: R) => rule.trayId === trayId;
  const ofTrays = all.filter(({ memberId }) => memberId === undefined);
  const elsewhere = ofTrays.filter((rule) => !isIts(rule) && rule.isEverywhere === true);
  const own = all.filter((rule) => rule.memberId !== undefined && (isIts(rule) || rule.isEverywhere === true));
  return [...ofTrays.filter(isIts), ...elsewhere, ...own];
}

/** The rules that a tray keeps as its own, in the order in which they are asked. */
export async function rulesOf(db: Database, trayId: TrayId): Promise<KeptRule[]> {
  return (await allRules(db)).filter((rule) => rule.trayId === trayId && rule.memberId === undefined);
}

/** The rules that are asked in a tray as far as a member sees them: not the own ones of others. */
export async function rulesSeenBy(
  db: Database,
  { tray, memberId }: Pick<TrayGrant, "tray" | "memberId">,
): Promise<KeptRule[]> {
  const asked = askedIn(tray.id, await allRules(db));
  return asked.filter((rule) => rule.memberId === undefined || rule.memberId === memberId);
}

/** Keeps a rule as it is now, a new one after all others; its version is still to be kept. */
export async function saveRule(trx: Transaction, rule: KeptRule): Promise<void> {
  const builder = knexOf(trx);
  const { name, isOn, isLast, times = ON_ARRIVAL } = rule;
  const columns = {
    name,
    is_on: isOn,
    is_last: isLast,
    condition: JSON.stringify(rule.condition),
    exception: rule.exception === null ? null : JSON.stringify(rule.exception),
    actions: JSON.stringify(rule.actions),
    moment: times.moment,
    valid_from: param(times.from),
    valid_until: param(times.until),
    everywhere: rule.isEverywhere ?? false,
  };
  const position = builder("rule").select(builder.raw("coalesce(max(position), 0) + 1")).where("tray_id", rule.trayId);
  await builder("rule")
    .insert({ id: rule.id, tray_id: rule.trayId, member_id: rule.memberId ?? null, position, ...columns })
    .onConflict("id")
    .merge(columns);
}

/** A rule that a tray keeps, also one that was taken away, held until the transaction ends; null where there is none. */
export async function ruleToChange(trx: Transaction, trayId: TrayId, id: RuleId): Promise<KeptRule | null> {
  const builder = knexOf(trx);
  const [row]: KeptRow[] = await builder("rule")
    .select("rule.*", builder.raw(VERSION))
    .where({ id, tray_id: trayId })
    .forUpdate("rule");
  return row === undefined ? null : keptRuleOf(row);
}

/** Takes a rule away (`at`), or brings it back (null). */
export async function removeRule(trx: Transaction, id: RuleId, at: Instant | null): Promise<void> {
  await knexOf(trx)("rule")
    .where({ id })
    .update({ removed_at: param(at) });
}

/** Gives the rules that a tray keeps as its own another order; those that are not named come after. */
export async function orderRules(trx: Database, trayId: TrayId, ids: readonly RuleId[]): Promise<void> {
  await ask(
    trx,
    /* sql */ `
    update rule set position = coalesce(array_position(cast(:ids as uuid[]), id), cardinality(cast(:ids as uuid[])) + 1)
    where tray_id = :trayId and member_id is null`,
    { ids: [...ids], trayId },
  );
}

/** The rules, of whichever tray, that have to do with a category; held until the transaction ends. */
export async function rulesNamingCategory(trx: Transaction, id: CategoryId): Promise<KeptRule[]> {
  const builder = knexOf(trx);
  const rows: KeptRow[] = await builder("rule")
    .select("rule.*", builder.raw(VERSION))
    .whereNull("removed_at")
    // Ids stand nowhere but where something is named.
    .whereRaw("strpos(concat(condition, exception, actions), ?) > 0", [id])
    .orderBy("id")
    .forUpdate("rule");
  return rows.map(keptRuleOf);
}
