import { passwordProblem } from "../../core/access/password";
import { type EmailAddress, readEmailAddress, withoutSubaddress } from "../../core/kernel/email-address";
import { err, ok, type Result } from "../../core/kernel/result";
import {
  allTrays,
  endSessionById,
  endSessionsOf,
  type ListedSession,
  type Member,
  mailAddressesOf,
  memberBySignInName,
  sessionsOf,
  setMailAddress,
  setPasswordHash,
} from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import { peopleTexts } from "../../texts/en/people";
import { type Said, saidOf } from "../../texts/said";
import { noteAccess } from "../base/access-log";
import type { Deps } from "../base/deps";
import { commonPasswords } from "./common-passwords";
import { checkPassword, hashPassword, idleSince, tokenHash } from "./sign-in";

const said = saidOf(peopleTexts);

/** What is wrong with a change of one's password, by field. */
export type PasswordProblems = Partial<Record<"old" | "new", Said>>;

/** Changes a member's own password and ends all sessions but the one of `token`. Wrong old ones are held up as in signing in. */
export async function changeOwnPassword(
  deps: Deps,
  member: Member,
  token: string,
  given: { readonly old: string; readonly next: string },
): Promise<Result<null, PasswordProblems>> {
  const problem = passwordProblem(given.next, [member.name, member.signInName], await commonPasswords());
  if (problem !== null) return err({ new: problem });
  const known = await memberBySignInName(deps.db, member.signInName);
  const isRight = known !== null && (await checkPassword(deps, member.signInName, known.passwordHash, given.old));
  if (!isRight) {
    await noteAccess(deps.db, deps, { kind: "password-refused" }, { by: member.id });
    return err({ old: said("people.thatIsNotYourPassword") });
  }
  const passwordHash = await hashPassword(given.next);
  await inTransaction(deps.db, async (trx) => {
    await setPasswordHash(trx, member.id, passwordHash);
    await endSessionsOf(trx, member.id, tokenHash(token));
    await noteAccess(trx, deps, { kind: "password-changed" }, { by: member.id });
  });
  deps.publishAccess(member.id);
  return ok(null);
}

/** A member's own sessions, the one used last first. */
export function ownSessions(deps: Deps, member: Member, token: string): Promise<ListedSession[]> {
  return sessionsOf(deps.db, member.id, tokenHash(token), deps.now(), idleSince(deps));
}

/** Ends one of a member's own sessions, or (null) all but the one of `token`; false when it had ended. */
export async function endOwnSessions(deps: Deps, member: Member, token: string, id: string | null): Promise<boolean> {
  if (id === null) await endSessionsOf(deps.db, member.id, tokenHash(token));
  const ended = id === null || (await endSessionById(deps.db, member.id, id));
  if (ended) await noteAccess(deps.db, deps, { kind: "sessions-ended" }, { by: member.id });
  deps.publishAccess(member.id);
  return ended;
}

/** Where a member is reached by those outside; null where they did not say. */
export async function ownMailAddress(deps: Deps, member: Member): Promise<EmailAddress | null> {
  return (await mailAddressesOf(deps.db, [member.id])).get(member.id) ?? null;
}

/** Says where a member is reached by those outside, where copies of automatic answers go to; an empty text for nowhere. */
export async function changeOwnMailAddress(deps: Deps, member: Member, text: string): Promise<Result<null, Said>> {
  const address = text.trim() === "" ? null : readEmailAddress(text);
  if (address === null && text.trim() !== "") return err(said("people.isNoAddress", { text: text.trim() }));
  const trays = (await allTrays(deps.db)).flatMap(({ addresses }) => addresses);
  // What would come straight back into the office helps nobody.
  if (address !== null && trays.includes(withoutSubaddress(address))) return err(said("people.isATrayItself"));
  await setMailAddress(deps.db, member.id, address);
  return ok(null);
}
