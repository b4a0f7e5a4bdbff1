import { createHash } from "node:crypto";
import { deriveDocket } from "../core/docket/derive-docket";
import { type EmailAddress, looseAddress, type Mailbox, mailboxName } from "../core/kernel/email-address";
import { type ConversationId, type MessageId, trustedId } from "../core/kernel/ids";
import { type Instant, MINUTE } from "../core/kernel/instant";
import type { MailMessage } from "../core/message/mail-message";
import { firstWords } from "../core/message/own-text";
import type { ConversationFacts, MessageFact } from "../core/standing/derive-standing";
import { placeMessage, threadIds } from "../core/threading/place-message";
import { parseMessage } from "../mail/index";
import {
  type Database,
  factsOf,
  holdConversations,
  inTransaction,
  lockThreads,
  type MessagePlace,
  type NewMessage,
  storeIfUnknown,
  storeMessage,
  type Tray,
} from "../storage/index";
import type { Deps } from "./deps";
import { traysOfAddresses } from "./tray-directory";

/** A message as it was handed to us. */
export type Arrival = {
  readonly raw: Uint8Array;
  /** MAIL FROM: an empty text for `<>`; null when there was no envelope, as in a file. */
  readonly envelopeSender: string | null;
  readonly recipients: readonly EmailAddress[];
};

/** What became of it in one tray. */
export type Kept = {
  readonly trayId: Tray["id"];
  readonly conversationId: ConversationId;
  readonly outcome: "started" | "joined" | "known-already";
};

/** Whether mail to an address is for one of our trays. */
export async function knowsAddress(deps: Deps, address: EmailAddress): Promise<boolean> {
  return (await traysOfAddresses(deps, [address])).length > 0;
}

/**
 * Keeps a message in each tray that it is addressed to. When it returns, the message and its place are committed; doing it
 * again changes nothing.
 */
export async function receiveMessage(deps: Deps, arrival: Arrival): Promise<Kept[]> {
  const { message } = await parseMessage(arrival.raw, arrival.envelopeSender);
  const trays = await traysOfAddresses(deps, arrival.recipients);
  const receivedAt = deps.now();
  const incoming = { message, raw: arrival.raw, receivedAt, imported: false };
  const [tray] = trays;
  const fresh = tray !== undefined && trays.length === 1 ? await startAtOnce(deps, tray, incoming) : null;
  const kept =
    fresh !== null ? [fresh] : await inTransaction(deps.db, (trx) => keepInTrays(trx, deps, trays, incoming));
  for (const { trayId, conversationId, outcome } of kept) {
    if (outcome !== "known-already") deps.tell({ trayId, conversationId });
  }
  return kept;
}

export type Incoming = {
  readonly message: MailMessage;
  readonly raw: Uint8Array;
  readonly receivedAt: Instant;
  /** From a file: it may be one of our own, and it is not new. */
  readonly imported: boolean;
};

const NOBODY: Mailbox = { name: "Unknown sender", address: looseAddress("") };

async function keepInTrays(trx: Database, deps: Deps, trays: readonly Tray[], incoming: Incoming): Promise<Kept[]> {
  const outcomes: Kept[] = [];
  for (const tray of trays) outcomes.push(await keepInTray(trx, deps, tray, incoming));
  return outcomes;
}

// Most mail answers nothing: it is stored in one round trip, and looked up only when the tray turns out to know its id.
async function startAtOnce(deps: Deps, tray: Tray, incoming: Incoming): Promise<Kept | null> {
  const { message } = incoming;
  if (message.inReplyTo.length > 0 || message.references.length > 0) return null;
  const conversationId = trustedId<ConversationId>(deps.newId());
  const { stored, place } = placed(deps, tray, incoming, conversationId, null);
  const isNew = await storeIfUnknown(deps.db, stored, place);
  return isNew ? { trayId: tray.id, conversationId, outcome: "started" } : null;
}

/** Places a message in a tray and stores it, within the caller's transaction. */
export async function keepInTray(trx: Database, deps: Deps, tray: Tray, incoming: Incoming): Promise<Kept> {
  const { message, raw } = incoming;
  const known = await lockThreads(trx, tray.id, threadIds(message), dedupeKeyOf(message, raw));
  if (known.copyIn !== null) return { trayId: tray.id, conversationId: known.copyIn, outcome: "known-already" };
  const placement = placeMessage(message, known.conversations);
  const starts = placement.kind === "starts";
  const conversationId = starts ? trustedId<ConversationId>(deps.newId()) : placement.conversation;
  const held = starts ? null : await heldFacts(trx, tray, conversationId);
  const { stored, place } = placed(deps, tray, incoming, conversationId, held);
  await storeMessage(trx, stored, place);
  return { trayId: tray.id, conversationId, outcome: starts ? "started" : "joined" };
}

