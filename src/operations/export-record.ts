import { createHash } from "node:crypto";
import type { Readable } from "node:stream";
import { mailboxName } from "../core/kernel/email-address";
import { groupedBy } from "../core/kernel/grouped";
import type { ConversationId, MessageId } from "../core/kernel/ids";
import { dateOf, type Instant } from "../core/kernel/instant";
import type { Attachment } from "../core/message/mail-message";
import { meansInWords } from "../core/records/filing-means";
import { RECORD_COLUMNS } from "../core/records/register-table";
import { fileNameOf, type LazyZipEntry, mboxOf, uniqueNames, writeTable, zipStream } from "../mail/index";
import {
  allMembers,
  type FiledThread,
  type FilingRecord,
  filedThreads,
  grantsOf,
  type MessageOnRecord,
  messagesOnRecord,
  rawMessage,
  recordByCode,
  recordTypes,
  registerRecords,
  type TrayGrant,
} from "../storage/index";
import type { Deps } from "./deps";
import type { ExportFormat } from "./export-mail";
import { mailboxLine, printConversation } from "./print-conversation";
import { readAttachment } from "./read-message";
import { recordLines } from "./record-table";

/** How a record is taken out: its messages one by one or as one mbox, the printed conversations with notes or without. */
export type RecordExport = { readonly format: ExportFormat; readonly withNotes: boolean };

type Line = Readonly<Record<string, string>>;
const INDEX_COLUMNS = [
  ...["kind", "file", "sha256", "size", "date", "direction", "from", "to", "cc", "subject", "attachments"],
  ...["messageId", "conversation", "filedAt", "filedBy", "means"],
];
const FIELD_PREFIX = "field: ";

/**
 * A record as a zip that is written as it is read: `messages/` as they came (RFC 5322) or `messages.mbox` (RFC 4155),
 * `conversations/` printed as PDF, `documents/` the attachments, `record.csv` what the register says, and last `index.csv`
 * with the particulars and the SHA-256 of every file. Null when there is no record of this code that she may know of.
 */
export async function exportRecord(
  deps: Deps,
  grant: TrayGrant,
  code: string,
  wanted: RecordExport,
): Promise<{ readonly name: string; readonly content: Readable } | null> {
  const record = await recordByCode(deps.db, grant, code);
  if (record === null) return null;
  const contents = await contentsOf(deps, grant, record);
  const sums = new Map<string, { readonly sha256: string; readonly size: number }>();
  const summed = (entry: LazyZipEntry): LazyZipEntry => ({ ...entry, load: () => withSum(entry, sums) });
  const parts = [
    wanted.format === "mbox" ? mboxFile(contents) : emlFiles(contents),
    pdfFiles(contents, wanted.withNotes),
    documentFiles(contents),
  ];
  const lines = parts.flatMap((part) => part.lines);
  const entries = [
    recordEntry(deps, grant, record),
    ...parts.flatMap((part) => part.entries).map(summed),
    // Last, as it tells what became of the others.
    { folder: "", name: "index.csv", load: async () => Buffer.from(indexOf(lines, sums)) },
  ];
  return { name: `${record.code}.zip`, content: zipStream(entries, dateOf(deps.now())) };
}

async function withSum(
  entry: LazyZipEntry,
  sums: Map<string, { readonly sha256: string; readonly size: number }>,
): Promise<Uint8Array | AsyncIterable<Uint8Array>> {
  const content = await entry.load();
  const keep = (hash: ReturnType<typeof createHash>, size: number) =>
    void sums.set(pathOf(entry), { sha256: hash.digest("hex"), size });
  const hash = createHash("sha256");
  if (content instanceof Uint8Array) {
    keep(hash.update(content), content.byteLength);
    return content;
  }
  return (async function* () {
    let size = 0;
    for await (const piece of content) {
      hash.update(piece);
      size += piece.byteLength;
      yield piece;
    }
    keep(hash, size);
  })();
}

