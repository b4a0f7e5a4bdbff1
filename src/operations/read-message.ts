import type { MessageId } from "../core/kernel/ids";
import type { Attachment } from "../core/message/mail-message";
import { parseMessage, type SafeHtml, sanitiseHtml } from "../mail/index";
import { rawMessage, type TrayGrant } from "../storage/index";
import type { Deps } from "./deps";

// As a part of the page; a larger picture is an attachment to open.
const MAX_INLINE_IMAGE_BYTES = 2 * 1024 * 1024;
const INLINE_TYPES = /^image\/(png|jpeg|gif|webp)$/;

/** A message's HTML made harmless, with its own inline images in it; null when there is no such message or no HTML. */
export async function readAsHtml(deps: Deps, grant: TrayGrant, id: MessageId): Promise<SafeHtml | null> {
  const stored = await rawMessage(deps.db, grant, id);
  return stored === null ? null : safeHtmlOf(stored.raw);
}

/** The same from the bytes of a message. */
export async function safeHtmlOf(raw: Uint8Array): Promise<SafeHtml | null> {
  const { message, contents } = await parseMessage(raw);
  if (message.html === null) return null;
  return sanitiseHtml(message.html, (contentId) => {
    const part = message.attachments.find((attachment) => attachment.contentId === contentId);
    const content = part === undefined ? undefined : contents[part.index];
    if (part === undefined || content === undefined || !INLINE_TYPES.test(part.contentType)) return null;
    if (content.byteLength > MAX_INLINE_IMAGE_BYTES) return null;
    return `data:${part.contentType};base64,${Buffer.from(content).toString("base64")}`;
  });
}

/** One attachment of a message with its bytes; null when there is none. */
export async function readAttachment(
  deps: Deps,
  grant: TrayGrant,
  id: MessageId,
  index: number,
): Promise<{ attachment: Attachment; content: Uint8Array } | null> {
  const stored = await rawMessage(deps.db, grant, id);
  const attachment = stored?.attachments[index];
  if (stored === null || attachment === undefined) return null;
  const content = (await parseMessage(stored.raw)).contents[index];
  return content === undefined ? null : { attachment, content };
}

/** The message as it came, byte for byte; null when there is none. */
export async function readRaw(deps: Deps, grant: TrayGrant, id: MessageId): Promise<Uint8Array | null> {
  return (await rawMessage(deps.db, grant, id))?.raw ?? null;
}
