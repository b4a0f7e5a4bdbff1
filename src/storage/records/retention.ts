import { type MemberId, type PolicyId, type RecordId, type RecordTypeId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { CountsFrom, EndsIn, RetentionPolicy } from "../../core/retention/policy";
import type { Applied, RetainedRecord } from "../../core/retention/term";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, atOrNull, param } from "../base/rows";

type PolicyRow = { id: string; name: string; period: string; counts_from: CountsFrom; ends_in: EndsIn };

const policyOf = (row: PolicyRow): RetentionPolicy => ({
  id: trustedId<PolicyId>(row.id),
  name: row.name,
  period: row.period,
  countsFrom: row.counts_from,
  endsIn: row.ends_in,
});

/** The policies that there are, by name. */
export async function retentionPolicies(db: Database): Promise<RetentionPolicy[]> {
  return (await knexOf(db)("retention_policy").orderByRaw("lower(name)")).map(policyOf);
}

/** Keeps a policy, new or changed; false when another one has its name. */
export async function saveRetentionPolicy(trx: Transaction, policy: RetentionPolicy): Promise<boolean> {
  const builder = knexOf(trx);
  const taken = await builder("retention_policy")
    .whereRaw("lower(name) = lower(?)", [policy.name])
    .whereNot("id", policy.id)
    .first("id");
  if (taken !== undefined) return false;
  await builder("retention_policy")
    .insert({
      id: policy.id,
      name: policy.name,
      period: policy.period,
      counts_from: policy.countsFrom,
      ends_in: policy.endsIn,
    })
    .onConflict("id")
    .merge();
  return true;
}

/** What a policy is given to. */
const POLICY_BEARERS = ["record", "record_type", "category"] as const;
export type PolicyBearer = (typeof POLICY_BEARERS)[number];

/** Gives a record, a type or a category a policy, or none; false when there is no such thing. */
export async function givePolicy(
  trx: Transaction,
  bearer: PolicyBearer,
  id: string,
  policyId: PolicyId | null,
): Promise<boolean> {
  return (await knexOf(trx)(bearer).where({ id }).update({ policy_id: policyId })) > 0;
}

/** To how many records, types and categories each policy is given. */
export async function bearersOfPolicies(db: Database): Promise<Map<PolicyId, number>> {
  const all = POLICY_BEARERS.map((bearer) => `select policy_id from ${bearer} where policy_id is not null`);
  const found = await ask<{ policy_id: string; count: number }>(
    db,
    `select policy_id, count(*)::int as count from (${all.join(" union all ")}) as given group by policy_id`,
  );
  return new Map(found.map(({ policy_id, count }) => [trustedId<PolicyId>(policy_id), count]));
}

/** Takes a policy away that nothing bears. */
export async function removeRetentionPolicy(trx: Transaction, id: PolicyId): Promise<void> {
  await knexOf(trx)("retention_policy").where({ id }).delete();
}

/** Which types and categories bear which policy. */
export async function policiesGiven(db: Database): Promise<{
  readonly types: ReadonlyMap<RecordTypeId, PolicyId>;
  readonly categories: ReadonlyMap<string, PolicyId>;
}> {
  const given = async (table: PolicyBearer): Promise<[string, PolicyId][]> => {
    const rows: { id: string; policy_id: string }[] = await knexOf(db)(table)
      .select("id", "policy_id")
      .whereNotNull("policy_id");
    return rows.map(({ id, policy_id }) => [id, trustedId<PolicyId>(policy_id)]);
  };
  const [types, categories] = [await given("record_type"), await given("category")];
  return {
    types: new Map(types.map(([id, policy]) => [trustedId<RecordTypeId>(id), policy])),
    categories: new Map(categories),
  };
}

/** A record with what its term depends on, and what a list of records says of it. */
export type Retained = RetainedRecord & {
  readonly title: string;
  readonly kind: string;
  readonly policyId: PolicyId | null;
  readonly filed: number;
};

type RetainedRow = {
  id: string;
  code: string;
  title: string;
  kind: string;
  parent_id: string | null;
  created_at: Date;
  closed_at: Date | null;
  kept_until: Date | null;
  own: string | null;
  of_type: string | null;
  last_message_at: Date | null;
  filed: number;
  of_categories: { name: string; policy: string; at: string }[] | null;
  holds: string[] | null;
};

// A record, what it stands under, and what stands under it: its term depends on no others.
const AROUND = /* sql */ `
  up as (select id, parent_id from record where id = :around
    union select record.id, record.parent_id from record join up on record.id = up.parent_id),
  down as (select id from record where id = :around
    union select record.id from record join down on record.parent_id = down.id),
  wanted as materialized (select id from up union select id from down),`;