type Contents = {
  readonly deps: Deps;
  readonly record: FilingRecord;
  readonly threads: ReadonlyMap<ConversationId, FiledThread>;
  readonly messages: readonly MessageOnRecord[];
  readonly grants: readonly TrayGrant[];
  readonly nameOf: (id: string | null) => string;
  /** What the fields of its type are called. */
  readonly labels: ReadonlyMap<string, string>;
};

async function contentsOf(deps: Deps, grant: TrayGrant, record: FilingRecord): Promise<Contents> {
  const [[entry], types, threads, messages, grants, members] = await Promise.all([
    registerRecords(deps.db, grant, [record.id]),
    recordTypes(deps.db),
    filedThreads(deps.db, grant, record.id),
    messagesOnRecord(deps.db, grant, record.id),
    grantsOf(deps.db, grant.memberId, deps.now()),
    allMembers(deps.db),
  ]);
  return {
    ...{ deps, record, messages, grants },
    threads: new Map(threads.map((thread) => [thread.id, thread])),
    labels: new Map(types.find(({ id }) => id === entry?.typeId)?.fields.map(({ key, label }) => [key, label])),
    nameOf: (id) => members.find((member) => member.id === id)?.name ?? "",
  };
}

/** Some files of the zip, and their lines of the index but for what is known only once they are written. */
type Files = { readonly entries: readonly LazyZipEntry[]; readonly lines: readonly Line[] };

const pathOf = ({ folder, name }: Pick<LazyZipEntry, "folder" | "name">) => `${folder}${name}`;

/** One line for each file. */
function lineByLine(files: readonly { readonly entry: LazyZipEntry; readonly line: Line }[]): Files {
  return {
    entries: files.map(({ entry }) => entry),
    lines: files.map(({ entry, line }) => ({ ...line, file: pathOf(entry) })),
  };
}

function emlFiles(contents: Contents): Files {
  const names = uniqueNames(contents.messages.map((message) => `${nameFor(message)}.eml`));
  return lineByLine(
    contents.messages.map((message, at) => ({
      entry: { folder: "messages/", name: names[at] ?? "", load: () => rawOf(contents, message) },
      line: { kind: "message", ...particularsOf(contents, message) },
    })),
  );
}

function mboxFile(contents: Contents): Files {
  const pieces = async function* () {
    for (const message of contents.messages) yield mboxOf([{ ...message, raw: await rawOf(contents, message) }]);
  };
  const entry = { folder: "", name: "messages.mbox", load: async () => pieces() };
  const file = pathOf(entry);
  return {
    entries: contents.messages.length === 0 ? [] : [entry],
    lines: contents.messages.map((message) => ({ kind: "message", ...particularsOf(contents, message), file })),
  };
}

async function rawOf({ deps, grants }: Contents, { id, trayId }: MessageOnRecord): Promise<Uint8Array> {
  const grant = grants.find(({ tray }) => tray.id === trayId);
  const stored = grant === undefined ? null : await rawMessage(deps.db, grant, id);
  if (stored === null) throw new Error(`message ${id} went away while its record was taken out`);
  return stored.raw;
}

function documentFiles(contents: Contents): Files {
  const found = contents.messages.flatMap((message) =>
    message.attachments.filter(({ inline }) => !inline).map((attachment) => ({ message, attachment })),
  );
  const day = (at: Instant) => dateOf(at).toISOString().slice(0, 10);
  const names = uniqueNames(found.map(({ message, attachment }) => `${day(message.sentAt)} ${attachment.fileName}`));
  return lineByLine(
    found.map(({ message, attachment }, at) => ({
      entry: { folder: "documents/", name: names[at] ?? "", load: () => documentOf(contents, message, attachment) },
      line: { kind: "document", ...particularsOf(contents, message), attachments: attachment.fileName },
    })),
  );
}

