import { createHash } from "node:crypto";
import { type EmailAddress, looseAddress, type Mailbox } from "../../core/kernel/email-address";
import type { MessageId } from "../../core/kernel/ids";
import { type Instant, MINUTE } from "../../core/kernel/instant";
import type { MailMessage } from "../../core/message/mail-message";
import type { CheckedSignature } from "../../core/message/sender-trust";
import { listNameIn, waysToLeave } from "../../core/message/ways-to-leave";
import type { Colleague, Tray } from "../../storage/access/index";
import type { ArrivalRoute, NewMessage } from "../../storage/facts/index";
import { conversationTexts } from "../../texts/en/conversation";
import { saidOf } from "../../texts/said";
import { dedupeKeyOf } from "../base/message-fact";
import { addressesOf } from "../base/routing-cache";
import { writtenDown } from "../base/written-down";

const said = saidOf(conversationTexts);

/** A message on its way into a tray. */
export type Incoming = {
  readonly message: MailMessage;
  readonly raw: Uint8Array;
  readonly receivedAt: Instant;
  /** From a file: it may be one of our own, and it is not new. */
  readonly imported: boolean;
  /** The past, brought over: nobody has to sort it, and no rule acts on it. */
  readonly isHistory: boolean;
  readonly signatures: readonly CheckedSignature[];
  /** Those whose names nobody else should bear. */
  readonly colleagues: readonly Colleague[];
  /** The envelope, as far as there was one. */
  readonly recipients: readonly EmailAddress[];
  readonly envelopeSender: string;
};

const NOBODY: Mailbox = { name: writtenDown(said("conversation.unknownSender")), address: looseAddress("") };

/** The ways on which it reached this tray. */
export function routesOf(tray: Tray, { recipients, envelopeSender }: Incoming): ArrivalRoute[] {
  return addressesOf(tray, recipients).map((address) => ({ address, sender: envelopeSender }));
}

/** A message in the form in which it is stored, but for what the rest of the tray says about it. */
export function toNewMessage(
  tray: Tray,
  incoming: Incoming,
  id: MessageId,
  { links, isOurs }: { readonly links: readonly string[]; readonly isOurs: boolean },
): Omit<NewMessage, "trust" | "isNewParticipant"> {
  const { message, raw, receivedAt, imported } = incoming;
  const from = isOurs && imported ? withoutTray(message.from ?? NOBODY, tray) : (message.from ?? NOBODY);
  const sentAt = believableDate(message.date, receivedAt);
  return {
    dedupeKey: dedupeKeyOf(message, raw),
    threadIds: links,
    id,
    trayId: tray.id,
    ownAddresses: tray.addresses,
    direction: isOurs ? "out" : "in",
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
    betterPart: message.betterPart,
    appointments: message.appointments,
    failedRecipients: message.failedRecipients,
    attachments: message.attachments,
    warnings: message.warnings,
    ownText: message.ownText,
    restText: message.restText,
    list: message.list,
    protection: message.protection,
    hasRemoteContent: message.hasRemoteContent,
    unsubscribe: waysToLeave(message.unsubscribe, message.saysOneClick),
    routes: routesOf(tray, incoming),
    expiresAt: message.expiresAt,
    delivery: null,
  };
}

// As our letters have their writer: what was taken out of the tray comes back in as it was.
function withoutTray({ name, address }: Mailbox, tray: Tray): Mailbox {
  const ending = `, ${tray.name}`;
  return { name: name.endsWith(ending) ? name.slice(0, -ending.length) : name, address };
}

/** Whom lists name for a conversation with this message in it; null keeps who is named: a machine's message names nobody anew. */
export function whoFor(stored: NewMessage, starts: boolean, message: Pick<MailMessage, "from" | "to">): Mailbox | null {
  const from = message.from ?? NOBODY;
  if (stored.direction === "out") return starts ? (message.to[0] ?? from) : null;
  // A list is nobody's own: who happened to write to it last says nothing.
  const list = stored.list === null || stored.classification.kind !== "list" ? null : listNameIn(stored.list);
  if (list !== null) return { name: list, address: from.address };
  const named = starts || stored.classification.kind === "person" || stored.classification.kind === "calendar";
  return named ? from : null;
}

// Clocks are wrong by minutes; a Date from the future would stand on top of every list for as long as it says.
const TOLERATED_FUTURE = 5 * MINUTE;

function believableDate(date: Instant | null, receivedAt: Instant): Instant {
  return date === null || date > receivedAt + TOLERATED_FUTURE ? receivedAt : date;
}
