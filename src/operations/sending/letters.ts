import { createHash } from "node:crypto";
import { deriveDocket } from "../../core/docket/derive-docket";
import { domainOf, type EmailAddress, type Mailbox, readEmailAddress } from "../../core/kernel/email-address";
import { type MemberId, type MessageId, trustedId } from "../../core/kernel/ids";
import { dateOf, type Instant, instant, later, SECOND } from "../../core/kernel/instant";
import type { NamedFile } from "../../core/kernel/named-file";
import { EXPIRY_FIELD } from "../../core/message/expiry";
import type { ConversationFacts } from "../../core/standing/derive-standing";
import { withoutPassages } from "../../core/templates/unfilled";
import { firstWords } from "../../core/text/new-text";
import { threadIds } from "../../core/threading/place-message";
import { composeMessage, parseMessage, sanitiseHtml, textOfHtml } from "../../mail/index";
import type { Tray, TrayGrant } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import { type MessagePlace, type NewMessage, saveRecipients, storeMessage } from "../../storage/facts/index";
import { messageTexts } from "../../texts/en/message";
import { type Said, saidOf } from "../../texts/said";
import type { Within } from "../base/deps";
import { dedupeKeyOf } from "../base/message-fact";

/** Who writes, as the From field and the journal have it. */
export type Writer = { readonly name: string };

/** Whose a letter is: a member's, or the tray's, which sends it by itself for the reason that is given. */
export type Author =
  | { readonly tray: Tray; readonly memberId: MemberId; readonly name: string }
  | { readonly tray: Tray; readonly memberId: null; readonly why: Said };

/** A message of ours, before it has an id and a date. */
export type Letter = {
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  /** Who gets it without being named in it; left out for nobody. */
  readonly bcc?: readonly Mailbox[];
  readonly subject: string;
  readonly html: string;
  readonly inReplyTo: string | null;
  readonly references: readonly string[];
  readonly carries: Uint8Array | null;
  readonly enclosed: readonly NamedFile[];
  /** The codes of the records that it is about, for a header of its own. */
  readonly recordCodes: readonly string[];
};

/** How a letter goes. */
export type LetterOptions = {
  readonly asksReport?: boolean;
  readonly expiresAt?: Instant | null;
  /** More fields of its header. */
  readonly headers?: Readonly<Record<string, string>>;
};

/** A member as the author of a letter. */
export function authorOf({ tray, memberId }: TrayGrant, { name }: Writer): Author {
  return { tray, memberId, name };
}

const leavesAt = (deps: Within) => later(deps.now(), deps.sending.holdMs);

// Names the records for whoever files it on the other side, whatever becomes of its subject.
const RECORDS_FIELD = "Record-Reference";

/** Where a letter goes: into a conversation, or (`start`) as the first of one. */
export type LetterPlace = Pick<MessagePlace, "conversationId" | "start" | "version" | "who"> & {
  readonly facts: ConversationFacts;
};

/** Stores a letter in its place and hands in the job that sends it. `newestText` is what lists show of the conversation then. */
export async function saveLetter(
  trx: Transaction,
  deps: Within,
  stored: NewMessage,
  { facts, ...place }: LetterPlace,
  newestText: string = firstWords(stored.ownText),
): Promise<void> {
  await storeMessage(trx, stored, {
    ...place,
    docket: deriveDocket(facts),
    newestText,
  });
  const { to, cc, bcc = [] } = stored.recipients;
  await saveRecipients(
    trx,
    stored,
    [...to, ...cc, ...bcc].map(({ address }) => address),
  );
  await deps.jobs.enqueue(trx, { kind: "send-message", messageId: stored.id }, leavesAt(deps));
}