async function documentOf(
  { deps, grants }: Contents,
  { id, trayId }: { readonly id: MessageId; readonly trayId: MessageOnRecord["trayId"] },
  { index }: Attachment,
): Promise<Uint8Array> {
  const grant = grants.find(({ tray }) => tray.id === trayId);
  const read = grant === undefined ? null : await readAttachment(deps, grant, id, index);
  if (read === null) throw new Error(`a document of message ${id} went away while its record was taken out`);
  return read.content;
}

function pdfFiles(contents: Contents, withNotes: boolean): Files {
  const byThread = groupedBy(contents.messages, ({ conversationId }) => conversationId);
  const threads = [...byThread].flatMap(([id, messages]) => {
    const [first] = messages;
    return first === undefined ? [] : [{ id, messages, first, thread: contents.threads.get(id) }];
  });
  const names = uniqueNames(threads.map(({ first }) => `${nameFor(first)}.pdf`));
  const { deps, record, nameOf } = contents;
  return lineByLine(
    threads.map(({ id, messages, first, thread }, at) => {
      const subject = thread?.subject ?? first.subject;
      const toPrint = { ...{ id, subject, messages, withNotes, nameOf }, about: `${record.code} ${record.title}` };
      return {
        entry: {
          ...{ folder: "conversations/", name: names[at] ?? "" },
          load: () => printConversation(deps, toPrint),
        },
        line: { kind: "conversation", subject, ...filingOf(contents, id) },
      };
    }),
  );
}

function nameFor(message: MessageOnRecord): string {
  const from = { name: message.fromName, address: message.fromAddress };
  const [first = from] = message.recipients.to;
  return fileNameOf({ ...message, correspondent: mailboxName(message.direction === "out" ? first : from) });
}

function particularsOf(contents: Contents, message: MessageOnRecord): Line {
  return {
    ...{ date: dateOf(message.sentAt).toISOString(), direction: message.direction, subject: message.subject },
    from: mailboxLine({ name: message.fromName, address: message.fromAddress }),
    to: message.recipients.to.map(mailboxLine).join(", "),
    cc: message.recipients.cc.map(mailboxLine).join(", "),
    attachments: message.attachments
      .filter(({ inline }) => !inline)
      .map(({ fileName }) => fileName)
      .join("; "),
    messageId: message.messageId ?? "",
    ...filingOf(contents, message.conversationId),
  };
}

function filingOf({ threads, nameOf, labels }: Contents, id: ConversationId): Line {
  const thread = threads.get(id);
  const fields = Object.entries(thread?.fields ?? {}).map(
    ([key, value]) => [`${FIELD_PREFIX}${labels.get(key) ?? key}`, value] as const,
  );
  return {
    conversation: id,
    filedAt: thread?.filedAt == null ? "" : dateOf(thread.filedAt).toISOString(),
    filedBy: nameOf(thread?.filedBy ?? null),
    means: thread?.rule == null ? meansInWords(thread?.means) : `by the rule “${thread.rule}”`,
    ...Object.fromEntries(fields),
  };
}

type Sums = ReadonlyMap<string, { readonly sha256: string; readonly size: number }>;

function indexOf(lines: readonly Line[], sums: Sums): string {
  const columns = [...new Set([...INDEX_COLUMNS, ...lines.flatMap((line) => Object.keys(line))])];
  const rows = lines.map((line) => {
    const sum = sums.get(line.file ?? "");
    const whole: Line = { ...line, sha256: sum?.sha256 ?? "", size: String(sum?.size ?? "") };
    return Object.fromEntries(columns.map((column) => [column, whole[column] ?? ""]));
  });
  return writeTable(columns, rows);
}

function recordEntry(deps: Deps, grant: TrayGrant, { id }: FilingRecord): LazyZipEntry {
  return {
    ...{ folder: "", name: "record.csv" },
    load: async () => {
      const records = await registerRecords(deps.db, grant, [id]);
      return Buffer.from(writeTable(RECORD_COLUMNS, await recordLines(deps, grant, records)));
    },
  };
}
