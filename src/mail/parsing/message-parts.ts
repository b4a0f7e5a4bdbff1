import { createHash } from "node:crypto";
import type { Attachment as Part } from "postal-mime";
import { splitReport } from "../../core/message/failed-in-text";
import type { Attachment, Protection } from "../../core/message/mail-message";
import { readMessageIds } from "../../core/message/message-ids";
import { readCalendar } from "./calendar-part";
import { safeFileName } from "./safe-file-name";

/** The bytes of a part. */
export function bytesOf(part: Part): Uint8Array {
  if (typeof part.content === "string") return new TextEncoder().encode(part.content);
  return part.content instanceof Uint8Array ? part.content : new Uint8Array(part.content);
}

const NAMES_BY_TYPE: Readonly<Record<string, string>> = {
  "message/rfc822": "message.eml",
  "message/delivery-status": "delivery-status.txt",
  "text/rfc822-headers": "headers.txt",
  "text/calendar": "invitation.ics",
  "application/ms-tnef": "winmail.dat",
  "application/pgp-signature": "signature.asc",
  "application/pkcs7-signature": "smime.p7s",
  "application/pkcs7-mime": "smime.p7m",
};

/** What is known of a part that is carried along; `index` is its place among them. */
export function attachmentOf(part: Part, index: number, content: Uint8Array): Attachment {
  const contentId = part.contentId?.replace(/^<|>$/g, "") ?? null;
  return {
    index,
    fileName: safeFileName(
      part.filename ?? nameOfCard(part, content) ?? NAMES_BY_TYPE[part.mimeType] ?? `part-${index + 1}`,
    ),
    contentType: part.mimeType,
    size: content.byteLength,
    sha256: createHash("sha256").update(content).digest("hex"),
    inline: part.related === true || (part.disposition === "inline" && contentId !== null),
    contentId,
  };
}

// Whom a card is of (RFC 6350 6.2.1) is a better name than a number.
function nameOfCard({ mimeType }: Part, content: Uint8Array): string | null {
  if (!/^text\/(?:x-)?v?card$|^text\/directory$/.test(mimeType)) return null;
  const name = /^FN[^:\n]{0,200}:([^\r\n]{1,200})/im.exec(
    new TextDecoder().decode(content.subarray(0, MAX_COPY_BYTES)),
  )?.[1];
  return name === undefined ? null : `${name.replace(/\\(.)/g, "$1").trim()}.vcf`;
}

/** The text of the parts of one type, such as those in which a mail system reports on recipients (RFC 3464, RFC 6533). */
export function textsOf(type: RegExp, parts: readonly Part[], contents: readonly Uint8Array[]): string[] {
  return parts.flatMap((part, at) => (type.test(part.mimeType) ? [new TextDecoder().decode(contents[at])] : []));
}

export const STATUS_TYPES = /^message\/(global-)?delivery-status$/;
export const DISPOSITION_TYPES = /^message\/(global-)?disposition-notification$/;
const COPY_TYPES = /^(message\/(rfc822|global)|text\/rfc822-headers|message\/global-headers)$/;
const MAX_COPY_BYTES = 64 * 1024;

/** The beginnings of the messages, or of their headers, that are carried along. */
export function copiesIn(parts: readonly Part[], contents: readonly Uint8Array[]): string[] {
  return parts.flatMap((part, at) =>
    COPY_TYPES.test(part.mimeType) ? [new TextDecoder("latin1").decode(contents[at]?.subarray(0, MAX_COPY_BYTES))] : [],
  );
}

const REPORT_WITHIN = /^content-type:\s*multipart\/report|^from:[^\n]*(?:mailer-daemon|postmaster|mail delivery)/im;
const MAX_ENCLOSED_BYTES = 1024 * 1024;

/** The messages carried along that look like reports of a mail system. */
export function reportsWithin(parts: readonly Part[], contents: readonly Uint8Array[]): Uint8Array[] {
  return parts
    .flatMap((part, at) => (/^message\/(rfc822|global)$/.test(part.mimeType) ? [contents[at] ?? new Uint8Array()] : []))
    .filter((content) => content.byteLength <= MAX_ENCLOSED_BYTES)
    .filter((content) => REPORT_WITHIN.test(new TextDecoder("latin1").decode(content.subarray(0, MAX_COPY_BYTES))))
    .slice(0, 3);
}

/** The Message-IDs of the message that a report is about: from the copy it carries, else from the copy in its text. */
export function reportedIds(copies: readonly string[], text: string): string[] {
  return [...copies, splitReport(text).copy].flatMap((copy) => {
    const field = /^message-id:\s*(<[^<>\n]{1,500}>)/im.exec(copy)?.[1];
    return field === undefined ? [] : readMessageIds(field);
  });
}

const CALENDAR_TYPES = /^(?:text\/calendar|application\/ics)$/;
const MAX_CALENDARS = 5;

/** What the calendar parts say, and the method by which a message with one is sent (RFC 5546 1.4); null without one. */
export function calendarsIn(parts: readonly Part[], contents: readonly Uint8Array[]) {
  const calendars = parts
    .flatMap((part, at) => (CALENDAR_TYPES.test(part.mimeType) ? [{ part, content: contents[at] }] : []))
    .slice(0, MAX_CALENDARS);
  const read = calendars.map(({ content }) => readCalendar(new TextDecoder().decode(content)));
  return {
    method: calendars[0] === undefined ? null : (calendars[0].part.method ?? read[0]?.method ?? null),
    appointments: read.flatMap(({ appointments }) => appointments ?? []),
    isUnreadable: read.some(({ appointments }) => appointments === null),
  };
}

/** How a message is signed or encrypted, by its types (RFC 1847, RFC 8551, RFC 3156) or by armour in its text (RFC 9580). */
export function protectionOf(contentType: string, parts: readonly Part[], text: string): Protection | null {
  const type = contentType.toLowerCase();
  const types = new Set(parts.map(({ mimeType }) => mimeType));
  const has = (pattern: RegExp) => [...types].some((one) => pattern.test(one));
  if (/^multipart\/encrypted/.test(type) || types.has("application/pgp-encrypted")) return "encrypted-openpgp";
  if (/^application\/(x-)?pkcs7-mime/.test(type)) return /signed-data/.test(type) ? "signed-smime" : "encrypted-smime";
  if (has(/^application\/(x-)?pkcs7-signature$/)) return "signed-smime";
  if (types.has("application/pgp-signature")) return "signed-openpgp";
  if (text.startsWith("-----BEGIN PGP MESSAGE-----")) return "encrypted-openpgp";
  return text.startsWith("-----BEGIN PGP SIGNED MESSAGE-----") ? "signed-openpgp" : null;
}