/** A letter as it goes and as it is stored, its Message-ID fixed. */
export async function storedLetter(
  deps: Within,
  author: Author,
  letter: Letter,
  { asksReport = false, expiresAt = null, headers: more = {} }: LetterOptions,
): Promise<NewMessage> {
  const { tray } = author;
  const isOwn = author.memberId === null;
  const { id, now, address } = beginning(deps, tray);
  const { to, cc, bcc = [], subject, inReplyTo, references, carries, enclosed, recordCodes } = letter;
  const headers = {
    ...more,
    ...(expiresAt === null ? {} : { [EXPIRY_FIELD]: dateOf(expiresAt).toUTCString() }),
    ...(recordCodes.length === 0 ? {} : { [RECORDS_FIELD]: recordCodes.join(", ") }),
  };
  const { html } = sanitiseHtml(withoutPassages(letter.html));
  const raw = await composeMessage({
    messageId: `${id}@${domainOf(address)}`,
    date: now,
    from: { name: isOwn ? tray.name : `${author.name}, ${tray.name}`, address },
    to,
    cc,
    subject,
    inReplyTo,
    references,
    text: textOfHtml(html),
    html,
    carries,
    enclosed,
    headers,
  });
  const from = { name: isOwn ? tray.name : author.name, address };
  const sending = { asksReport, leavesAt: leavesAt(deps) };
  // RFC 5322 3.6.3: those in Bcc are named in no copy.
  const recipients = { to, cc, replyTo: [], ...(bcc.length === 0 ? {} : { bcc }) };
  return { ...(await asStored(deps, author, raw, { id, now })), from, recipients, sending };
}

/** A message as it came, sent on as it is to somebody else by the tray (RFC 5322 3.6.6), its own Message-ID fixed. */
export async function resentLetter(
  deps: Within,
  { tray, why }: { readonly tray: Tray; readonly why: Said },
  came: Uint8Array,
  { to, headers = {} }: { readonly to: EmailAddress; readonly headers?: Readonly<Record<string, string>> },
): Promise<NewMessage> {
  const { id, now, address } = beginning(deps, tray);
  const resent = {
    "Resent-From": `<${address}>`,
    "Resent-To": `<${to}>`,
    "Resent-Date": dateOf(now).toUTCString().replace("GMT", "+0000"),
    "Resent-Message-ID": `<${id}@${domainOf(address)}>`,
    ...headers,
  };
  const block = Object.entries(resent).map(([name, value]) => `${name}: ${value}\r\n`);
  const raw = Buffer.concat([Buffer.from(block.join("")), came]);
  const stored = await asStored(deps, { tray, memberId: null, why }, raw, { id, now });
  const recipients = { to: [{ name: "", address: to }], cc: [], replyTo: [] };
  // It is a message of its own here: what it answers, and what answers it, is found by the one that came.
  const own = { messageId: `${id}@${domainOf(address)}`, inReplyTo: [], references: [], threadIds: [] };
  const dedupeKey = createHash("sha256").update(`resent\0${id}`).digest();
  return { ...stored, ...own, from: { name: tray.name, address }, recipients, dedupeKey };
}

function beginning(deps: Within, tray: Tray): { id: MessageId; now: Instant; address: EmailAddress } {
  const address = tray.addresses[0] ?? readEmailAddress("tray@localhost.invalid");
  if (address === null || address === undefined) throw new Error(`tray ${tray.slug} has no address to write from`);
  // RFC 5322 3.3: a Date has whole seconds, and the stored one must be the one that the message carries.
  const now = instant(Math.floor(deps.now() / SECOND) * SECOND);
  return { id: trustedId<MessageId>(deps.newId()), now, address };
}

type Begun = { readonly id: MessageId; readonly now: Instant };

// But for whom it is from and to, as the fields of its header cut long names.
async function asStored(
  deps: Within,
  author: Author,
  raw: Uint8Array,
  { id, now }: Begun,
): Promise<Omit<NewMessage, "from" | "recipients"> & Pick<NewMessage, "sending">> {
  const { tray } = author;
  const { message } = await parseMessage(raw);
  return {
    id,
    trayId: tray.id,
    ownAddresses: tray.addresses,
    direction: "out",
    classification:
      author.memberId === null
        ? { kind: "automatic", reason: author.why }
        : { kind: "person", reason: saidOf(messageTexts)("message.writtenHere") },
    messageId: message.messageId,
    inReplyTo: message.inReplyTo,
    references: message.references,
    threadIds: threadIds(message),
    subject: message.subject,
    sentAt: now,
    receivedAt: deps.now(),
    authorId: author.memberId,
    raw,
    rawSha256: createHash("sha256").update(raw).digest(),
    hasHtml: false,
    betterPart: "text",
    appointments: [],
    failedRecipients: [],
    attachments: message.attachments,
    warnings: [],
    list: null,
    protection: null,
    hasRemoteContent: false,
    unsubscribe: null,
    trust: null,
    isNewParticipant: false,
    routes: [],
    expiresAt: message.expiresAt,
    ownText: message.ownText,
    restText: message.restText,
    dedupeKey: dedupeKeyOf(message, raw),
    delivery: "waiting",
    sending: { asksReport: false, leavesAt: leavesAt(deps) },
  };
}
