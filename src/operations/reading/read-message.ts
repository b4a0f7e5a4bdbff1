import type { MessageId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import type { Attachment } from "../../core/message/mail-message";
import { SHOWN_AT_ONCE, type TextPart, textPart } from "../../core/text/text-parts";
import type { SafeHtml } from "../../mail/index";
import type { TrayGrant } from "../../storage/access/index";
import { blobBySha256 } from "../../storage/base/index";
import {
  messageText,
  rawMessage,
  type ShownPart,
  saveShownPart,
  senderOf,
  showRemoteOf,
  showsRemoteOf,
} from "../../storage/conversation/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";

/** A message's HTML made harmless, with its own inline images in it; null when there is no such message or no HTML. */
export async function readAsHtml(
  deps: Deps,
  grant: TrayGrant,
  id: MessageId,
  { asksForRemote, locale }: { readonly asksForRemote: boolean; readonly locale: string },
): Promise<(SafeHtml & { readonly showsRemote: boolean }) | null> {
  const stored = await rawMessage(deps.db, grant, id);
  if (stored === null) return null;
  // Anybody can write a name above a letter: only who proves to be the one is who was trusted.
  const isTrusted = stored.isVerified && (await showsRemoteOf(deps.db, grant.tray.id, stored.fromAddress));
  const showsRemote = asksForRemote || isTrusted;
  const safe = await deps.aside.safeHtml(stored.raw, { showsRemote, locale });
  return safe === null ? null : { ...safe, showsRemote };
}

/** Has pictures from elsewhere shown in every verified message of the sender of this one, who has to be verified as well, for everybody in the tray. */
export async function trustRemoteOf(deps: Deps, grant: TrayGrant, id: MessageId): Promise<Result<null, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const stored = await rawMessage(deps.db, grant, id);
  if (stored === null) return err({ kind: "no-such", what: "message" });
  if (!stored.isVerified) return err({ kind: "sender-not-verified" });
  await showRemoteOf(deps.db, grant, stored.fromAddress, deps.now());
  return ok(null);
}

/** Remembers in which part a member wants to see what the sender of a message writes; false when there is no such message. */
export async function rememberShownPart(
  deps: Deps,
  grant: TrayGrant,
  id: MessageId,
  part: ShownPart,
): Promise<boolean> {
  const address = await senderOf(deps.db, grant, id);
  if (address === null) return false;
  await saveShownPart(deps.db, grant, address, { part, at: deps.now() });
  return true;
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
  const content = (await blobBySha256(deps.db, attachment.sha256)) ?? (await deps.aside.attachment(stored.raw, index));
  return content === null ? null : { attachment, content };
}

/** A part of a message's own words, or of what it quotes, from a place on; null when there is no such message. */
export async function readTextPart(
  deps: Deps,
  grant: TrayGrant,
  id: MessageId,
  { of, from }: { readonly of: "own" | "rest"; readonly from: number },
): Promise<TextPart | null> {
  const text = await messageText(deps.db, grant, id);
  return text === null ? null : textPart(text[of], from, SHOWN_AT_ONCE.next);
}

/** The message as it came, byte for byte; null when there is none. */
export async function readRaw(deps: Deps, grant: TrayGrant, id: MessageId): Promise<Uint8Array | null> {
  return (await rawMessage(deps.db, grant, id))?.raw ?? null;
}

/** The attachments of a message as a zip, those that stand in its HTML left out; null when there is no such message. */
export async function attachmentsZip(deps: Deps, grant: TrayGrant, id: MessageId): Promise<Uint8Array | null> {
  const stored = await rawMessage(deps.db, grant, id);
  if (stored === null) return null;
  const listed = stored.attachments.filter(({ inline }) => !inline);
  return deps.aside.attachmentsZip(
    stored.raw,
    listed.map(({ fileName, index }) => ({ name: fileName, index })),
  );
}
