import { type InvitationId, type MemberId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";
import type { Role } from "./members";
import type { TrayGrant } from "./trays";

/** A link by which somebody may come into a tray. */
export type Invitation = {
  readonly id: InvitationId;
  readonly trayId: TrayId;
  readonly role: Role;
  readonly madeBy: MemberId;
  readonly expiresAt: Instant;
};

type Row = { id: string; tray_id: string; role: Role; made_by: string; expires_at: Date };
const COLUMNS = ["id", "tray_id", "role", "made_by", "expires_at"] as const;

function invitationOf(row: Row): Invitation {
  return {
    id: trustedId<InvitationId>(row.id),
    trayId: trustedId<TrayId>(row.tray_id),
    role: row.role,
    madeBy: trustedId<MemberId>(row.made_by),
    expiresAt: at(row.expires_at),
  };
}

/** Keeps an invitation by the hash of its token: who reads the table cannot use it. */
export async function addInvitation(
  db: Database,
  invitation: Invitation,
  token: { readonly hash: Uint8Array; readonly madeAt: Instant },
): Promise<void> {
  await knexOf(db)("invitation").insert({
    id: invitation.id,
    token_hash: token.hash,
    tray_id: invitation.trayId,
    role: invitation.role,
    made_by: invitation.madeBy,
    made_at: param(token.madeAt),
    expires_at: param(invitation.expiresAt),
  });
}

// What somebody made who may not invite any more is no invitation.
const MAKER_LEADS = `exists (select from tray_member join member on member.id = tray_member.member_id
  where tray_member.tray_id = invitation.tray_id and tray_member.member_id = invitation.made_by
    and tray_member.role = 'lead' and member.disabled_at is null)`;

/** The invitations to a tray that can still be used, the oldest first. */
export async function openInvitations(db: Database, grant: TrayGrant, now: Instant): Promise<Invitation[]> {
  const rows: Row[] = await knexOf(db)("invitation")
    .select(COLUMNS)
    .where({ tray_id: grant.tray.id, ended_at: null })
    .where("expires_at", ">", param(now))
    .whereRaw(MAKER_LEADS)
    .orderBy("made_at");
  return rows.map(invitationOf);
}

/** The invitation of a token, held for using it; null when there is none, it ran out or was used. */
export async function lockInvitation(
  trx: Transaction,
  tokenHash: Uint8Array,
  now: Instant,
): Promise<Invitation | null> {
  const row: Row | undefined = await knexOf(trx)("invitation")
    .first(COLUMNS)
    .where({ token_hash: tokenHash, ended_at: null })
    .where("expires_at", ">", param(now))
    .whereRaw(MAKER_LEADS)
    .forUpdate();
  return row === undefined ? null : invitationOf(row);
}

/** Ends an invitation: used by somebody, or taken back (null); false when it had ended. */
export async function endInvitation(
  db: Database,
  trayId: TrayId,
  id: InvitationId,
  usedBy: MemberId | null,
  now: Instant,
): Promise<boolean> {
  const ended = await knexOf(db)("invitation")
    .where({ id, tray_id: trayId, ended_at: null })
    .update({ ended_at: param(now), used_by: usedBy });
  return ended === 1;
}

/** Ends the invitations that somebody made to a tray, or (null) to any. */
export async function endInvitationsOf(
  db: Database,
  madeBy: MemberId,
  trayId: TrayId | null,
  now: Instant,
): Promise<void> {
  await knexOf(db)("invitation")
    .where({ made_by: madeBy, ended_at: null })
    .modify((query) => void (trayId !== null && query.where("tray_id", trayId)))
    .update({ ended_at: param(now) });
}
