import { type MemberId, type TrayId, trustedId } from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { param } from "./rows";

export type Role = "lead" | "member" | "reader";
export type Member = {
  readonly id: MemberId;
  readonly signInName: string;
  readonly name: string;
  readonly initials: string;
  readonly timeZone: string;
};

type MemberRow = { id: string; sign_in_name: string; name: string; initials: string; time_zone: string };

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
