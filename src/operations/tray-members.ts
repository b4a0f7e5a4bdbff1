import { loadOf, turnTaker } from "../core/assigning/load";
import { deriveDocket } from "../core/docket/derive-docket";
import type { Effect } from "../core/journal/entry";
import { type BatchId, type ConversationId, type GroupId, type MemberId, trustedId } from "../core/kernel/ids";
import { err, ok, type Result } from "../core/kernel/result";
import { type ConversationFacts, NOTHING_HAPPENED } from "../core/standing/derive-standing";
import {
  countOwned,
  deskParts,
  disableMember,
  dropCovers,
  endInvitationsOf,
  endSessionsOf,
  factsOf,
  grantsOf,
  groupsOf,
  holdConversations,
  holdRoles,
  type Invitation,
  inTransaction,
  inTransactionUnlessRefused,
  keepGroup,
  keepSuccessor,
  letIntoTray,
  type MemberGroup,
  membersWithRoles,
  openInvitations,
  openOfMember,
  passDraftsOn,
  type Role,
  refreshViewers,
  removeGroup,
  type Transaction,
  type TrayGrant,
  type TrayMember,
} from "../storage/index";
import { carryOut } from "./change-conversations";
import type { Asking, Deps, Within } from "./deps";
import type { Refusal } from "./refusal";

/** Who is in a tray, who may come, and who takes turns. */
export type TrayPeople = {
  readonly members: readonly TrayMember[];
  readonly invitations: readonly Invitation[];
  readonly groups: readonly MemberGroup[];
};

/** Everybody of a tray, for whoever looks into it; invitations for those who lead it. */
export async function peopleOfTray(deps: Deps, grant: TrayGrant): Promise<TrayPeople> {
  const [members, invitations, groups] = await Promise.all([
    membersWithRoles(deps.db, grant.tray.id),
    grant.role === "lead" ? openInvitations(deps.db, grant, deps.now()) : [],
    groupsOf(deps.db, grant),
  ]);
  return { members, invitations, groups };
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
    const roles = await holdRoles(trx, grant.tray.id);
    if (!roles.has(memberId)) return err({ kind: "no-such", what: "member" });
    if (role !== "lead" && isLastLead(roles, memberId)) return err({ kind: "last-lead" });
    const count = role === "reader" ? await countOwned(trx, grant.tray.id, memberId) : 0;
    if (count > 0) {
      const members = await membersWithRoles(trx, grant.tray.id);
      return err({ kind: "owns-open", name: members.find(({ id }) => id === memberId)?.name ?? "She", count });
    }
    if (roles.get(memberId) === role) return ok(null);
    await letIntoTray(trx, grant.tray.id, memberId, role);
    if (role !== "lead") await endInvitationsOf(trx, memberId, grant.tray.id, deps.now());
    // With other rights one signs in anew.
    await endSessionsOf(trx, memberId);
    return ok(null);
  });
  if (done.ok) deps.tellAccess(memberId);
  if (done.ok) deps.tell({ trayId: grant.tray.id, conversationId: null });
  return done;
}

function isLastLead(roles: ReadonlyMap<MemberId, Role>, memberId: MemberId): boolean {
  const leads = [...roles].filter(([, role]) => role === "lead").map(([id]) => id);
  return leads.length === 1 && leads[0] === memberId;
}

/** Who gets what a member leaves: one colleague, a group by turns, or nobody, by the lead's own choice. */
export type HandOver =
  | { readonly kind: "to"; readonly memberId: MemberId }
  | { readonly kind: "in-turn"; readonly groupId: GroupId }
  | { readonly kind: "nobody" };

const CHUNK = 500;

/**
 * Shuts a member out and hands over what she has: each open conversation and follow-up in the journal, drafts to whoever
 * wrote them, and whatever comes back later by her successor. For somebody who leads every tray that she is in.
 */
export async function shutOut(
  deps: Deps,
  grant: TrayGrant,
  memberId: MemberId,
  handOver: HandOver,
): Promise<Result<{ readonly handedOver: number; readonly batchId: BatchId }, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  if (memberId === grant.memberId) return err({ kind: "not-yourself" });
  const batchId = trustedId<BatchId>(deps.newId());
  const touched: TrayGrant[] = [];
  const done = await inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<number, Refusal>> => {
    const within = { ...deps, db: trx };
    const hers = await grantsOf(trx, memberId, deps.now());
    if (!hers.some(({ tray }) => tray.id === grant.tray.id)) return err({ kind: "no-such", what: "member" });
    const led = await grantsOf(trx, grant.memberId, deps.now());
    let count = 0;
    for (const { tray } of hers) {
      const own = led.find((one) => one.tray.id === tray.id && one.role === "lead");
      if (own === undefined) return err({ kind: "leads-of-all-only" });
      const given = await leaveTray(trx, within, own, memberId, handOver, batchId);
      if (!given.ok) return given;
      count += given.value;
      touched.push(own);
    }
    const successor = handOver.kind === "to" ? handOver.memberId : null;
    await dropCovers(trx, memberId);
    await passDraftsOn(trx, memberId, successor ?? grant.memberId);
    await disableMember(trx, memberId, successor, deps.now());
    await endInvitationsOf(trx, memberId, null, deps.now());
    await keepSuccessor(trx, memberId, successor);
    return ok(count);
  });
  if (!done.ok) return done;
  deps.tellAccess(memberId);
  for (const { tray } of touched) deps.tell({ trayId: tray.id, conversationId: null });
  return ok({ handedOver: done.value, batchId });
}

