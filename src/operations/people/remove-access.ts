import { loadOf, turnTaker } from "../../core/assigning/load";
import { deriveDocket } from "../../core/docket/derive-docket";
import type { Effect } from "../../core/journal/entry";
import {
  type BatchId,
  type ConversationId,
  type GroupId,
  type MemberId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { type ConversationFacts, NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import {
  disabledMembersOf,
  disableMember,
  dropCovers,
  enableMember,
  endInvitationsOf,
  grantsOf,
  groupsOf,
  isReplaced,
  lockRoles,
  membersWithRoles,
  replaceOwner,
  saveSuccessor,
  type TrayGrant,
} from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { passDraftsOn } from "../../storage/conversation/index";
import { factsOf, lockConversations } from "../../storage/facts/index";
import { deskParts, openOfMember } from "../../storage/lists/index";
import { noteAccess } from "../base/access-log";
import type { Asking, Deps, Within } from "../base/deps";
import { carryOut } from "../changes/change-conversations";
import type { Refusal } from "../refusals/refusal";
import { isLastLead } from "./tray-members";

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
export async function removeAccess(
  deps: Deps,
  grant: TrayGrant,
  memberId: MemberId,
  handOver: HandOver,
): Promise<Result<{ readonly handedOver: number; readonly batchId: BatchId }, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  if (memberId === grant.memberId) return err({ kind: "not-yourself" });
  const batchId = trustedId<BatchId>(deps.newId());
  const done = await inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<LeftTrays, Refusal>> => {
    const led = await grantsOverTrays(trx, deps, grant, memberId);
    if (!led.ok) return led;
    let count = 0;
    for (const own of led.value) {
      const given = await leaveTray(trx, deps, own, memberId, handOver, batchId);
      if (!given.ok) return given;
      count += given.value;
    }
    if (await isReplaced(trx, memberId)) return err({ kind: "no-such", what: "member" });
    await takeEverythingAway(trx, deps, grant, memberId, handOver.kind === "to" ? handOver.memberId : null);
    for (const { tray } of led.value) await noteOfTray(trx, deps, "shut-out", grant, tray.id, memberId);
    return ok({ count, trayIds: led.value.map(({ tray }) => tray.id) });
  });
  if (!done.ok) return done;
  deps.publishAccess(memberId);
  for (const trayId of done.value.trayIds) deps.publishChange({ trayId, conversationId: null });
  return ok({ handedOver: done.value.count, batchId });
}

type LeftTrays = { readonly count: number; readonly trayIds: readonly TrayId[] };

// The rights of a lead in the trays that somebody is in, who must lead all of them.
async function grantsOverTrays(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  memberId: MemberId,
): Promise<Result<TrayGrant[], Refusal>> {
  const theirs = await grantsOf(trx, memberId, deps.now());
  if (!theirs.some(({ tray }) => tray.id === grant.tray.id)) return err({ kind: "no-such", what: "member" });
  const led = (await grantsOf(trx, grant.memberId, deps.now())).filter(({ role }) => role === "lead");
  const own = theirs.flatMap(({ tray }) => led.find((one) => one.tray.id === tray.id) ?? []);
  return own.length === theirs.length ? ok(own) : err({ kind: "leads-of-all-only" });
}

// What is of no tray: absences covered, drafts, rights, and whatever comes back later.
async function takeEverythingAway(
  trx: Transaction,
  deps: Within,
  lead: TrayGrant,
  memberId: MemberId,
  successor: MemberId | null,
): Promise<void> {
  await dropCovers(trx, memberId);
  await passDraftsOn(trx, memberId, successor ?? lead.memberId);
  await disableMember(trx, memberId, deps.now());
  await replaceOwner(trx, memberId, successor, deps.now());
  await endInvitationsOf(trx, memberId, null, deps.now());
  await saveSuccessor(trx, memberId, successor);
}

/**
 * Lets somebody who was shut out or disabled in again, with the roles that they had; what was handed over stays with whoever
 * has it. For somebody who leads every tray that they were in.
 */
export async function restoreAccess(deps: Deps, grant: TrayGrant, memberId: MemberId): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const done = await inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<TrayGrant[], Refusal>> => {
    const isDisabled = (await disabledMembersOf(trx, grant.tray.id)).some(({ id }) => id === memberId);
    if (!isDisabled) return err({ kind: "no-such", what: "member" });
    const led = await grantsOverTrays(trx, deps, grant, memberId);
    if (!led.ok) return led;
    await enableMember(trx, memberId, deps.now());
    for (const { tray } of led.value) await noteOfTray(trx, deps, "let-in-again", grant, tray.id, memberId);
    return led;
  });
  if (!done.ok) return done;
  for (const { tray } of done.value) deps.publishChange({ trayId: tray.id, conversationId: null });
  return ok(null);
}

function noteOfTray(
  trx: Transaction,
  deps: Within,
  kind: "shut-out" | "let-in-again",
  { memberId: by }: TrayGrant,
  trayId: TrayId,
  about: MemberId,
): Promise<void> {
  return noteAccess(trx, deps, { kind }, { trayId, by, about });
}

async function leaveTray(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  leaving: MemberId,
  handOver: HandOver,
  batchId: BatchId,
): Promise<Result<number, Refusal>> {
  if (isLastLead(await lockRoles(trx, grant.tray.id), leaving)) return err({ kind: "last-lead" });
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
    const held = await lockConversations(trx, grant.tray.id, some);
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
