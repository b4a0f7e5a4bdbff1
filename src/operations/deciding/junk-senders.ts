import { type EmailAddress, readEmailAddress } from "../../core/kernel/email-address";
import { type BatchId, type ConversationId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import type { Tray, TrayGrant } from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import { factsOf, lockConversations } from "../../storage/facts/index";
import { countOfList } from "../../storage/lists/index";
import { addJunkSender, junkSendersOf, removeJunkSender } from "../../storage/mail/index";
import type { Deps } from "../base/deps";
import { carryOut } from "../changes/change-conversations";
import type { Refusal } from "../refusals/refusal";

/** From now on a sender's mail goes straight to Junk, or no longer does. */
export async function callJunkSender(
  deps: Deps,
  grant: TrayGrant,
  text: string,
  isJunk: boolean,
): Promise<Result<EmailAddress, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const address = readEmailAddress(text);
  if (address === null || grant.tray.addresses.includes(address)) return err({ kind: "no-such", what: "sender" });
  if (isJunk) await addJunkSender(deps.db, grant, address, deps.now());
  else await removeJunkSender(deps.db, grant, address);
  // What comes in at this process a moment later is meant as well.
  deps.directory.last = null;
  return ok(address);
}

/** The other open mail of a sender, and whether what comes of it is junk. */
export type OtherMail = { readonly address: EmailAddress; readonly open: number; readonly isJunkSender: boolean };

/** What else a tray has of a sender; null for a text that is no address. */
export async function otherMailOf(deps: Deps, grant: TrayGrant, text: string): Promise<OtherMail | null> {
  const address = readEmailAddress(text);
  if (address === null) return null;
  const [open, senders] = await Promise.all([
    countOfList(deps.db, grant, { scope: "open", filter: { person: [address] }, ageBands: [] }),
    junkSendersOf(deps.db, grant),
  ]);
  return { address, open, isJunkSender: senders.some((sender) => sender.address === address) };
}

/** Calls what a junk sender has just begun junk, as a decision of the tray that can be undone. */
export async function junkArrival(deps: Deps, trayId: Tray["id"], id: ConversationId): Promise<void> {
  await inTransaction(deps.db, async (trx) => {
    const conversations = await lockConversations(trx, trayId, [id]);
    const facts = await factsOf(trx, [id]);
    const changes = conversations.map((conversation) => ({
      conversation,
      known: facts.get(id) ?? NOTHING_HAPPENED,
      effects: [{ kind: "junked" } as const],
    }));
    await carryOut(trx, deps, null, trustedId<BatchId>(deps.newId()), changes);
  });
}
