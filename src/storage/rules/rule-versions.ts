import { type MemberId, type RuleId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Rule } from "../../core/rules/rule";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { atOrNull, param } from "../base/rows";
import { type RuleRow, ruleOf } from "./rules";

const OF_A_VERSION = [
  "name",
  "is_on",
  "is_last",
  "condition",
  "exception",
  "actions",
  "moment",
  "valid_from",
  "valid_until",
  "everywhere",
] as const;
const columnsOf = (table: string) => OF_A_VERSION.map((column) => `${table}.${column}`).join(", ");

/**
 * Keeps what rules are now as a version of its own where it is other than their newest: also where a change of something
 * that they name changed them. `by` is null where nobody in particular changed them.
 */
export async function keepRuleVersions(trx: Transaction, by: MemberId | null, at: Instant): Promise<void> {
  await ask(
    trx,
    /* sql */ `
    insert into rule_version (rule_id, version, at, member_id, ${OF_A_VERSION.join(", ")})
    select rule.id, coalesce(newest.version, 0) + 1, :at, :by, ${columnsOf("rule")}
    from rule left join lateral (
      select * from rule_version where rule_id = rule.id order by version desc limit 1
    ) as newest on true
    where rule.removed_at is null and (${columnsOf("rule")}) is distinct from (${columnsOf("newest")})`,
    { at: param(at), by },
  );
}

/** What a rule was from one change to the next. */
export type RuleVersion = Omit<Rule, "id"> & {
  readonly version: number;
  /** When it became so, and by whose hand; null for what was so before versions were kept. */
  readonly at: Instant | null;
  readonly by: MemberId | null;
};

/** The versions of a rule, the newest first. */
export async function ruleVersions(db: Database, id: RuleId): Promise<RuleVersion[]> {
  const rows: (RuleRow & { at: Date | null; member_id: string | null })[] = await knexOf(db)("rule_version")
    .select("rule_version.*")
    .where({ rule_id: id })
    .orderBy("version", "desc");
  return rows.map((row) => ({
    ...ruleOf(row),
    version: row.version,
    at: atOrNull(row.at),
    by: row.member_id === null ? null : trustedId<MemberId>(row.member_id),
  }));
}

/** How often a version of a rule did something in a month, and how often people took that back. */
export type RuleCount = {
  /** 0 for what it did before versions were kept. */
  readonly version: number;
  /** Of the calendar of a time zone, `YYYY-MM`. */
  readonly month: string;
  readonly did: number;
  readonly undone: number;
};

/** What a rule did, counted by conversation and step, version by version and month by month, the earliest first. */
export async function ruleCounts(db: Database, trayId: TrayId, id: RuleId, zone: string): Promise<RuleCount[]> {
  return ask<RuleCount>(
    db,
    /* sql */ `
    with step as (
      select coalesce(cast(max(entry.rule->>'version') as int), 0) as version, min(entry.at) as at,
        bool_or(undo.by_member_id is not null) as is_undone
      from journal as entry left join journal as undo on undo.undoes = entry.id
      where entry.rule->>'id' = :id and entry.rule is not null and entry.tray_id = :trayId
      group by entry.batch_id, entry.conversation_id
    )
    select version, to_char(at at time zone :zone, 'YYYY-MM') as month, count(*)::int as did,
      (count(*) filter (where is_undone))::int as undone
    from step group by 1, 2 order by 2, 1`,
    { id, trayId, zone },
  );
}

/** How often a rule did something in a span of time, and how often people took that back. */
export async function ruleCountBetween(
  db: Database,
  trayId: TrayId,
  id: RuleId,
  { from, until }: { readonly from: Instant; readonly until: Instant },
): Promise<Pick<RuleCount, "did" | "undone">> {
  const [counted] = await ask<Pick<RuleCount, "did" | "undone">>(
    db,
    /* sql */ `
    with step as (
      select bool_or(undo.by_member_id is not null) as is_undone
      from journal as entry left join journal as undo on undo.undoes = entry.id
      where entry.rule->>'id' = :id and entry.rule is not null and entry.tray_id = :trayId
        and entry.at >= :from and entry.at < :until
      group by entry.batch_id, entry.conversation_id
    )
    select count(*)::int as did, (count(*) filter (where is_undone))::int as undone from step`,
    { id, trayId, from: param(from), until: param(until) },
  );
  return counted ?? { did: 0, undone: 0 };
}
