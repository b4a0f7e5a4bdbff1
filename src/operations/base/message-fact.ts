import { createHash } from "node:crypto";
import type { MailMessage } from "../../core/message/mail-message";
import type { MessageFact } from "../../core/standing/derive-standing";
import type { NewMessage } from "../../storage/facts/index";

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
    returnsAt: stored.returnsAt ?? null,
    expiresAt: stored.expiresAt ?? null,
  };
}

/**
 * What makes two deliveries the same message: Message-ID, author and Date, since relays and lists change the rest and some
 * senders give every message the same id; without a Message-ID, every byte.
 */
export function dedupeKeyOf(message: MailMessage, raw: Uint8Array): Uint8Array {
  const hash = createHash("sha256");
  if (message.messageId === null) return hash.update("raw\0").update(raw).digest();
  return hash.update(`id\0${message.messageId}\0${authorOf(message)}\0${message.date ?? ""}`).digest();
}

// Lists that write "Ines via Rolling" into From put the author into Reply-To.
function authorOf({ from, replyTo, list }: MailMessage): string {
  const author = replyTo[0];
  const isRewritten = list !== null && from !== null && / via /i.test(from.name) && replyTo.length === 1;
  return (isRewritten ? author?.address : from?.address) ?? "";
}
