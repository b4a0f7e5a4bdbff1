import type { Role } from "../../core/access/role";
import type { EmailAddress } from "../../core/kernel/email-address";
import { type MemberId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { OwnerReplacement } from "../../core/standing/derive-standing";
import type { OpenHours } from "../../core/worktime/working-hours";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, atOrNull, param } from "../base/rows";

export type { Role };
export type Member = {
  readonly id: MemberId;
  readonly signInName: string;
  readonly name: string;
  readonly initials: string;
  readonly timeZone: string;
};

/** A member of a tray as those who lead it see her. */
export type TrayMember = Member & {
  readonly role: Role;
  /** Her own week; null where the tray's is hers. */
  readonly week: readonly (OpenHours | null)[] | null;
};

export type MemberRow = { id: string; sign_in_name: string; name: string; initials: string; time_zone: string };

export const MEMBER_COLUMNS = ["member.id", "sign_in_name", "member.name", "initials", "member.time_zone"] as const;

/** A member from a row that has `MEMBER_COLUMNS`. */
export function memberOf(row: MemberRow): Member {
  return {
    id: trustedId<MemberId>(row.id),
    signInName: row.sign_in_name,
    name: row.name,
    initials: row.initials,
    timeZone: row.time_zone,
  };
}

/** The member who signs in by this name, with the hash to check the password against; disabled ones do not exist. */
export async function memberBySignInName(
  db: Database,
  signInName: string,
): Promise<{ member: Member; passwordHash: string } | null> {
  const row: (MemberRow & { password_hash: string }) | undefined = await knexOf(db)("member")
    .first(...MEMBER_COLUMNS, "password_hash")
    .where({ sign_in_name: signInName.toLowerCase() })
    .whereNull("disabled_at");
  return row === undefined ? null : { member: memberOf(row), passwordHash: row.password_hash };
}

/** Where members are reached by those outside, as far as they said so. */
export async function mailAddressesOf(
  db: Database,
  ids: readonly MemberId[],
): Promise<ReadonlyMap<MemberId, EmailAddress>> {
  const rows = await knexOf(db)("member")
    .select("id", "mail_address")
    .whereIn("id", [...ids])
    .whereNotNull("mail_address");
  return new Map(rows.map((row) => [trustedId<MemberId>(row.id), row.mail_address]));
}

/** Says where a member is reached by those outside; null for nowhere. */
export async function setMailAddress(db: Database, id: MemberId, address: EmailAddress | null): Promise<void> {
  await knexOf(db)("member").where({ id }).update({ mail_address: address });
}

/** Every member who may sign in, by name. */
export async function allMembers(db: Database): Promise<Member[]> {
  const rows: MemberRow[] = await knexOf(db)("member").select(MEMBER_COLUMNS).whereNull("disabled_at").orderBy("name");
  return rows.map(memberOf);
}

/** The members of one tray who may sign in, by name. */
export async function membersOfTray(db: Database, trayId: TrayId): Promise<Member[]> {
  const rows: MemberRow[] = await knexOf(db)("member")
    .select(MEMBER_COLUMNS)
    .join("tray_member", "tray_member.member_id", "member.id")
    .where("tray_member.tray_id", trayId)
    .whereNull("disabled_at")
    .orderBy("member.name");
  return rows.map(memberOf);
}

/** The members of one tray who may sign in, with their roles and hours, by name. */
export async function membersWithRoles(db: Database, trayId: TrayId): Promise<TrayMember[]> {
  const rows: (MemberRow & Pick<TrayMember, "role" | "week">)[] = await knexOf(db)("member")
    .select(...MEMBER_COLUMNS, "role", "week")
    .join("tray_member", "tray_member.member_id", "member.id")
    .where("tray_member.tray_id", trayId)
    .whereNull("disabled_at")
    .orderBy("member.name");
  return rows.map((row) => ({ ...memberOf(row), role: row.role, week: row.week }));
}

/** Holds the members of a tray, so that it always keeps somebody who leads it. */
export async function lockRoles(trx: Transaction, trayId: TrayId): Promise<ReadonlyMap<MemberId, Role>> {
  const rows: { member_id: string; role: Role }[] = await knexOf(trx)("tray_member")
    .select("tray_member.member_id", "role")
    .join("member", "member.id", "tray_member.member_id")
    .where("tray_id", trayId)
    .whereNull("disabled_at")
    .orderBy("member_id")
    .forUpdate();
  return new Map(rows.map(({ member_id, role }) => [trustedId<MemberId>(member_id), role]));
}

/** Sets the hours of a member; null takes those of the tray. */
export async function setWeekOf(db: Database, memberId: MemberId, week: TrayMember["week"]): Promise<void> {
  await knexOf(db)("member")
    .where("id", memberId)
    .update({ week: week === null ? null : JSON.stringify(week) });
}

/** Her own week; null where the tray's is hers. */
export async function weekOf(db: Database, memberId: MemberId): Promise<TrayMember["week"]> {
  return (await knexOf(db)("member").first("week").where("id", memberId))?.week ?? null;
}

/** Keeps a member from signing in, and ends all sessions; who was disabled before stays so since then. */
export async function disableMember(trx: Transaction, memberId: MemberId, now: Instant): Promise<void> {
  const builder = knexOf(trx);
  await builder("member")
    .where("id", memberId)
    .whereNull("disabled_at")
    .update({ disabled_at: param(now) });
  await builder("session").where("member_id", memberId).delete();
}

