import type { NamedFile } from "../../core/kernel/named-file";
import type { MailMessage } from "../../core/message/mail-message";
import type { PrintedConversation } from "../formats/conversation-pdf";
import { unparsed } from "../parsing/parse-message";
import type { Showing } from "../showing/safe-html";
import type { SafeHtml } from "../showing/sanitise-html";
import { limitedThread } from "./limited-thread";
import type { RawMail } from "./tasks";

/**
 * Whatever parses, lays out, packs or converts what came from outside, in threads with limits of time and memory: a message
 * that holds one up, or takes all its memory, costs that thread and nothing else.
 */
export type Aside = {
  /** Understands a message. It never rejects: what cannot be understood within the limits is shown raw, with a warning. */
  readonly parse: (raw: Uint8Array, envelopeSender?: string | null) => Promise<MailMessage>;
  /** The same for many messages of a file, in their order. */
  readonly parseMany: (raws: readonly Uint8Array[]) => Promise<readonly MailMessage[]>;
  /** A message's HTML made harmless; null where it has none, and where it cannot be done within the limits. */
  readonly safeHtml: (raw: Uint8Array, showing: Showing) => Promise<SafeHtml | null>;
  /** The bytes of one attachment; null where there is none, and where it cannot be had within the limits. */
  readonly attachment: (raw: Uint8Array, index: number) => Promise<Uint8Array | null>;
  /** Attachments of a message under these names as a zip. Rejects with `Overran`. */
  readonly attachmentsZip: (
    raw: Uint8Array,
    files: readonly { readonly index: number; readonly name: string }[],
  ) => Promise<Uint8Array>;
  /** A conversation as a PDF. Rejects with `Overran`. */
  readonly pdf: (printed: PrintedConversation) => Promise<Uint8Array>;
  /** The text of a file; null where it has none, is damaged, or takes too long. */
  readonly documentText: (file: NamedFile, patienceMs?: number) => Promise<string | null>;
  readonly close: () => Promise<void>;
};

const SECOND = 1_000;
const PARSE_MS = 20 * SECOND;
const HTML_MS = 10 * SECOND;
const PDF_MS = 60 * SECOND;
const DOCUMENT_MS = 30 * SECOND;
const PARSE_MANY_MS = 120 * SECOND;
const DESK_MB = 160;
const SHOP_MB = 256;

/** Threads of a process for it; each starts with its first task, and ends when it has had none for a while. */
export function workAside(): Aside {
  // For whoever waits: mail that is handed over, a message that is opened.
  const desk = limitedThread(DESK_MB);
  // For what goes on in the background.
  const shop = limitedThread(SHOP_MB);
  return {
    async parse(raw, envelopeSender = null) {
      const parsed = await desk.carryOut("parse", [{ raw, envelopeSender }], PARSE_MS).catch(() => null);
      return parsed?.[0] ?? unparsed(raw).message;
    },
    async parseMany(raws) {
      const mails = raws.map((raw): RawMail => ({ raw, envelopeSender: null }));
      const parsed = await shop.carryOut("parse", mails, PARSE_MANY_MS).catch(() => null);
      if (parsed !== null) return parsed;
      // One of them is to blame, and is the only one that is shown raw.
      const messages: MailMessage[] = [];
      for (const mail of mails) {
        const alone = await shop.carryOut("parse", [mail], PARSE_MS).catch(() => null);
        messages.push(alone?.[0] ?? unparsed(mail.raw).message);
      }
      return messages;
    },
    safeHtml: (raw, showing) => desk.carryOut("html", { raw, showing }, HTML_MS).catch(() => null),
    attachment: (raw, index) => desk.carryOut("attachment", { raw, index }, PARSE_MS).catch(() => null),
    attachmentsZip: (raw, files) => desk.carryOut("attachmentsZip", { raw, files }, PARSE_MS),
    pdf: (printed) => shop.carryOut("pdf", printed, PDF_MS),
    documentText: (file, patienceMs = DOCUMENT_MS) => shop.carryOut("documentText", file, patienceMs).catch(() => null),
    async close() {
      await Promise.all([desk.close(), shop.close()]);
    },
  };
}
