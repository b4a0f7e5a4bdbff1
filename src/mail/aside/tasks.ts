import type { NamedFile } from "../../core/kernel/named-file";
import type { MailMessage } from "../../core/message/mail-message";
import { conversationPdf, type PrintedConversation } from "../formats/conversation-pdf";
import { zipOf } from "../formats/zip";
import { parseMessage } from "../parsing/parse-message";
import { type Showing, safeHtmlOf } from "../showing/safe-html";
import type { SafeHtml } from "../showing/sanitise-html";

/** A message as it came, and what its envelope said. */
export type RawMail = { readonly raw: Uint8Array; readonly envelopeSender: string | null };

// What is done with what came from outside, each in a thread with limits.
const TASKS = {
  /** Messages as they are understood, in the same order; their attachments' bytes stay there. */
  parse: async (mails: readonly RawMail[]): Promise<readonly MailMessage[]> => {
    const messages: MailMessage[] = [];
    for (const { raw, envelopeSender } of mails) messages.push((await parseMessage(raw, envelopeSender)).message);
    return messages;
  },
  /** The bytes of one attachment; null where there is none. */
  attachment: async ({ raw, index }: { raw: Uint8Array; index: number }): Promise<Uint8Array | null> =>
    (await parseMessage(raw)).contents[index] ?? null,
  /** The attachments of a message under these names, as a zip. */
  attachmentsZip: async ({ raw, files }: { raw: Uint8Array; files: readonly { index: number; name: string }[] }) => {
    const { contents } = await parseMessage(raw);
    return zipOf(files.map(({ index, name }) => ({ name, content: contents[index] ?? new Uint8Array() })));
  },
  html: ({ raw, showing }: { raw: Uint8Array; showing: Showing }): Promise<SafeHtml | null> => safeHtmlOf(raw, showing),
  pdf: (printed: PrintedConversation): Promise<Uint8Array> => conversationPdf(printed),
  /** The text of a file; null where it has none or is damaged. */
  documentText: async (file: NamedFile): Promise<string | null> => {
    // What reads PDFs takes 150 MB: only the thread that needs it has it.
    const { textOfDocument } = await import("../parsing/document-text");
    return textOfDocument(file).catch(() => null);
  },
} as const;

export type TaskKind = keyof typeof TASKS;
export type Asked<Kind extends TaskKind> = Parameters<(typeof TASKS)[Kind]>[0];
export type Answered<Kind extends TaskKind> = Awaited<ReturnType<(typeof TASKS)[Kind]>>;
export type Task = { readonly [Kind in TaskKind]: { readonly kind: Kind; readonly asked: Asked<Kind> } }[TaskKind];

/** Carries a task out where it is called: in the thread that is for it. */
export function carryOutTask({ kind, asked }: Task): Promise<unknown> {
  const task: (given: never) => Promise<unknown> = TASKS[kind];
  return task(asked as never);
}