const ALL = /* sql */ `wanted as materialized (select id from record where merged_into is null),`;

/**
 * All records with what their terms depend on, over the mail of all trays, by code, whoever may know of them: what stands
 * under a record can be hidden from who looks at that. With `around` only those that its term depends on.
 */
export async function retainedRecords(db: Database, around: RecordId | null = null): Promise<Retained[]> {
  const policies = new Map((await retentionPolicies(db)).map((policy) => [policy.id as string, policy]));
  const found = await ask<RetainedRow>(
    db,
    /* sql */ `
    with recursive ${around === null ? ALL : AROUND}
    filed as (
      select record_id, last_message_at, category_ids from conversation cross join lateral unnest(record_ids) as record_id
      where joined_to is null ${around === null ? "and record_ids <> '{}'" : "and record_ids && array(select id from wanted)"}
    ), newest as (
      select record_id, max(last_message_at) as at, count(*)::int as filed from filed group by record_id
    ), by_category as (
      select record_id, category.name, category.policy_id, max(last_message_at) as at
      from filed cross join lateral unnest(category_ids) as category_id
        join category on category.id = category_id and category.policy_id is not null
      group by record_id, category.id
    )
    select record.id, record.code, record.title, lower(record_type.name) as kind, record.parent_id, record.created_at,
      record.closed_at, record.kept_until, record.policy_id as own, record_type.policy_id as of_type,
      newest.at as last_message_at, coalesce(newest.filed, 0) as filed,
      (select json_agg(json_build_object('name', name, 'policy', policy_id, 'at', at) order by name)
        from by_category where record_id = record.id) as of_categories,
      (select array_agg(reason order by at) from retention_hold where record_id = record.id) as holds
    from record join record_type on record_type.id = record.type_id
      left join newest on newest.record_id = record.id
    where record.merged_into is null and record.id in (select id from wanted)
    order by record.code`,
    around === null ? {} : { around },
  );
  return found.map((row) => {
    const lastMessageAt = atOrNull(row.last_message_at);
    const applied = (id: string | null, from: Applied["from"], last: Instant | null): Applied[] => {
      const policy = id === null ? undefined : policies.get(id);
      return policy === undefined ? [] : [{ policy, from, lastMessageAt: last }];
    };
    return {
      id: trustedId<RecordId>(row.id),
      code: row.code,
      title: row.title,
      kind: row.kind,
      filed: row.filed,
      parentId: row.parent_id === null ? null : trustedId<RecordId>(row.parent_id),
      policyId: row.own === null ? null : trustedId<PolicyId>(row.own),
      createdAt: at(row.created_at),
      closedAt: atOrNull(row.closed_at),
      keptUntil: atOrNull(row.kept_until),
      holds: row.holds ?? [],
      applied: [
        ...applied(row.own, { kind: "record" }, lastMessageAt),
        ...applied(row.of_type, { kind: "type" }, lastMessageAt),
        ...(row.of_categories ?? []).flatMap(({ name, policy, at: last }) =>
          applied(policy, { kind: "category", name }, at(new Date(last))),
        ),
      ],
    };
  });
}

/** Has a record kept until then, whatever its policies say. */
export async function keepRecordUntil(trx: Transaction, id: RecordId, until: Instant): Promise<void> {
  await knexOf(trx)("record")
    .where({ id })
    .update({ kept_until: param(until) });
}

/** Why a record must not go, by whom and since when. */
export type Hold = { readonly id: string; readonly reason: string; readonly at: Instant; readonly by: MemberId };

export async function holdsOf(db: Database, recordId: RecordId): Promise<Hold[]> {
  const rows = await knexOf(db)("retention_hold").where({ record_id: recordId }).orderBy("at");
  return rows.map((row) => ({
    id: row.id,
    reason: row.reason,
    at: at(row.at),
    by: trustedId<MemberId>(row.by_member_id),
  }));
}

/** Holds a record. */
export async function addHold(trx: Transaction, recordId: RecordId, { id, reason, at: when, by }: Hold): Promise<void> {
  await knexOf(trx)("retention_hold").insert({
    id,
    record_id: recordId,
    reason,
    at: param(when),
    by_member_id: by,
  });
}

/** Ends a hold; gives its reason, null when the record has none of this id. */
export async function endHold(trx: Transaction, recordId: RecordId, id: string): Promise<string | null> {
  const [row] = await knexOf(trx)("retention_hold").where({ id, record_id: recordId }).delete("reason");
  return row?.reason ?? null;
}
