import type { MessageId } from "../core/kernel/ids";
import { err, ok, type Result } from "../core/kernel/result";
import type { Attachment } from "../core/message/mail-message";
import { parseMessage, type SafeHtml, sanitiseHtml, zipOf } from "../mail/index";
import { blobBySha256, rawMessage, showRemoteOf, showsRemoteOf, type TrayGrant } from "../storage/index";
import type { Deps } from "./deps";
import type { Refusal } from "./refusal";

// As a part of the page; a larger picture is an attachment to open.
const MAX_INLINE_IMAGE_BYTES = 2 * 1024 * 1024;
const INLINE_TYPES = /^image\/(png|jpeg|gif|webp)$/;

/** A message's HTML made harmless, with its own inline images in it; null when there is no such message or no HTML. */
export async function readAsHtml(
  deps: Deps,
  grant: TrayGrant,
  id: MessageId,
  asksForRemote: boolean,
): Promise<(SafeHtml & { readonly showsRemote: boolean }) | null> {
  const stored = await rawMessage(deps.db, grant, id);
  if (stored === null) return null;
  const showsRemote = asksForRemote || (await showsRemoteOf(deps.db, grant.tray.id, stored.fromAddress));
  const safe = await safeHtmlOf(stored.raw, showsRemote);
  return safe === null ? null : { ...safe, showsRemote };
}

/** Has pictures from elsewhere shown in every message of the sender of this one, for everybody in the tray. */
export async function trustRemoteOf(deps: Deps, grant: TrayGrant, id: MessageId): Promise<Result<null, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const stored = await rawMessage(deps.db, grant, id);
  if (stored === null) return err({ kind: "no-such", what: "message" });
  await showRemoteOf(deps.db, grant, stored.fromAddress, deps.now());
  return ok(null);
}

/** The same from the bytes of a message. */
export async function safeHtmlOf(raw: Uint8Array, showsRemote = false): Promise<SafeHtml | null> {
  const { message, contents } = await parseMessage(raw);
  if (message.html === null) return null;
  const inlineImage = (contentId: string) => {
    const part = message.attachments.find((attachment) => attachment.contentId === contentId);
    const content = part === undefined ? undefined : contents[part.index];
    if (part === undefined || content === undefined || !INLINE_TYPES.test(part.contentType)) return null;
    if (content.byteLength > MAX_INLINE_IMAGE_BYTES) return null;
    return `data:${part.contentType};base64,${Buffer.from(content).toString("base64")}`;
  };
  return sanitiseHtml(message.html, { inlineImage, showsRemote });
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
  const content = (await blobBySha256(deps.db, attachment.sha256)) ?? (await parseMessage(stored.raw)).contents[index];
  return content === undefined ? null : { attachment, content };
}

/** The message as it came, byte for byte; null when there is none. */
export async function readRaw(deps: Deps, grant: TrayGrant, id: MessageId): Promise<Uint8Array | null> {
  return (await rawMessage(deps.db, grant, id))?.raw ?? null;
}

/** The attachments of a message as a zip, those that stand in its HTML left out; null when there is no such message. */
export async function attachmentsZip(deps: Deps, grant: TrayGrant, id: MessageId): Promise<Uint8Array | null> {
  const stored = await rawMessage(deps.db, grant, id);
  if (stored === null) return null;
  const { contents } = await parseMessage(stored.raw);
  const listed = stored.attachments.filter(({ inline }) => !inline);
  return zipOf(listed.map(({ fileName, index }) => ({ name: fileName, content: contents[index] ?? new Uint8Array() })));
}
