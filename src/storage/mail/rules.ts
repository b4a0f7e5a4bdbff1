import type { EmailAddress } from "../../core/kernel/email-address";
import { type CategoryId, type RuleId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { listIdIn } from "../../core/message/ways-to-leave";
import type { RuledMessage } from "../../core/rules/match-rule";
import type { Rule, RuleActions, RuleConditions } from "../../core/rules/rule";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";
import type { Recipients } from "../facts/store-message";

export type KeptRule = Rule & { readonly trayId: TrayId };

type RuleRow = {
  id: string;
  tray_id: string;
  name: string;
  is_on: boolean;
  conditions: RuleConditions;
  exceptions: RuleConditions;
  actions: RuleActions;
  is_last: boolean;
};

function ruleOf(row: RuleRow): KeptRule {
  return {
    id: trustedId<RuleId>(row.id),
    trayId: trustedId<TrayId>(row.tray_id),
    name: row.name,
    isOn: row.is_on,
    conditions: row.conditions,
    exceptions: row.exceptions,
    actions: row.actions,
    isLast: row.is_last,
  };
}

/** The rules of all trays, each tray's in the order in which they are asked. */
export async function allRules(db: Database): Promise<KeptRule[]> {
  const rows: RuleRow[] = await knexOf(db)("rule").whereNull("removed_at").orderBy("position").orderBy("id");
  return rows.map(ruleOf);
}

/** The rules of a tray in the order in which they are asked. */
export async function rulesOf(db: Database, trayId: TrayId): Promise<KeptRule[]> {
  return (await allRules(db)).filter((rule) => rule.trayId === trayId);
}

/** Keeps a rule as it is now: a new one after all others. */
export async function saveRule(trx: Transaction, rule: KeptRule): Promise<void> {
  const builder = knexOf(trx);
  const { name, isOn, isLast } = rule;
  const columns = {
    name,
    is_on: isOn,
    is_last: isLast,
    conditions: JSON.stringify(rule.conditions),
    exceptions: JSON.stringify(rule.exceptions),
    actions: JSON.stringify(rule.actions),
  };
  const position = builder("rule").select(builder.raw("coalesce(max(position), 0) + 1")).where("tray_id", rule.trayId);
  await builder("rule")
    .insert({ id: rule.id, tray_id: rule.trayId, position, ...columns })
    .onConflict("id")
    .merge(columns);
}

/** Takes a rule away (`at`), or brings it back (null). False when the tray has none of this id. */
export async function removeRule(db: Database, trayId: TrayId, id: RuleId, at: Instant | null): Promise<boolean> {
  const found = await knexOf(db)("rule")
    .where({ id, tray_id: trayId })
    .update({ removed_at: param(at) });
  return found === 1;
}

/** Gives the rules of a tray another order; those that are not named come after. */
export async function orderRules(trx: Database, trayId: TrayId, ids: readonly RuleId[]): Promise<void> {
  await ask(
    trx,
    /* sql */ `
    update rule set position = coalesce(array_position(cast(:ids as uuid[]), id), 100000 + position)
    where tray_id = :trayId`,
    { ids: [...ids], trayId },
  );
}

/** The rules, of whichever tray, that give a category; held until the transaction ends. */
export async function rulesGiving(trx: Transaction, id: CategoryId): Promise<KeptRule[]> {
  const rows: RuleRow[] = await knexOf(trx)("rule")
    .whereNull("removed_at")
    .whereRaw("actions->'categoryIds' @> to_jsonb(cast(? as text))", [id])
    .orderBy("id")
    .forUpdate();
  return rows.map(ruleOf);
}

/** A message that came to a tray, as far as rules go, with what names it. */
export type SampleMessage = RuledMessage & { readonly id: string; readonly fromName: string };

/** The newest messages that came to a tray, for trying a rule on them. */
export async function newestArrivals(db: Database, grant: TrayGrant, limit: number): Promise<SampleMessage[]> {
  const found = await ask<{
    id: string;
    from_address: EmailAddress;
    from_name: string;
    recipients: Pick<Recipients, "to" | "cc">;
    subject: string;
    own_text: string;
    list_id: string | null;
    has_attachment: boolean;
  }>(
    db,
    /* sql */ `
    select message.id, from_address, from_name, recipients, message.subject, own_text, list_id,
      exists (select 1 from jsonb_array_elements(attachments) as one where one->>'inline' = 'false') as has_attachment
    from message join message_text on message_text.message_id = message.id
    where message.tray_id = :trayId and direction = 'in'
    order by received_at desc, message.id desc limit :limit`,
    { trayId: grant.tray.id, limit },
  );
  return found.map((row) => ({
    id: row.id,
    from: row.from_address,
    fromName: row.from_name,
    to: [...row.recipients.to, ...row.recipients.cc].map(({ address }) => address),
    subject: row.subject,
    ownText: row.own_text,
    list: row.list_id === null ? null : listIdIn(row.list_id),
    hasAttachment: row.has_attachment,
  }));
}
