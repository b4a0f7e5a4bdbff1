import type { NamedFile } from "../../core/kernel/named-file";
import type { MailMessage } from "../../core/message/mail-message";
import type { PrintedConversation } from "../formats/conversation-pdf";
import { unparsed } from "../inbound/parse-message";
import type { SafeHtml } from "../inbound/sanitise-html";
import { limitedThread } from "./limited-thread";
import type { RawMail } from "./tasks";

// Whatever parses, lays out, packs or converts what came from outside does so here, in threads with limits: a message that
// holds one up, or takes all its memory, costs that thread and nothing else.

const SECOND = 1_000;
// For whoever waits: mail that is handed over, a message that is opened.
const desk = limitedThread(256);
// For work in the background.
const shop = limitedThread(320);

const PARSE_MS = 20 * SECOND;
const HTML_MS = 10 * SECOND;
const PDF_MS = 60 * SECOND;
const DOCUMENT_MS = 30 * SECOND;
const PARSE_BATCH_MS = 120 * SECOND;

/** Understands a message. It never rejects: what cannot be understood within the limits is shown raw, with a warning. */
export async function parseAside(raw: Uint8Array, envelopeSender: string | null = null): Promise<MailMessage> {
  const parsed = await desk.carryOut("parse", [{ raw, envelopeSender }], PARSE_MS).catch(() => null);
  return parsed?.[0] ?? unparsed(raw).message;
}

/** The same for many messages of a file, in their order. */
export async function parseManyAside(raws: readonly Uint8Array[]): Promise<readonly MailMessage[]> {
  const mails = raws.map((raw): RawMail => ({ raw, envelopeSender: null }));
  const parsed = await shop.carryOut("parse", mails, PARSE_BATCH_MS).catch(() => null);
  if (parsed !== null) return parsed;
  // One of them is to blame, and is the only one that is shown raw.
  const messages: MailMessage[] = [];
  for (const mail of mails) {
    const alone = await shop.carryOut("parse", [mail], PARSE_MS).catch(() => null);
    messages.push(alone?.[0] ?? unparsed(mail.raw).message);
  }
  return messages;
}

/** A message's HTML made harmless; null where it has none, and where it cannot be done within the limits. */
export function safeHtmlAside(raw: Uint8Array, showsRemote: boolean): Promise<SafeHtml | null> {
  return desk.carryOut("html", { raw, showsRemote }, HTML_MS).catch(() => null);
}

/** The bytes of one attachment; null where there is none, and where it cannot be had within the limits. */
export function attachmentAside(raw: Uint8Array, index: number): Promise<Uint8Array | null> {
  return desk.carryOut("attachment", { raw, index }, PARSE_MS).catch(() => null);
}

/** Attachments of a message under these names as a zip. Rejects with `Overran`. */
export function attachmentsZipAside(
  raw: Uint8Array,
  files: readonly { readonly index: number; readonly name: string }[],
): Promise<Uint8Array> {
  return desk.carryOut("attachmentsZip", { raw, files }, PARSE_MS);
}

/** A conversation as a PDF. Rejects with `Overran`. */
export function pdfAside(printed: PrintedConversation): Promise<Uint8Array> {
  return shop.carryOut("pdf", printed, PDF_MS);
}

/** The text of a file; null where it has none, is damaged, or takes too long. */
export function documentTextAside(file: NamedFile, patienceMs = DOCUMENT_MS): Promise<string | null> {
  return shop.carryOut("documentText", file, patienceMs).catch(() => null);
}
