import type { EmailAddress } from "../../core/kernel/email-address";
import { dateOf } from "../../core/kernel/instant";
import type { MailMessage } from "../../core/message/mail-message";
import { checkSignatures } from "../../mail/index";
import type { Tray } from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import type { Deps } from "../base/deps";
import { cachedColleagues, isJunkSender, traysOfAddresses } from "../base/routing-cache";
import { junkArrival } from "../deciding/junk-senders";
import { type Incoming, ingestMessage, type Kept, startAtOnce } from "./ingest-message";

/** A message as it was handed to us. */
export type Arrival = {
  readonly raw: Uint8Array;
  /** MAIL FROM: an empty text for `<>`; null when there was no envelope, as in a file. */
  readonly envelopeSender: string | null;
  readonly recipients: readonly EmailAddress[];
};

/** Whether mail to an address is for one of our trays. */
export async function knowsAddress(deps: Deps, address: EmailAddress): Promise<boolean> {
  return (await traysOfAddresses(deps, [address])).length > 0;
}

/**
 * Keeps a message in each tray that it is addressed to. When it returns, the message and its place are committed; doing it
 * again changes nothing but the ways on which it came.
 */
export async function receiveMessage(deps: Deps, arrival: Arrival): Promise<Kept[]> {
  const message = await deps.aside.parse(arrival.raw, arrival.envelopeSender);
  const trays = await traysOfAddresses(deps, arrival.recipients);
  const incoming: Incoming = {
    message,
    raw: arrival.raw,
    receivedAt: deps.now(),
    imported: false,
    isHistory: false,
    signatures: await signaturesOf(deps, message, arrival.raw),
    colleagues: await cachedColleagues(deps),
    recipients: arrival.recipients,
    envelopeSender: arrival.envelopeSender ?? "",
  };
  const [tray] = trays;
  const fresh = tray !== undefined && trays.length === 1 ? await startAtOnce(deps, tray, incoming) : null;
  const kept = fresh === null ? await ingestInTrays(deps, trays, incoming) : [fresh];
  for (const { trayId, conversationId, outcome } of kept) {
    const sender = message.from?.address;
    if (outcome === "started" && sender !== undefined && (await isJunkSender(deps, trayId, sender)))
      await junkArrival(deps, trayId, conversationId);
    if (outcome !== "known-already") deps.publishChange({ trayId, conversationId });
  }
  return kept;
}

function ingestInTrays(deps: Deps, trays: readonly Tray[], incoming: Incoming): Promise<Kept[]> {
  return inTransaction(deps.db, async (trx) => {
    const outcomes: Kept[] = [];
    for (const tray of trays) outcomes.push(await ingestMessage(trx, deps, tray, incoming));
    return outcomes;
  });
}

async function signaturesOf(deps: Deps, message: MailMessage, raw: Uint8Array) {
  const { keys } = deps.trust;
  if (keys === null || !message.isSigned) return [];
  return checkSignatures(raw, keys, dateOf(deps.now()));
}
