import { type GroupId, type MemberId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import {
  type DisabledMember,
  disabledMembersOf,
  endInvitationsOf,
  endSessionsOf,
  groupsOf,
  type Invitation,
  letIntoTray,
  lockRoles,
  type MemberGroup,
  membersWithRoles,
  openInvitations,
  type Role,
  refreshViewers,
  removeGroup,
  saveGroup,
  type TrayGrant,
  type TrayMember,
} from "../../storage/access/index";
import { inTransaction, inTransactionUnlessRefused } from "../../storage/base/index";
import { countOwned } from "../../storage/lists/index";
import { refusalsTexts } from "../../texts/en/refusals";
import { saidOf } from "../../texts/said";
import { noteAccess } from "../base/access-log";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";

const said = saidOf(refusalsTexts);

/** Who is in a tray, who may come, and who takes turns. */
export type TrayPeople = {
  readonly members: readonly TrayMember[];
  /** Those who cannot sign in any more. */
  readonly disabled: readonly DisabledMember[];
  readonly invitations: readonly Invitation[];
  readonly groups: readonly MemberGroup[];
};

/** Everybody of a tray, for whoever looks into it; invitations and who was shut out for those who lead it. */
export async function peopleOfTray(deps: Deps, grant: TrayGrant): Promise<TrayPeople> {
  const [members, disabled, invitations, groups] = await Promise.all([
    membersWithRoles(deps.db, grant.tray.id),
    grant.role === "lead" ? disabledMembersOf(deps.db, grant.tray.id) : [],
    grant.role === "lead" ? openInvitations(deps.db, grant, deps.now()) : [],
    groupsOf(deps.db, grant),
  ]);
  return { members, disabled, invitations, groups };
}

/** Changes what a member may do in a tray. One always leads it; who only reads owns nothing open. */
export async function changeRole(
  deps: Deps,
  grant: TrayGrant,
  memberId: MemberId,
  role: Role,
): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const done = await inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<null, Refusal>> => {
    const roles = await lockRoles(trx, grant.tray.id);
    if (!roles.has(memberId)) return err({ kind: "no-such", what: "member" });
    if (role !== "lead" && isLastLead(roles, memberId)) return err({ kind: "last-lead" });
    const count = role === "reader" ? await countOwned(trx, grant.tray.id, memberId) : 0;
    if (count > 0) {
      const members = await membersWithRoles(trx, grant.tray.id);
      return err({
        kind: "owns-open",
        name: members.find(({ id }) => id === memberId)?.name ?? said("refusals.theMember"),
        count,
      });
    }
    const before = roles.get(memberId);
    if (before === undefined || before === role) return ok(null);
    await letIntoTray(trx, grant.tray.id, memberId, role);
    if (role !== "lead") await endInvitationsOf(trx, memberId, grant.tray.id, deps.now());
    // With other rights one signs in anew.
    await endSessionsOf(trx, memberId);
    const whose = { trayId: grant.tray.id, by: grant.memberId, about: memberId };
    await noteAccess(trx, deps, { kind: "role-changed", from: before, to: role }, whose);
    return ok(null);
  });
  if (done.ok) deps.publishAccess(memberId);
  if (done.ok) deps.publishChange({ trayId: grant.tray.id, conversationId: null });
  return done;
}

/** Whether nobody would lead a tray without a member. */
export function isLastLead(roles: ReadonlyMap<MemberId, Role>, memberId: MemberId): boolean {
  const leads = [...roles].filter(([, role]) => role === "lead").map(([id]) => id);
  return leads.length === 1 && leads[0] === memberId;
}

/** Makes a group of colleagues who take turns, or changes one (`id` given). */
export async function editGroup(
  deps: Deps,
  grant: TrayGrant,
  { id, name, memberIds }: Omit<MemberGroup, "id"> & { readonly id: GroupId | null },
): Promise<Result<GroupId, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const group = { id: id ?? trustedId<GroupId>(deps.newId()), name, memberIds };
  const done = await inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<GroupId, Refusal>> => {
    const members = await membersWithRoles(trx, grant.tray.id);
    for (const memberId of memberIds) {
      const member = members.find((one) => one.id === memberId);
      if (member === undefined) return err({ kind: "no-such", what: "member" });
      if (member.role === "reader") return err({ kind: "only-reads", name: member.name });
    }
    const known = id === null || (await groupsOf(trx, grant)).some((one) => one.id === id);
    if (!known) return err({ kind: "no-such", what: "group" });
    if (!(await saveGroup(trx, grant, group))) return err({ kind: "name-there", name });
    await refreshViewers(trx);
    return ok(group.id);
  });
  if (done.ok) deps.publishChange({ trayId: grant.tray.id, conversationId: null });
  return done;
}

/** Removes a group; what its people have stays theirs. */
export async function dropGroup(deps: Deps, grant: TrayGrant, id: GroupId): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const isRemoved = await inTransaction(deps.db, async (trx) => {
    const removed = await removeGroup(trx, grant, id, deps.now());
    if (removed) await refreshViewers(trx);
    return removed;
  });
  if (!isRemoved) return err({ kind: "no-such", what: "group" });
  deps.publishChange({ trayId: grant.tray.id, conversationId: null });
  return ok(null);
}

/** A tray with those who are in it. */
export type PeopleOfTray = { readonly tray: TrayGrant["tray"]; readonly members: readonly TrayMember[] };

/** The people of several trays that a member may look into. */
export function peopleOfTrays(deps: Deps, grants: readonly TrayGrant[]): Promise<PeopleOfTray[]> {
  return Promise.all(grants.map(async ({ tray }) => ({ tray, members: await membersWithRoles(deps.db, tray.id) })));
}
