import { createHash } from "node:crypto";
import { type InvitationId, type MemberId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import {
  addInvitation,
  addMember,
  allTrays,
  endInvitation,
  type Invitation,
  letIntoTray,
  lockInvitation,
  lockRoles,
  type Member,
  type Role,
  type TrayGrant,
} from "../../storage/access/index";
import { inTransaction, inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { noteAccess } from "../base/access-log";
import type { Deps, Within } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { hashPassword } from "./sign-in";

const VALID_DAYS = 7;

/** Makes a link by which one person may come into a tray within a week. The token is told once and kept by its hash. */
export async function invite(
  deps: Deps,
  grant: TrayGrant,
  role: Role,
): Promise<Result<{ readonly token: string; readonly expiresAt: Instant }, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const token = deps.newToken();
  const expiresAt = later(deps.now(), VALID_DAYS * DAY);
  const id = trustedId<InvitationId>(deps.newId());
  const invitation = { id, trayId: grant.tray.id, role, madeBy: grant.memberId, expiresAt };
  await inTransaction(deps.db, async (trx) => {
    await addInvitation(trx, invitation, { hash: hashOf(token), madeAt: deps.now() });
    await noteAccess(trx, deps, { kind: "invited", role }, { trayId: grant.tray.id, by: grant.memberId });
  });
  return ok({ token, expiresAt });
}

/** Takes an invitation back. */
export async function takeInvitationBack(
  deps: Deps,
  grant: TrayGrant,
  id: InvitationId,
): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const ended = await inTransaction(deps.db, async (trx) => {
    const isEnded = await endInvitation(trx, grant.tray.id, id, null, deps.now());
    const whose = { trayId: grant.tray.id, by: grant.memberId };
    if (isEnded) await noteAccess(trx, deps, { kind: "invitation-taken-back" }, whose);
    return isEnded;
  });
  return ended ? ok(null) : err({ kind: "no-such", what: "invitation" });
}

/** The name of the tray that a token lets into; null when it lets in nowhere. */
export async function invitedTo(deps: Deps, token: string): Promise<string | null> {
  const invitation = await inTransaction(deps.db, (trx) => lockInvitation(trx, hashOf(token), deps.now()));
  if (invitation === null) return null;
  return (await allTrays(deps.db)).find(({ id }) => id === invitation.trayId)?.name ?? null;
}

export type Newcomer = {
  readonly signInName: string;
  readonly name: string;
  readonly initials: string;
  readonly password: string;
  readonly timeZone: string;
};

/** Why somebody is not let in. */
export type NotIn = { readonly kind: "no-invitation" } | { readonly kind: "name-taken" };

/** Lets somebody new in by an invitation, which is used up by it. */
export async function acceptInvitation(deps: Deps, token: string, newcomer: Newcomer): Promise<Result<Member, NotIn>> {
  const passwordHash = await hashPassword(newcomer.password);
  const done = await inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<Member, NotIn>> => {
    const invitation = await lockInvitation(trx, hashOf(token), deps.now());
    if (invitation === null) return err({ kind: "no-invitation" });
    const { signInName, name, initials, timeZone } = newcomer;
    const member: Member = { id: trustedId<MemberId>(deps.newId()), signInName, name, initials, timeZone };
    if (!(await addMember(trx, { ...member, passwordHash, createdAt: deps.now() }))) return err({ kind: "name-taken" });
    await comeIn(trx, deps, invitation, member.id);
    return ok(member);
  });
  if (done.ok) deps.publishAccess(done.value.id);
  return done;
}

/**
 * Lets a member who is signed in into the tray of an invitation, with the role that it gives. Whoever is in it already
 * keeps the role she has, and the link is still somebody else's to use.
 */
export async function joinByInvitation(
  deps: Deps,
  token: string,
  member: Member,
): Promise<Result<null, { readonly kind: "no-invitation" }>> {
  const done = await inTransactionUnlessRefused(deps.db, async (trx) => {
    const invitation = await lockInvitation(trx, hashOf(token), deps.now());
    if (invitation === null) return err({ kind: "no-invitation" } as const);
    if ((await lockRoles(trx, invitation.trayId)).has(member.id)) return ok(null);
    await comeIn(trx, deps, invitation, member.id);
    return ok(null);
  });
  if (done.ok) deps.publishAccess(member.id);
  return done;
}

async function comeIn(trx: Transaction, deps: Within, { id, trayId, role }: Invitation, by: MemberId): Promise<void> {
  await letIntoTray(trx, trayId, by, role);
  await endInvitation(trx, trayId, id, by, deps.now());
  await noteAccess(trx, deps, { kind: "came-in", role }, { trayId, by });
}

function hashOf(token: string): Buffer {
  return createHash("sha256").update(token).digest();
}
