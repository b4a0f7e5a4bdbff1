import { createHash } from "node:crypto";
import { convert } from "html-to-text";
import PostalMime, { type Address, type Email, type Attachment as Part } from "postal-mime";
import { looseAddress, type Mailbox } from "../../core/kernel/email-address";
import { type Instant, instant } from "../../core/kernel/instant";
import { classifyMessage } from "../../core/message/classify-message";
import { type Attachment, type Header, headerValue, type MailMessage } from "../../core/message/mail-message";
import { readMessageIds } from "../../core/message/message-ids";
import { divideText } from "../../core/message/own-text";

// Deeper nesting and larger headers are no mail that a person sent; such a message is kept and shown raw.
const MAX_NESTING = 40;
const MAX_HEADER_BYTES = 1024 * 1024;
const MAX_RAW_SHOWN_CHARACTERS = 100_000;
const MAX_HTML_CHARACTERS = 2_000_000;
const MAX_FILE_NAME_CHARACTERS = 200;
const MAX_ATTACHMENTS = 500;

/** A parsed message with the bytes of its attachments in the same order. */
export type ParsedMail = { readonly message: MailMessage; readonly contents: readonly Uint8Array[] };

/**
 * Understands a message. It never throws and never refuses: what cannot be parsed comes back with its raw text as text and
 * a warning. `envelopeSender` is what MAIL FROM said (empty for `<>`); null takes Return-Path instead.
 */
export async function parseMessage(raw: Uint8Array, envelopeSender: string | null = null): Promise<ParsedMail> {
  try {
    const email = await new PostalMime({
      maxNestingDepth: MAX_NESTING,
      maxHeadersSize: MAX_HEADER_BYTES,
      forceRfc822Attachments: true,
    }).parse(raw);
    return understood(email, envelopeSender);
  } catch (problem) {
    return unparsed(raw, problem instanceof Error ? problem.message : String(problem));
  }
}

function understood(email: Email, envelopeSender: string | null): ParsedMail {
  const headers: Header[] = email.headers.map(({ key, value }) => ({ name: key, value }));
  const parts = email.attachments.slice(0, MAX_ATTACHMENTS);
  const contents = parts.map(bytesOf);
  const html = email.html?.slice(0, MAX_HTML_CHARACTERS) ?? null;
  const text = readableText(email.text, html);
  const { own, rest } = divideText(text);
  const from = mailboxesOf(email.from === undefined ? [] : [email.from])[0] ?? null;
  const date = dateOf(email.date);
  const messageId = readMessageIds(email.messageId ?? "")[0] ?? null;
  const { classification, failedRecipients } = classifyMessage({
    headers,
    fromAddress: from?.address ?? null,
    envelopeSender: envelopeSender ?? headerValue(headers, "return-path")?.replace(/[<>\s]/g, "") ?? null,
    deliveryStatus: statusParts(parts, contents),
    text,
    calendarMethod: calendarMethod(parts),
  });
  return {
    contents,
    message: {
      messageId,
      date,
      from,
      to: mailboxesOf(email.to),
      cc: mailboxesOf(email.cc),
      replyTo: mailboxesOf(email.replyTo),
      subject: (email.subject ?? "").replace(/\s+/g, " ").trim(),
      inReplyTo: readMessageIds(email.inReplyTo ?? ""),
      references: readMessageIds(email.references ?? ""),
      text,
      ownText: own,
      restText: rest,
      html,
      classification,
      failedRecipients,
      list: headerValue(headers, "list-id"),
      unsubscribe: bracketed(headerValue(headers, "list-unsubscribe") ?? ""),
      attachments: parts.map((part, index) => attachmentOf(part, index, contents[index] ?? new Uint8Array())),
      warnings: oddities(email, { from, date, messageId }),
    },
  };
}

function oddities(email: Email, read: Pick<MailMessage, "from" | "date" | "messageId">): string[] {
  const warnings: string[] = [];
  if (email.attachments.length > MAX_ATTACHMENTS)
    warnings.push(`only its first ${MAX_ATTACHMENTS} attachments are listed`);
  if (read.from === null) warnings.push("it has no From");
  if (read.date === null) warnings.push(email.date === undefined ? "it has no Date" : "its Date is unreadable");
  if (read.messageId === null) warnings.push("it has no usable Message-ID");
  return warnings;
}

function readableText(text: string | undefined, html: string | null): string {
  if (text !== undefined && text.trim() !== "") return text;
  return html === null ? "" : textOfHtml(html);
}

