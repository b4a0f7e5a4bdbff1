import { type GroupId, type MemberId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";
import type { TrayGrant } from "./trays";

/** Colleagues of a tray who take turns. */
export type MemberGroup = { readonly id: GroupId; readonly name: string; readonly memberIds: readonly MemberId[] };

/** The groups of a tray by name; whoever is disabled or no longer in the tray is left out. */
export async function groupsOf(db: Database, grant: Pick<TrayGrant, "tray">): Promise<MemberGroup[]> {
  const found = await ask<{ id: string; name: string; members: string[] }>(
    db,
    /* sql */ `
    select member_group.id, member_group.name,
      coalesce(array_agg(member.id order by member.name) filter (where member.id is not null), '{}') as members
    from member_group
      left join member_group_member as part on part.group_id = member_group.id
        and exists (select 1 from tray_member where tray_member.tray_id = member_group.tray_id
          and tray_member.member_id = part.member_id and role <> 'reader')
      left join member on member.id = part.member_id and member.disabled_at is null
    where member_group.tray_id = :trayId and member_group.removed_at is null
    group by member_group.id order by lower(member_group.name)`,
    { trayId: grant.tray.id },
  );
  return found.map(({ id, name, members }) => ({
    id: trustedId<GroupId>(id),
    name,
    memberIds: members.map((one) => trustedId<MemberId>(one)),
  }));
}

/** Holds groups until the transaction ends: what is dealt out to their members is counted before it is dealt out again. */
export async function lockGroups(trx: Transaction, ids: readonly GroupId[]): Promise<void> {
  await knexOf(trx)("member_group").select("id").whereIn("id", ids).orderBy("id").forNoKeyUpdate();
}

/** Keeps a group, new or changed; false when another group of the tray has its name. */
export async function saveGroup(trx: Transaction, grant: TrayGrant, group: MemberGroup): Promise<boolean> {
  const builder = knexOf(trx);
  const taken = await builder("member_group")
    .where({ tray_id: grant.tray.id, removed_at: null })
    .whereNot("id", group.id)
    .whereRaw("lower(name) = lower(?)", [group.name])
    .first("id");
  if (taken !== undefined) return false;
  await builder("member_group")
    .insert({ id: group.id, tray_id: grant.tray.id, name: group.name })
    .onConflict("id")
    .merge(["name"]);
  await builder("member_group_member").where("group_id", group.id).delete();
  if (group.memberIds.length > 0) {
    await builder("member_group_member").insert(
      group.memberIds.map((memberId) => ({ group_id: group.id, member_id: memberId })),
    );
  }
  return true;
}

/** Removes a group of a tray; false when there is none. */
export async function removeGroup(db: Database, grant: TrayGrant, id: GroupId, now: Instant): Promise<boolean> {
  const removed = await knexOf(db)("member_group")
    .where({ id, tray_id: grant.tray.id, removed_at: null })
    .update({ removed_at: param(now) });
  return removed === 1;
}
