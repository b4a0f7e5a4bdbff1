import type { MemberId } from "../../core/kernel/ids";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";

/** Who asks for records: a member, who gets those that she may know of, or the application itself (null). */
export type RecordViewer = { readonly memberId: MemberId } | null;

/** The condition that a member (`:memberId`) may know of a `record`. */
export const SEEN = /* sql */ `(record.viewers is null or cast(:memberId as uuid) = any(record.viewers))`;

/** The ids of the records that a member (`:memberId`) may not know of; they are looked up once in a statement. */
export const HIDDEN = /* sql */ `(select coalesce(array_agg(record.id), '{}') from record
  where record.viewers is not null and not (cast(:memberId as uuid) = any(record.viewers)))`;

/** The condition that `record_ids` of a conversation has nothing that a member (`:memberId`) may know of. */
export const UNFILED = /* sql */ `c.record_ids <@ cast(${HIDDEN} as uuid[])`;

/** Of the `record_ids` of a conversation those that a member (`:memberId`) may know of; only where one is hidden are they gone through. */
export const SEEN_IDS = /* sql */ `case when not (c.record_ids && cast(${HIDDEN} as uuid[])) then c.record_ids
  else array(select one from unnest(c.record_ids) with ordinality as filed(one, at)
    where one <> all(cast(${HIDDEN} as uuid[])) order by at) end`;

/** The condition on `record` for whoever asks, with its values. */
export function seenBy(viewer: RecordViewer): { readonly sql: string; readonly values: Record<string, string> } {
  return viewer === null ? { sql: "true", values: {} } : { sql: SEEN, values: { memberId: viewer.memberId } };
}

// Who may know of each record: `own` as it says itself, `tree` with what it stands under.
const VIEWERS = /* sql */ `
    own as (
      select id, parent_id, case when access_members is null then null else array(
        select unnest(access_members)
        union select part.member_id from member_group_member as part
          join member_group on member_group.id = part.group_id and member_group.removed_at is null
          where part.group_id = any(access_groups)
        order by 1) end as members
      from record
    ),
    tree as (
      select id, members as viewers from own where parent_id is null
      union all
      select own.id, case when own.members is null then tree.viewers when tree.viewers is null then own.members
        else array(select unnest(own.members) intersect select unnest(tree.viewers) order by 1) end
      from own join tree on own.parent_id = tree.id
    )`;

/**
 * Works out anew who may know of which record: whoever each says, of those who may know of what it stands under. To be
 * called in the transaction that changes an access list, a place in the tree, or a group.
 */
export async function refreshViewers(trx: Transaction): Promise<void> {
  await knexOf(trx).raw(/* sql */ `
    with recursive ${VIEWERS}
    update record set viewers = tree.viewers from tree
    where record.id = tree.id and record.viewers is distinct from tree.viewers`);
}

/** How many records say otherwise than their access lists and places who may know of them; there must be none. */
export async function viewersAstray(db: Database): Promise<number> {
  const found = await ask<{ count: number }>(
    db,
    /* sql */ `
    with recursive ${VIEWERS}
    select count(*)::int as count from record join tree using (id) where record.viewers is distinct from tree.viewers`,
  );
  return found[0]?.count ?? 0;
}
