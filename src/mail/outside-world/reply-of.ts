import { domainOf, type EmailAddress, type Mailbox, printMailboxes } from "../../core/kernel/email-address";
import { DAY, dateOf, HOUR, type Instant, instantOf, later } from "../../core/kernel/instant";
import type { MailMessage } from "../../core/message/mail-message";
import { referencesForReply } from "../../core/message/message-ids";
import { replySubject } from "../../core/writing/plan-answer";
import { composeMessage } from "../outbound/compose-message";
import type { Character, Reaction } from "./characters";

/** The bytes of a reaction and the envelope sender that goes with it: nobody for what a machine sends (RFC 3834 3.3). */
export type OutsideMail = { readonly envelopeFrom: EmailAddress | ""; readonly raw: Uint8Array };

/** What a character sends back to a message. */
export async function replyOf(
  character: Character,
  reaction: Reaction,
  received: MailMessage,
  now: Instant,
  messageId: string,
): Promise<OutsideMail> {
  const back: Mailbox = received.replyTo[0] ?? received.from ?? { name: "", address: "nobody@invalid" as EmailAddress };
  const self: Mailbox = { name: character.name, address: character.address };
  const common = { messageId, date: now, cc: [] };
  const thread = { inReplyTo: received.messageId, references: referencesForReply(received) };
  switch (reaction.kind) {
    case "bounces":
      return { envelopeFrom: "", raw: bounce(character, reaction, received, back, now, messageId) };
    case "is-away": {
      // RFC 3834 3.1.7: a machine says that it is one.
      const headers = { "Auto-Submitted": "auto-replied" };
      const text = reaction.text.replace("{day}", dayOf(later(now, (reaction.backInDays ?? 0) * DAY)));
      const said = {
        subject: `Away: ${received.subject}`,
        text,
        html: paragraphs(text),
        headers,
      };
      return { envelopeFrom: "", raw: await composeMessage({ ...common, ...thread, from: self, to: [back], ...said }) };
    }
    case "answers": {
      const from = { name: self.name, address: reaction.from ?? self.address };
      const said = answerTo(received, back, reaction, now, self.name);
      const raw = await composeMessage({
        ...common,
        ...thread,
        from,
        to: [back],
        subject: replySubject(received.subject),
        ...said,
      });
      return { envelopeFrom: from.address, raw };
    }
    case "writes-anew": {
      const { subject, text } = reaction;
      const said = {
        subject,
        text: `${text}\n\n${self.name}`,
        html: paragraphs(text),
        inReplyTo: null,
        references: [],
      };
      return { envelopeFrom: self.address, raw: await composeMessage({ ...common, from: self, to: [back], ...said }) };
    }
    case "posts-to-list": {
      const host = domainOf(self.address);
      const member = { name: reaction.member, address: `member@${host}` as EmailAddress };
      const headers = {
        "List-Id": `${self.name} <${self.address.replace("@", ".")}>`,
        "List-Unsubscribe": `<mailto:leave@${host}>`,
      };
      const said = {
        subject: replySubject(received.subject),
        text: reaction.text,
        html: paragraphs(reaction.text),
        headers,
      };
      const raw = await composeMessage({ ...common, ...thread, from: member, to: [self], ...said });
      return { envelopeFrom: `owner@${host}` as EmailAddress, raw };
    }
    case "invites":
      return { envelopeFrom: self.address, raw: invitation(self, back, reaction, { ...thread, messageId }, now) };
  }
}

const dayOf = (at: Instant) =>
  new Intl.DateTimeFormat("en-GB", { weekday: "long", day: "numeric", month: "long", timeZone: "UTC" }).format(at);

const escaped = (text: string) => text.replace(/&/g, "&amp;").replace(/</g, "&lt;");
const paragraphs = (text: string) => `<p>${escaped(text).replace(/\n/g, "<br>")}</p>`;

function answerTo(
  received: MailMessage,
  back: Mailbox,
  { text, style = "plain" }: Extract<Reaction, { kind: "answers" }>,
  now: Instant,
  name: string,
): { text: string; html: string } {
  const attribution = `On ${dateOf(received.date ?? now).toUTCString()}, ${received.from?.name || back.address} wrote:`;
  const quoted = received.text.trim().split("\n");
  const plain = `${text}\n\n${name}\n\n${attribution}\n${quoted.map((line) => `> ${line}`).join("\n")}\n`;
  const below = `<div class="reply-quote">${paragraphs(attribution)}<blockquote>${paragraphs(quoted.join("\n"))}</blockquote></div>`;
  // Some programs send HTML alone.
  return { text: style === "plain" ? plain : "", html: `${paragraphs(`${text}\n\n${name}`)}${below}` };
}

// RFC 5546 3.2.2, as programs send it: the invitation beside a text that says the same.
function invitation(
  from: Mailbox,
  to: Mailbox,
  { summary, inDays }: Extract<Reaction, { kind: "invites" }>,
  thread: { messageId: string; inReplyTo: string | null },
  now: Instant,
): Uint8Array {
  const start = dateOf(later(now, inDays * DAY));
  start.setUTCHours(10, 0, 0, 0);
  const stamp = (date: Date) => date.toISOString().replace(/[-:]|\.\d{3}/g, "");
  const lines = [
    `From: ${printMailboxes([from])}`,
    `To: ${printMailboxes([to])}`,
    `Subject: Invitation: ${summary}`,
    `Date: ${dateOf(now).toUTCString().replace("GMT", "+0000")}`,
    `Message-ID: <${thread.messageId}>`,
    ...(thread.inReplyTo === null ? [] : [`In-Reply-To: <${thread.inReplyTo}>`]),
    "MIME-Version: 1.0",
    'Content-Type: multipart/alternative; boundary="invitation"',
    "",
    "--invitation",
    "Content-Type: text/plain; charset=utf-8",
    "",
    `${summary}, ${start.toUTCString()}`,
    "--invitation",
    "Content-Type: text/calendar; method=REQUEST; charset=utf-8",
    "",
    "BEGIN:VCALENDAR",
    "VERSION:2.0",
    "PRODID:-//Common Tray//Outside world//EN",
    "METHOD:REQUEST",
    "BEGIN:VEVENT",
    `UID:${thread.messageId}`,
    `DTSTAMP:${stamp(dateOf(now))}`,
    `DTSTART:${stamp(start)}`,
    `DTEND:${stamp(dateOf(later(instantOf(start), HOUR)))}`,
    `SUMMARY:${summary}`,
    `ORGANIZER:mailto:${from.address}`,
    `ATTENDEE;RSVP=TRUE:mailto:${to.address}`,
    "END:VEVENT",
    "END:VCALENDAR",
    "--invitation--",
    "",
  ];
  return Buffer.from(lines.join("\r\n"));
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