function unparsed(raw: Uint8Array, problem: string): ParsedMail {
  const text = new TextDecoder("latin1").decode(raw.subarray(0, MAX_RAW_SHOWN_CHARACTERS));
  return {
    contents: [],
    message: {
      messageId: null,
      date: null,
      from: null,
      to: [],
      cc: [],
      replyTo: [],
      subject: /^subject:[ \t]*(.*)$/im.exec(text.slice(0, 20_000))?.[1]?.trim() ?? "",
      inReplyTo: [],
      references: [],
      text,
      ownText: text,
      restText: "",
      html: null,
      classification: { kind: "person", reason: "it could not be parsed, so a person has to look" },
      failedRecipients: [],
      list: null,
      unsubscribe: [],
      attachments: [],
      warnings: [`it could not be parsed and is shown raw: ${problem}`],
    },
  };
}

function mailboxesOf(addresses: readonly Address[] | undefined): Mailbox[] {
  return (addresses ?? [])
    .flatMap((address) => address.group ?? [address])
    .filter((mailbox) => (mailbox.address ?? "") !== "" || mailbox.name !== "")
    .map((mailbox) => ({ name: mailbox.name.trim(), address: looseAddress(mailbox.address ?? "") }));
}

// A day of the calendar that no clock can have shown is as good as none.
const LATEST_DATE = Date.UTC(9999, 0, 1);

function dateOf(text: string | undefined): Instant | null {
  const milliseconds = text === undefined ? Number.NaN : Date.parse(text);
  return milliseconds >= 0 && milliseconds < LATEST_DATE ? instant(milliseconds) : null;
}

/** HTML as readable text: links with their targets, quotes as quotes, no pictures. */
export function textOfHtml(html: string): string {
  return convert(html, {
    wordwrap: false,
    limits: { maxInputLength: MAX_HTML_CHARACTERS, maxDepth: 200 },
    selectors: [
      { selector: "img", format: "skip" },
      { selector: "a", options: { hideLinkHrefIfSameAsText: true, ignoreHref: false } },
      { selector: "blockquote", format: "blockquote", options: { leadingLineBreaks: 2, trailingLineBreaks: 2 } },
    ],
  });
}

function bytesOf(part: Part): Uint8Array {
  if (typeof part.content === "string") return new TextEncoder().encode(part.content);
  return part.content instanceof Uint8Array ? part.content : new Uint8Array(part.content);
}

function statusParts(parts: readonly Part[], contents: readonly Uint8Array[]): string[] {
  return parts.flatMap((part, at) =>
    /^message\/(global-)?delivery-status$/.test(part.mimeType) ? [new TextDecoder().decode(contents[at])] : [],
  );
}

function calendarMethod(parts: readonly Part[]): string | null {
  const part = parts.find(({ mimeType }) => mimeType === "text/calendar");
  return part === undefined ? null : (part.method ?? "request");
}

function bracketed(field: string): string[] {
  return [...field.matchAll(/<([^<>]+)>/g)].map((match) => match[1]?.trim() ?? "");
}

const NAMES_BY_TYPE: Readonly<Record<string, string>> = {
  "message/rfc822": "message.eml",
  "message/delivery-status": "delivery-status.txt",
  "text/rfc822-headers": "headers.txt",
  "text/calendar": "invitation.ics",
};

function attachmentOf(part: Part, index: number, content: Uint8Array): Attachment {
  const contentId = part.contentId?.replace(/^<|>$/g, "") ?? null;
  return {
    index,
    fileName: safeFileName(part.filename ?? NAMES_BY_TYPE[part.mimeType] ?? `part-${index + 1}`),
    contentType: part.mimeType,
    size: content.byteLength,
    sha256: createHash("sha256").update(content).digest("hex"),
    inline: part.related === true || (part.disposition === "inline" && contentId !== null),
    contentId,
  };
}

/** A name that is no path, hides no direction or control marks, and is not too long for a file system. */
export function safeFileName(name: string): string {
  const base = name.split(/[\\/]/).at(-1) ?? "";
  // Controls, and the marks that turn the direction of writing (Unicode TR 36, 3.1): they disguise an extension.
  const plain = base
    .replace(/[\p{Cc}\p{Cf}<>:"|?*]/gu, "")
    .replace(/^\.+/, "")
    .trim();
  if (plain.length <= MAX_FILE_NAME_CHARACTERS) return plain === "" ? "unnamed" : plain;
  const extension = /\.[\w-]{1,10}$/.exec(plain)?.[0] ?? "";
  return plain.slice(0, MAX_FILE_NAME_CHARACTERS - extension.length) + extension;
}
