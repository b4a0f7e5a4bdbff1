import { createHash } from "node:crypto";
import type { Attachment as Part } from "postal-mime";
import { splitReport } from "../../core/message/failed-in-text";
import type { Attachment, Protection } from "../../core/message/mail-message";
import { readMessageIds } from "../../core/message/message-ids";
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
    fileName: safeFileName(part.filename ?? NAMES_BY_TYPE[part.mimeType] ?? `part-${index + 1}`),
    contentType: part.mimeType,
    size: content.byteLength,
    sha256: createHash("sha256").update(content).digest("hex"),
    inline: part.related === true || (part.disposition === "inline" && contentId !== null),
    contentId,
  };
}

/** The text of the parts in which a mail system reports on recipients (RFC 3464, RFC 6533). */
export function statusParts(parts: readonly Part[], contents: readonly Uint8Array[]): string[] {
  return parts.flatMap((part, at) =>
    /^message\/(global-)?delivery-status$/.test(part.mimeType) ? [new TextDecoder().decode(contents[at])] : [],
  );
}

const COPY_TYPES = /^(message\/(rfc822|global)|text\/rfc822-headers|message\/global-headers)$/;

/** Whether a message, or the header of one, is carried along. */
export function returnsCopy(parts: readonly Part[]): boolean {
  return parts.some(({ mimeType }) =>
    /^(message\/(rfc822|global)|text\/rfc822-headers|message\/global-headers)$/.test(mimeType),
  );
}

const MAX_COPY_BYTES = 64 * 1024;

/** The Message-IDs of the message that a report is about: from the copy it carries, else from the copy in its text. */
export function reportedIds(parts: readonly Part[], contents: readonly Uint8Array[], text: string): string[] {
  const copies = parts.flatMap((part, at) =>
    COPY_TYPES.test(part.mimeType) ? [new TextDecoder("latin1").decode(contents[at]?.subarray(0, MAX_COPY_BYTES))] : [],
  );
  return [...copies, splitReport(text).copy].flatMap((copy) => {
    const field = /^message-id:\s*(<[^<>\n]{1,500}>)/im.exec(copy)?.[1];
    return field === undefined ? [] : readMessageIds(field);
  });
}

/** METHOD of a calendar part; null when there is none. */
export function calendarMethod(parts: readonly Part[], contents: readonly Uint8Array[]): string | null {
  const at = parts.findIndex(({ mimeType }) => mimeType === "text/calendar" || mimeType === "application/ics");
  const part = parts[at];
  if (part === undefined) return null;
  const written = /^METHOD:([A-Z]{3,20})\s*$/im.exec(new TextDecoder().decode(contents[at]).slice(0, 4_000))?.[1];
  return part.method ?? written ?? null;
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