async function leaveTray(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  leaving: MemberId,
  handOver: HandOver,
  batchId: BatchId,
): Promise<Result<number, Refusal>> {
  if (isLastLead(await holdRoles(trx, grant.tray.id), leaving)) return err({ kind: "last-lead" });
  const next = await takerIn({ ...deps, db: trx }, grant, leaving, handOver);
  return next.ok ? ok(await giveAway(trx, deps, grant, leaving, next.value, batchId)) : next;
}

async function takerIn(
  deps: Asking,
  grant: TrayGrant,
  leaving: MemberId,
  handOver: HandOver,
): Promise<Result<() => MemberId | null, Refusal>> {
  if (handOver.kind === "nobody") return ok(() => null);
  const members = await membersWithRoles(deps.db, grant.tray.id);
  const decides = members.filter(({ id, role }) => role !== "reader" && id !== leaving);
  if (handOver.kind === "to") {
    const taker = decides.find(({ id }) => id === handOver.memberId);
    return taker === undefined ? err({ kind: "no-such", what: "member" }) : ok(() => taker.id);
  }
  const group = (await groupsOf(deps.db, grant)).find(({ id }) => id === handOver.groupId);
  // A group is of one tray: in her other ones everybody who decides there takes turns.
  const ids = group === undefined ? decides.map(({ id }) => id) : group.memberIds.filter((id) => id !== leaving);
  if (ids.length === 0) return err({ kind: "nobody-there", name: group?.name ?? grant.tray.name });
  const parts = await deskParts(deps.db, grant, deps.now());
  return ok(turnTaker(new Map(ids.map((id) => [id, loadOf(id, parts)]))));
}

async function giveAway(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  leaving: MemberId,
  next: () => MemberId | null,
  batchId: BatchId,
): Promise<number> {
  const ids = await openOfMember(trx, grant.tray.id, leaving);
  let count = 0;
  for (let at = 0; at < ids.length; at += CHUNK) {
    const some: ConversationId[] = ids.slice(at, at + CHUNK);
    const held = await holdConversations(trx, grant.tray.id, some);
    const facts = await factsOf(trx, some);
    const changes = held.map((conversation) => {
      const known = facts.get(conversation.id) ?? NOTHING_HAPPENED;
      return { conversation, known, effects: handedOn(known, leaving, grant.memberId, next) };
    });
    await carryOut(trx, deps, grant.memberId, batchId, changes);
    count += changes.length;
  }
  return count;
}

function handedOn(facts: ConversationFacts, leaving: MemberId, lead: MemberId, next: () => MemberId | null): Effect[] {
  const docket = deriveDocket(facts);
  const owner = docket.ownerId === leaving ? next() : docket.ownerId;
  const assigned: Effect[] = docket.ownerId === leaving ? [{ kind: "assigned", ownerId: owner }] : [];
  const open = docket.followUps.filter(({ forMember, doneAt }) => forMember === leaving && doneAt === null);
  // A follow-up is always somebody's.
  const forMember = owner ?? lead;
  const followUps = open.map(
    ({ id: followUpId, dueAt, text }): Effect => ({ kind: "follow-up-set", followUpId, forMember, dueAt, text }),
  );
  const unfollowed: Effect[] = docket.followerIds.includes(leaving) ? [{ kind: "unfollowed", memberId: leaving }] : [];
  return [...assigned, ...followUps, ...unfollowed];
}

/** Makes a group of colleagues who take turns, or changes one (`id` given). */
export async function saveGroup(
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
    if (!(await keepGroup(trx, grant, group))) return err({ kind: "name-there", name });
    await refreshViewers(trx);
    return ok(group.id);
  });
  if (done.ok) deps.tell({ trayId: grant.tray.id, conversationId: null });
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
  deps.tell({ trayId: grant.tray.id, conversationId: null });
  return ok(null);
}

/** A tray with those who are in it. */
export type PeopleOfTray = { readonly tray: TrayGrant["tray"]; readonly members: readonly TrayMember[] };

/** The people of several trays that a member may look into. */
export function peopleOfTrays(deps: Deps, grants: readonly TrayGrant[]): Promise<PeopleOfTray[]> {
  return Promise.all(grants.map(async ({ tray }) => ({ tray, members: await membersWithRoles(deps.db, tray.id) })));
}
