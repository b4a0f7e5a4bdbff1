import { type EmailAddress, type Mailbox, printMailboxes } from "../../core/kernel/email-address";
import { dateOf, type Instant } from "../../core/kernel/instant";
import type { MailMessage } from "../../core/message/mail-message";
import { referencesForReply } from "../../core/message/message-ids";
import { replySubject } from "../../core/writing/plan-answer";
import { composeMessage } from "../outbound/compose-message";
import type { Character, Reaction } from "./characters";

/** The bytes of a reaction and the envelope sender that goes with it: nobody for what a machine sends (RFC 3834 3.3). */
export type OutsideMail = { readonly envelopeFrom: EmailAddress | ""; readonly raw: Uint8Array };

/** What a character sends back to a message: an answer that quotes it, an out-of-office (RFC 3834), or a bounce (RFC 3464). */
export async function replyOf(
  character: Character,
  reaction: Reaction,
  received: MailMessage,
  now: Instant,
  messageId: string,
): Promise<OutsideMail> {
  const back: Mailbox = received.replyTo[0] ?? received.from ?? { name: "", address: "nobody@invalid" as EmailAddress };
  if (reaction.kind === "bounces") {
    return { envelopeFrom: "", raw: bounce(character, reaction, received, back, now, messageId) };
  }
  const away = reaction.kind === "is-away";
  const who = received.from?.name || back.address;
  const quoted = received.text
    .trim()
    .split("\n")
    .map((line) => `> ${line}`)
    .join("\n");
  const text = away
    ? reaction.text
    : `${reaction.text}\n\n${character.name}\n\nOn ${dateOf(received.date ?? now).toUTCString()}, ${who} wrote:\n${quoted}\n`;
  const raw = await composeMessage({
    messageId,
    date: now,
    from: { name: character.name, address: character.address },
    to: [back],
    cc: [],
    subject: away ? `Away: ${received.subject}` : replySubject(received.subject),
    inReplyTo: received.messageId,
    references: referencesForReply(received),
    text,
    html: `<p>${text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/\n/g, "<br>")}</p>`,
    ...(away ? { headers: { "Auto-Submitted": "auto-replied" } } : {}),
  });
  return { envelopeFrom: away ? "" : character.address, raw };
}

function bounce(
  character: Character,
  reaction: Extract<Reaction, { kind: "bounces" }>,
  received: MailMessage,
  to: Mailbox,
  now: Instant,
  messageId: string,
): Uint8Array {
  const host = character.address.slice(character.address.indexOf("@") + 1);
  const boundary = `report-${messageId.replace(/\W/g, "")}`;
  const lines = [
    `From: Mail system <mailer-daemon@${host}>`,
    `To: ${printMailboxes([to])}`,
    "Subject: Undelivered mail returned to sender",
    `Date: ${dateOf(now).toUTCString().replace("GMT", "+0000")}`,
    `Message-ID: <${messageId}>`,
    ...(received.messageId === null ? [] : [`References: <${received.messageId}>`]),
    "Auto-Submitted: auto-replied",
    "MIME-Version: 1.0",
    `Content-Type: multipart/report; report-type=delivery-status; boundary="${boundary}"`,
    "",
    `--${boundary}`,
    "Content-Type: text/plain; charset=utf-8",
    "",
    `Your message could not be delivered to ${character.address}: ${reaction.diagnostic}`,
    "",
    `--${boundary}`,
    "Content-Type: message/delivery-status",
    "",
    `Reporting-MTA: dns; ${host}`,
    "",
    `Final-Recipient: rfc822; ${character.address}`,
    "Action: failed",
    `Status: ${reaction.status}`,
    `Diagnostic-Code: smtp; ${reaction.diagnostic}`,
    "",
    `--${boundary}`,
    "Content-Type: text/rfc822-headers",
    "",
    `Message-ID: <${received.messageId ?? ""}>`,
    `Subject: ${received.subject}`,
    "",
    `--${boundary}--`,
    "",
  ];
  return Buffer.from(lines.join("\r\n"));
}