type Held = { readonly version: number; readonly facts: ConversationFacts };

/** A message as it is stored in a conversation: one that is held, or a new one (null). */
function placed(
  deps: Deps,
  tray: Tray,
  incoming: Incoming,
  conversationId: ConversationId,
  held: Held | null,
): { stored: NewMessage; place: MessagePlace } {
  const { message, raw } = incoming;
  const keys = { dedupeKey: dedupeKeyOf(message, raw), threadIds: threadIds(message) };
  const stored = storedForm(deps, tray, incoming, keys);
  const version = (held?.version ?? 0) + 1;
  const facts = held?.facts ?? { messages: [], entries: [] };
  const place = {
    conversationId,
    start: held === null ? { subject: message.subject, createdAt: incoming.receivedAt } : null,
    version,
    docket: deriveDocket({ messages: [...facts.messages, factOf(stored, version)], entries: facts.entries }),
    who: whoFor(stored, held === null, message.from ?? NOBODY, message.to),
    newestText: firstWords(stored.ownText || stored.restText),
  };
  return { stored, place };
}

async function heldFacts(trx: Database, tray: Tray, id: ConversationId): Promise<Held> {
  const [held] = await holdConversations(trx, tray.id, [id]);
  if (held === undefined) throw new Error(`conversation ${id} is linked from tray ${tray.slug} and not in it`);
  const facts = (await factsOf(trx, [id])).get(id) ?? { messages: [], entries: [] };
  return { version: held.version, facts };
}

// A machine's message names nobody anew: the list goes on showing the person one deals with.
function whoFor(stored: NewMessage, starts: boolean, from: Mailbox, to: readonly Mailbox[]): string | null {
  if (stored.direction === "out") return starts ? mailboxName(to[0] ?? from) : null;
  const named = starts || stored.classification.kind === "person" || stored.classification.kind === "calendar";
  return named ? mailboxName(from) : null;
}

function storedForm(
  deps: Deps,
  tray: Tray,
  incoming: Incoming,
  keys: { dedupeKey: Uint8Array; threadIds: readonly string[] },
): NewMessage {
  const { message, raw, receivedAt, imported } = incoming;
  const from = message.from ?? NOBODY;
  const sentAt = believableDate(message.date, receivedAt);
  return {
    ...keys,
    id: trustedId<MessageId>(deps.newId()),
    trayId: tray.id,
    direction: imported && tray.addresses.includes(from.address) ? "out" : "in",
    classification: message.classification,
    messageId: message.messageId,
    inReplyTo: message.inReplyTo,
    references: message.references,
    subject: message.subject,
    from,
    recipients: { to: message.to, cc: message.cc, replyTo: message.replyTo },
    sentAt,
    receivedAt: imported ? sentAt : receivedAt,
    authorId: null,
    raw,
    rawSha256: createHash("sha256").update(raw).digest(),
    hasHtml: message.html !== null,
    failedRecipients: message.failedRecipients,
    attachments: message.attachments,
    warnings: message.warnings,
    ownText: message.ownText,
    restText: message.restText,
    delivery: null,
  };
}

/** A stored message as the facts have it. */
export function factOf(stored: NewMessage, version: number): MessageFact {
  return {
    id: stored.id,
    version,
    at: stored.sentAt,
    arrivedAt: stored.receivedAt,
    direction: stored.direction,
    kind: stored.classification.kind,
    from: stored.from.address,
    fromName: stored.from.name,
    authorId: stored.authorId,
    failedRecipients: stored.failedRecipients.map((recipient) => recipient.address),
  };
}

// Clocks are wrong by minutes; a Date from the future would stand on top of every list for as long as it says.
const TOLERATED_FUTURE = 5 * MINUTE;

function believableDate(date: Instant | null, receivedAt: Instant): Instant {
  return date === null || date > receivedAt + TOLERATED_FUTURE ? receivedAt : date;
}

/**
 * What makes two deliveries the same message: Message-ID, From and Date, since relays and lists change the rest and some
 * senders give every message the same id; without a Message-ID, every byte.
 */
export function dedupeKeyOf(message: MailMessage, raw: Uint8Array): Uint8Array {
  const hash = createHash("sha256");
  if (message.messageId === null) return hash.update("raw\0").update(raw).digest();
  return hash.update(`id\0${message.messageId}\0${message.from?.address ?? ""}\0${message.date ?? ""}`).digest();
}
