import { createHash } from "node:crypto";
import { hash, verify } from "@node-rs/argon2";
import type { MemberId } from "../core/kernel/ids";
import { DAY, type Instant, later, MINUTE } from "../core/kernel/instant";
import { err, ok, type Result } from "../core/kernel/result";
import {
  allMembers,
  endSession,
  forgetSignInFailures,
  type Member,
  memberBySignInName,
  memberOfSession,
  noteSignInFailure,
  signInFailuresSince,
  startSession,
} from "../storage/index";
import type { Deps } from "./deps";

export type Session = { readonly token: string; readonly expiresAt: Instant };
export type SignInRefusal = { readonly kind: "wrong-name-or-password" } | { readonly kind: "too-many-tries" };

const SESSION_DAYS = 14;
const MAX_FAILURES = 8;
const FAILURE_WINDOW = 15 * MINUTE;
// OWASP's recommendation for argon2id, which is this library's default algorithm: 19 MiB, two passes.
const HASHING = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };
// Checked when there is no such member, so that the answer takes as long as for one that there is.
const DECOY = hash("nobody has this password", HASHING);

/** The hash of a password by a memory-hard function (Argon2id, RFC 9106), with its parameters and salt in it. */
export function hashPassword(password: string): Promise<string> {
  return hash(password, HASHING);
}

/** A session for the right password. Name and password are not told apart in the refusal; after some failures it is too early for any. */
export async function signIn(
  deps: Deps,
  signInName: string,
  password: string,
): Promise<Result<Session, SignInRefusal>> {
  const failures = await signInFailuresSince(deps.db, signInName, later(deps.now(), -FAILURE_WINDOW));
  if (failures >= MAX_FAILURES) return err({ kind: "too-many-tries" });
  const found = await memberBySignInName(deps.db, signInName);
  const right = await verify(found?.passwordHash ?? (await DECOY), password);
  if (found === null || !right) {
    await noteSignInFailure(deps.db, signInName, deps.now());
    return err({ kind: "wrong-name-or-password" });
  }
  await forgetSignInFailures(deps.db, signInName);
  return ok(await sessionFor(deps, found.member.id));
}

/** The colleagues whom the demo offers; none outside the demo. */
export async function demoColleagues(deps: Deps): Promise<Member[]> {
  return deps.demo ? allMembers(deps.db) : [];
}

/** A session without a password, in the demo only. */
export async function signInToDemo(deps: Deps, signInName: string): Promise<Result<Session, SignInRefusal>> {
  const found = deps.demo ? await memberBySignInName(deps.db, signInName) : null;
  return found === null ? err({ kind: "wrong-name-or-password" }) : ok(await sessionFor(deps, found.member.id));
}

/** Who is signed in with this token; null when nobody is. */
export function whoIs(deps: Deps, token: string): Promise<Member | null> {
  return memberOfSession(deps.db, tokenHash(token), deps.now());
}

/** Ends the session of a token. */
export function signOut(deps: Deps, token: string): Promise<void> {
  return endSession(deps.db, tokenHash(token), deps.now());
}

async function sessionFor(deps: Deps, memberId: MemberId): Promise<Session> {
  const token = deps.newToken();
  const expiresAt = later(deps.now(), SESSION_DAYS * DAY);
  await startSession(deps.db, { tokenHash: tokenHash(token), memberId, createdAt: deps.now(), expiresAt });
  return { token, expiresAt };
}

function tokenHash(token: string): Buffer {
  return createHash("sha256").update(token).digest();
}