/** Gives what comes back to a member from now on, until she is let in again, to a successor, or (null) to nobody. */
export async function replaceOwner(
  trx: Transaction,
  memberId: MemberId,
  successor: MemberId | null,
  now: Instant,
): Promise<void> {
  const builder = knexOf(trx);
  await builder("owner_replacement").insert({ member_id: memberId, at: param(now), successor_id: successor });
  // Whoever was to have what another one left has it from her successor now.
  await builder("owner_replacement").where("successor_id", memberId).update({ successor_id: successor });
}

/** The member of a sign-in name, disabled or not; null where there is none. */
export async function memberNamed(db: Database, signInName: string): Promise<Member | null> {
  const row: MemberRow | undefined = await knexOf(db)("member")
    .first(...MEMBER_COLUMNS)
    .where({ sign_in_name: signInName.toLowerCase() });
  return row === undefined ? null : memberOf(row);
}

/** Sets what a member's password is checked against. */
export async function setPasswordHash(db: Database, memberId: MemberId, passwordHash: string): Promise<void> {
  await knexOf(db)("member").where("id", memberId).update({ password_hash: passwordHash });
}

/** Lets a disabled member in again; what was handed over stays with whoever has it. */
export async function enableMember(trx: Transaction, memberId: MemberId, now: Instant): Promise<void> {
  const builder = knexOf(trx);
  await builder("member").where("id", memberId).update({ disabled_at: null });
  await builder("owner_replacement")
    .where({ member_id: memberId, until: null })
    .update({ until: param(now) });
}

/** Whose matters somebody else has had, from when to when, in the order in which it came to that. */
export async function replacedOwners(db: Database): Promise<OwnerReplacement[]> {
  const rows: { member_id: string; successor_id: string | null; at: Date; until: Date | null }[] = await knexOf(db)(
    "owner_replacement",
  )
    .select("member_id", "successor_id", "at", "until")
    .orderBy("at");
  return rows.map((row) => ({
    memberId: trustedId<MemberId>(row.member_id),
    successorId: row.successor_id === null ? null : trustedId<MemberId>(row.successor_id),
    at: at(row.at),
    until: atOrNull(row.until),
  }));
}

const IS_REPLACED = `exists (select from owner_replacement
  where owner_replacement.member_id = member.id and owner_replacement.until is null)`;

/** Somebody of a tray who cannot sign in any more. */
export type DisabledMember = Member & {
  readonly role: Role;
  readonly since: Instant;
  /** Whether a lead has chosen who has what was theirs. */
  readonly isReplaced: boolean;
};

/** Whether somebody has what was a member's, now. */
export async function isReplaced(db: Database, memberId: MemberId): Promise<boolean> {
  const row = await knexOf(db)("owner_replacement").first("member_id").where({ member_id: memberId, until: null });
  return row !== undefined;
}

/** The members of a tray who cannot sign in, the last to leave first. */
export async function disabledMembersOf(db: Database, trayId: TrayId): Promise<DisabledMember[]> {
  const builder = knexOf(db);
  const rows: (MemberRow & { role: Role; disabled_at: Date; is_replaced: boolean })[] = await builder("member")
    .select(...MEMBER_COLUMNS, "role", "disabled_at", builder.raw(`${IS_REPLACED} as is_replaced`))
    .join("tray_member", "tray_member.member_id", "member.id")
    .where("tray_member.tray_id", trayId)
    .whereNotNull("disabled_at")
    .orderBy("disabled_at", "desc");
  return rows.map((row) => ({
    ...memberOf(row),
    role: row.role,
    since: at(row.disabled_at),
    isReplaced: row.is_replaced,
  }));
}

/**
 * Gives what a disabled member still owns to her successor, as its journal comes to now; those that are open were handed
 * over one by one before.
 */
export async function saveSuccessor(trx: Transaction, memberId: MemberId, successor: MemberId | null): Promise<void> {
  await knexOf(trx)("conversation").where("owner_id", memberId).update({ owner_id: successor });
}

/** Adds a member; false when the sign-in name is taken. */
export async function addMember(
  db: Database,
  member: Member & { passwordHash: string; createdAt: Instant },
): Promise<boolean> {
  const added = await knexOf(db)("member")
    .insert({
      id: member.id,
      sign_in_name: member.signInName.toLowerCase(),
      name: member.name,
      initials: member.initials,
      password_hash: member.passwordHash,
      time_zone: member.timeZone,
      created_at: param(member.createdAt),
    })
    .onConflict("sign_in_name")
    .ignore()
    .returning("id");
  return added.length === 1;
}

/** Lets a member into a tray, or changes the role there. */
export async function letIntoTray(db: Database, trayId: TrayId, memberId: MemberId, role: Role): Promise<void> {
  await knexOf(db)("tray_member")
    .insert({ tray_id: trayId, member_id: memberId, role })
    .onConflict(["tray_id", "member_id"])
    .merge(["role"]);
}

/** Somebody who looks into a tray. */
export type Colleague = { readonly trayId: TrayId; readonly name: string };

/** Everybody who looks into any tray. */
export async function allColleagues(db: Database): Promise<Colleague[]> {
  const rows = await knexOf(db)("tray_member")
    .select("tray_id", "name")
    .join("member", "member.id", "tray_member.member_id")
    .whereNull("disabled_at");
  return rows.map((row) => ({ trayId: trustedId<TrayId>(row.tray_id), name: row.name }));
}
