import type { MemberId } from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { MEMBER_COLUMNS, type Member, memberOf } from "./members";
import { param } from "./rows";

/** Remembers a session by the hash of its token: who reads the table cannot sign in with it. */
export async function startSession(
  db: Database,
  session: { tokenHash: Uint8Array; memberId: MemberId; createdAt: Instant; expiresAt: Instant },
): Promise<void> {
  await knexOf(db)("session").insert({
    token_hash: session.tokenHash,
    member_id: session.memberId,
    created_at: param(session.createdAt),
    expires_at: param(session.expiresAt),
  });
}

/** Whose session this is; null when there is none, it ran out, or its member was disabled. */
export async function memberOfSession(db: Database, tokenHash: Uint8Array, now: Instant): Promise<Member | null> {
  const row = await knexOf(db)("session")
    .first(...MEMBER_COLUMNS)
    .join("member", "member.id", "session.member_id")
    .where("token_hash", tokenHash)
    .where("expires_at", ">", param(now))
    .whereNull("disabled_at");
  return row === undefined ? null : memberOf(row);
}

/** Forgets a session, and those that ran out. */
export async function endSession(db: Database, tokenHash: Uint8Array, now: Instant): Promise<void> {
  await knexOf(db)("session").where("token_hash", tokenHash).orWhere("expires_at", "<=", param(now)).delete();
}

/** Notes a sign-in that failed. */
export async function noteSignInFailure(db: Database, signInName: string, at: Instant): Promise<void> {
  await knexOf(db)("sign_in_failure").insert({ sign_in_name: signInName.toLowerCase(), at: param(at) });
}

/** How often signing in by this name failed since a moment. */
export async function signInFailuresSince(db: Database, signInName: string, since: Instant): Promise<number> {
  const row = await knexOf(db)("sign_in_failure")
    .where({ sign_in_name: signInName.toLowerCase() })
    .where("at", ">", param(since))
    .count<{ count: string }[]>("* as count")
    .first();
  return Number(row?.count ?? 0);
}

/** Forgets the failures of a name once its owner is in. */
export async function forgetSignInFailures(db: Database, signInName: string): Promise<void> {
  await knexOf(db)("sign_in_failure").where({ sign_in_name: signInName.toLowerCase() }).delete();
}
