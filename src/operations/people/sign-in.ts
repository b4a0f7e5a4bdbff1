import { createHash } from "node:crypto";
import { hash, verify } from "@node-rs/argon2";
import { signInDelay } from "../../core/access/sign-in-delay";
import type { MemberId } from "../../core/kernel/ids";
import { DAY, type Instant, later, MINUTE } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import {
  allMembers,
  endSession,
  forgetSignInFailures,
  forgetSignInFailuresBefore,
  grantsFrom,
  type Member,
  memberBySignInName,
  memberOfSession,
  noteSignInFailure,
  signInFailuresSince,
  startSession,
  type TrayGrant,
} from "../../storage/access/index";
import { noteAccess } from "../base/access-log";
import type { Deps, RowSelection } from "../base/deps";
import { awayNow } from "./get-tray";
import { WITH_SESSION } from "./settings";

export type Session = { readonly token: string; readonly expiresAt: Instant };
export type SignInRefusal = { readonly kind: "wrong-name-or-password" } | { readonly kind: "too-many-tries" };

const FAILURE_WINDOW = 15 * MINUTE;
const FAILURES_KEPT = DAY;
// OWASP's recommendation for argon2id, which is this library's default algorithm: 19 MiB, two passes.
const HASHING = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };
// Checked when there is no such member, so that the answer takes as long as for one that there is.
const DECOY = hash("decoy", HASHING);
// Held up at a time from one address: more is refused, so that waiting costs this server little.
const MOST_WAITING = 4;
const MOST_DEVICE = 300;

const waiting = new Map<string, number>();

/** The hash of a password by a memory-hard function (Argon2id, RFC 9106), with its parameters and salt in it. */
export function hashPassword(password: string): Promise<string> {
  return hash(password, HASHING);
}

/**
 * A session for the right password. Name and password are not told apart in the refusal. After failures a try is held up
 * before it is looked at; it is only refused where too many of its address are held up already.
 */
export async function signIn(
  deps: Deps,
  signInName: string,
  password: string,
): Promise<Result<Session, SignInRefusal>> {
  const { address } = deps.from;
  const held = waiting.get(address) ?? 0;
  if (held >= MOST_WAITING && address !== "") return err({ kind: "too-many-tries" });
  waiting.set(address, held + 1);
  try {
    const found = await memberBySignInName(deps.db, signInName);
    const isRight = await checkPassword(deps, signInName, found?.passwordHash ?? null, password);
    if (found === null || !isRight) {
      const name = found?.member.signInName ?? null;
      await noteAccess(deps.db, deps, { kind: "sign-in-failed", name }, { about: found?.member.id ?? null });
      return err({ kind: "wrong-name-or-password" });
    }
    return ok(await sessionFor(deps, found.member.id));
  } finally {
    const left = (waiting.get(address) ?? 1) - 1;
    if (left > 0) waiting.set(address, left);
    else waiting.delete(address);
  }
}

/** Whether a password is the one of a hash (null for nobody's, which takes as long); held up after failures, which are noted. */
export async function checkPassword(
  deps: Deps,
  signInName: string,
  passwordHash: string | null,
  password: string,
): Promise<boolean> {
  const { address } = deps.from;
  const since = later(deps.now(), -FAILURE_WINDOW);
  await deps.pause(signInDelay(await signInFailuresSince(deps.db, signInName, address, since)));
  const isRight = (await verify(passwordHash ?? (await DECOY), password)) && passwordHash !== null;
  if (isRight) await forgetSignInFailures(deps.db, signInName, address);
  else await noteSignInFailure(deps.db, signInName, address, deps.now());
  return isRight;
}

/** Forgets failures that slow nobody down any more. */
export function forgetFailures(deps: Deps): Promise<void> {
  return forgetSignInFailuresBefore(deps.db, later(deps.now(), -FAILURES_KEPT));
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
export async function whoIs(deps: Deps, token: string): Promise<Member | null> {
  return (await memberOfSession(deps.db, tokenHash(token), deps.now(), idleSince(deps), WITH_SESSION))?.member ?? null;
}

/** Who is signed in with this token, and the trays that they may look into; null when nobody is. */
export async function whoComesIn(
  deps: Deps,
  token: string,
): Promise<{ readonly member: Member; readonly grants: readonly TrayGrant[]; readonly chosen: RowSelection } | null> {
  const now = deps.now();
  const [entered, timesOff] = await Promise.all([
    memberOfSession(deps.db, tokenHash(token), now, idleSince(deps), WITH_SESSION),
    awayNow(deps),
  ]);
  if (entered === null) return null;
  const { member, trays, settings } = entered;
  const chosen = { memberId: member.id, settings };
  return { member, grants: grantsFrom(trays, member.id, now, timesOff), chosen };
}

/** What was not used since then has ended. */
export const idleSince = (deps: Deps) => later(deps.now(), -deps.sessions.idleMs);

/** Ends the session of a token, with what is open under it. */
export async function signOut(deps: Deps, token: string): Promise<void> {
  const memberId = await endSession(deps.db, tokenHash(token), deps.now());
  if (memberId === null) return;
  await noteAccess(deps.db, deps, { kind: "signed-out" }, { by: memberId });
  deps.publishAccess(memberId);
}

async function sessionFor(deps: Deps, memberId: MemberId): Promise<Session> {
  const { address, device } = deps.from;
  const token = deps.newToken();
  const expiresAt = later(deps.now(), deps.sessions.longestMs);
  const session = { tokenHash: tokenHash(token), memberId, createdAt: deps.now(), expiresAt };
  await startSession(deps.db, { ...session, address, device: device.slice(0, MOST_DEVICE) });
  await noteAccess(deps.db, deps, { kind: "signed-in" }, { by: memberId });
  return { token, expiresAt };
}

/** By which a session is kept. */
export function tokenHash(token: string): Buffer {
  return createHash("sha256").update(token).digest();
}
