import { err, ok, type Result } from "../../core/kernel/result";
import {
  disableMember,
  enableMember,
  endSessionsOf,
  type Member,
  memberNamed,
  setPasswordHash,
} from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { noteAccess } from "../base/access-log";
import type { Deps } from "../base/deps";
import { hashPassword } from "./sign-in";

/** Why the operator's step about a member was not done. */
export type NoMember = { readonly kind: "no-such-member" };

async function aboutMember(
  deps: Deps,
  signInName: string,
  work: (trx: Transaction, member: Member) => Promise<void>,
): Promise<Result<Member, NoMember>> {
  const done = await inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<Member, NoMember>> => {
    const member = await memberNamed(trx, signInName);
    if (member === null) return err({ kind: "no-such-member" });
    await work(trx, member);
    return ok(member);
  });
  if (done.ok) deps.publishAccess(done.value.id);
  return done;
}

/** Gives a member another password and ends all sessions under the old one. */
export async function setPassword(deps: Deps, signInName: string, password: string): Promise<Result<Member, NoMember>> {
  const passwordHash = await hashPassword(password);
  return aboutMember(deps, signInName, async (trx, { id }) => {
    await setPasswordHash(trx, id, passwordHash);
    await endSessionsOf(trx, id);
    await noteAccess(trx, deps, { kind: "password-changed" }, { about: id });
  });
}

/** Keeps a member from signing in, at once; what they have stays theirs until a lead hands it over. */
export function disable(deps: Deps, signInName: string): Promise<Result<Member, NoMember>> {
  return aboutMember(deps, signInName, async (trx, { id }) => {
    await disableMember(trx, id, deps.now());
    await noteAccess(trx, deps, { kind: "disabled" }, { about: id });
  });
}

/** Lets a member who was disabled or removed sign in again. */
export function enable(deps: Deps, signInName: string): Promise<Result<Member, NoMember>> {
  return aboutMember(deps, signInName, async (trx, { id }) => {
    await enableMember(trx, id, deps.now());
    await noteAccess(trx, deps, { kind: "let-in-again" }, { about: id });
  });
}
