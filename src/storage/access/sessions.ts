import type { MemberId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { runPrepared } from "../base/prepared";
import { at, param } from "../base/rows";
import { MEMBER_COLUMNS, type Member, type MemberRow, memberOf } from "./members";
import { TRAYS_OF_MEMBER, type TrayRow } from "./trays";

/** A session as its member sees it. */
export type ListedSession = {
  readonly id: string;
  readonly createdAt: Instant;
  readonly usedAt: Instant;
  /** The browser and system that it was begun with, as far as they say so. */
  readonly device: string;
  readonly address: string;
  /** Whether it is the one that asks. */
  readonly isOwn: boolean;
};

/** For how long a session is good: from its beginning on, and without being used, in milliseconds. */
export type SessionLimits = { readonly longestMs: number; readonly idleMs: number };

/** Remembers a session by the hash of its token: who reads the table cannot sign in with it. */
export async function startSession(
  db: Database,
  session: {
    readonly tokenHash: Uint8Array;
    readonly memberId: MemberId;
    readonly createdAt: Instant;
    readonly expiresAt: Instant;
    readonly device: string;
    readonly address: string;
  },
): Promise<void> {
  await knexOf(db)("session").insert({
    token_hash: session.tokenHash,
    member_id: session.memberId,
    created_at: param(session.createdAt),
    used_at: param(session.createdAt),
    expires_at: param(session.expiresAt),
    device: session.device,
    address: session.address,
  });
}

// Being used is noted this seldom.
const NOTED_EVERY = "1 minute";

/** Whose session a token is of, and the trays that they may look into. */
export type Entered = {
  readonly member: Member;
  readonly trays: readonly TrayRow[];
  /** What the member chose, of what was asked for. */
  readonly settings: ReadonlyMap<string, unknown>;
};

/**
 * Whose session this is, used now, with settings by their keys or what those begin with; null when there is none, it ran
 * out, lay idle since before `idleSince`, or its member was disabled.
 */
export async function memberOfSession(
  db: Database,
  tokenHash: Uint8Array,
  now: Instant,
  idleSince: Instant,
  wanted: { readonly keys: readonly string[]; readonly beginning: string },
): Promise<Entered | null> {
  type Row = MemberRow & { is_stale: boolean; trays: TrayRow[]; settings: Record<string, unknown> };
  const [row] = await runPrepared<Row>(
    db,
    /* sql */ `
    select ${MEMBER_COLUMNS.join(", ")}, used_at < cast(:now as timestamptz) - interval '${NOTED_EVERY}' as is_stale,
      (select coalesce(json_agg(own order by own.created_at, own.slug), '[]')
        from (${TRAYS_OF_MEMBER} where tray_member.member_id = member.id) as own) as trays,
      (select coalesce(json_object_agg(key, value), '{}') from member_setting
        where member_setting.member_id = member.id and (key = any(:keys) or starts_with(key, :beginning))) as settings
    from session join member on member.id = session.member_id
    where token_hash = :tokenHash and expires_at > :now and used_at > :idleSince and disabled_at is null`,
    {
      tokenHash: Buffer.from(tokenHash),
      now: param(now),
      idleSince: param(idleSince),
      keys: [...wanted.keys],
      beginning: wanted.beginning,
    },
  );
  if (row === undefined) return null;
  if (row.is_stale)
    await knexOf(db)("session")
      .where("token_hash", tokenHash)
      .update({ used_at: param(now) });
  return { member: memberOf(row), trays: row.trays, settings: new Map(Object.entries(row.settings)) };
}

/** Forgets a session, and those that ran out. */
export async function endSession(db: Database, tokenHash: Uint8Array, now: Instant): Promise<MemberId | null> {
  const [row] = await knexOf(db)("session").where("token_hash", tokenHash).delete().returning("member_id");
  await knexOf(db)("session").where("expires_at", "<=", param(now)).delete();
  return row === undefined ? null : row.member_id;
}

/** A member's sessions that are good, the one used last first. */
export async function sessionsOf(
  db: Database,
  memberId: MemberId,
  own: Uint8Array,
  now: Instant,
  idleSince: Instant,
): Promise<ListedSession[]> {
  const rows = await knexOf(db)("session")
    .select("id", "token_hash", "created_at", "used_at", "device", "address")
    .where("member_id", memberId)
    .where("expires_at", ">", param(now))
    .where("used_at", ">", param(idleSince))
    .orderBy("used_at", "desc");
  return rows.map((row) => ({
    id: row.id,
    createdAt: at(row.created_at),
    usedAt: at(row.used_at),
    device: row.device,
    address: row.address,
    isOwn: Buffer.compare(row.token_hash, own) === 0,
  }));
}

/** Ends one of a member's sessions; false when it has ended. */
export async function endSessionById(db: Database, memberId: MemberId, id: string): Promise<boolean> {
  return (await knexOf(db)("session").where({ member_id: memberId, id }).delete()) === 1;
}

/** Ends all of a member's sessions but `except`. */
export async function endSessionsOf(db: Database, memberId: MemberId, except: Uint8Array | null = null): Promise<void> {
  await knexOf(db)("session")
    .where("member_id", memberId)
    .modify((query) => void (except !== null && query.whereNot("token_hash", except)))
    .delete();
}

/** Notes a sign-in that failed. */
export async function noteSignInFailure(
  db: Database,
  signInName: string,
  address: string,
  when: Instant,
): Promise<void> {
  await knexOf(db)("sign_in_failure").insert({ sign_in_name: signInName.toLowerCase(), address, at: param(when) });
}

/** How often signing in failed since a moment: by this name, and from this address. */
export async function signInFailuresSince(
  db: Database,
  signInName: string,
  address: string,
  since: Instant,
): Promise<{ readonly ofName: number; readonly ofAddress: number }> {
  const failures = () => knexOf(db)("sign_in_failure").where("at", ">", param(since)).count("*");
  const row = await knexOf(db)
    .select(failures().where("sign_in_name", signInName.toLowerCase()).as("of_name"))
    .select(failures().where("address", address).as("of_address"))
    .first();
  return { ofName: Number(row?.of_name ?? 0), ofAddress: Number(row?.of_address ?? 0) };
}

/** Forgets the failures of a name from an address once its owner is in there. */
export async function forgetSignInFailures(db: Database, signInName: string, address: string): Promise<void> {
  await knexOf(db)("sign_in_failure").where({ sign_in_name: signInName.toLowerCase(), address }).delete();
}

/** Forgets failures of before a moment. */
export async function forgetSignInFailuresBefore(db: Database, before: Instant): Promise<void> {
  await knexOf(db)("sign_in_failure").where("at", "<", param(before)).delete();
}
