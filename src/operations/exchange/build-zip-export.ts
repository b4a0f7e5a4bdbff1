import { createHash } from "node:crypto";
import type { Readable } from "node:stream";
import { groupedBy } from "../../core/kernel/grouped";
import { dateOf, type Instant } from "../../core/kernel/instant";
import { withAllAbove } from "../../core/records/register-entry";
import { RECORD_COLUMNS } from "../../core/records/register-table";
import { type LazyZipEntry, mboxOf, uniqueNames, writeTable, zipStream } from "../../mail/index";
import type { TrayGrant } from "../../storage/access/index";
import { rawMessage } from "../../storage/conversation/index";
import {
  type FilingRecord,
  type MessageOnRecord,
  notesOf,
  recordDocument,
  registerRecords,
  type ZipExportForm,
  type ZipExportOf,
} from "../../storage/records/index";
import type { Deps } from "../base/deps";
import { printConversation } from "../reading/print-conversation";
import { readAttachment } from "../reading/read-message";
import { recordLines } from "../records/record-table";
import { nameFor, type ZipContents, zipContents } from "./zip-contents";
import { aloneBy, filedInWords, filingOf, filingOfPart, indexOf, type Line, particularsOf } from "./zip-index";

const NOTE_COLUMNS = ["conversation", "at", "by", "text"] as const;

/** A zip that is written as it is read. */
export type Packed = { readonly name: string; readonly files: number; readonly content: Readable };

/**
 * A record, a part of it, or what a search finds as a zip: `messages/` as they came (RFC 5322) or `messages.mbox`
 * (RFC 4155), `conversations/` printed as PDF, `documents/` the attachments and whatever else was put there, `record.csv`
 * what the register says of the record and of what it stands under, `notes.csv` where notes are wanted, and last
 * `index.csv` with the particulars and the SHA-256 of every file; `onFile` is called as each is begun. `importRecord`
 * takes a record in again. Null when there is no such record that she may know of.
 */
export async function buildZipExport(
  deps: Deps,
  grant: TrayGrant,
  what: ZipExportOf,
  { format, withNotes }: ZipExportForm,
  onFile: () => void = () => {},
): Promise<Packed | null> {
  const contents = await zipContents(deps, grant, what);
  if (contents === null) return null;
  const sums = new Map<string, { readonly sha256: string; readonly size: number }>();
  const summed = (entry: LazyZipEntry): LazyZipEntry => ({ ...entry, load: () => withSum(entry, sums) });
  const parts = [
    format === "mbox" ? mboxFile(contents) : emlFiles(contents),
    pdfFiles(contents, withNotes),
    documentFiles(contents),
  ];
  const lines = parts.flatMap((part) => part.lines);
  const entries = [
    ...(contents.record === null ? [] : [recordEntry(deps, grant, contents.record)]),
    ...(withNotes ? [notesEntry(contents)] : []),
    ...parts.flatMap((part) => part.entries).map(summed),
    // Last, as it tells what became of the others.
    { folder: "", name: "index.csv", load: async () => Buffer.from(indexOf(lines, sums)) },
  ];
  const counted = entries.map((entry) => ({
    ...entry,
    load: () => {
      onFile();
      return entry.load();
    },
  }));
  return { name: `${contents.name}.zip`, files: entries.length, content: zipStream(counted, dateOf(deps.now())) };
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

function emlFiles(contents: ZipContents): Files {
  const names = uniqueNames(contents.messages.map((message) => `${nameFor(message)}.eml`));
  return lineByLine(
    contents.messages.map((message, at) => ({
      entry: { folder: "messages/", name: names[at] ?? "", load: () => rawOf(contents, message) },
      line: { kind: "message", ...particularsOf(contents, message) },
    })),
  );
}

function mboxFile(contents: ZipContents): Files {
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

async function rawOf({ deps, grants }: ZipContents, { id, trayId }: MessageOnRecord): Promise<Uint8Array> {
  const grant = grants.find(({ tray }) => tray.id === trayId);
  const stored = grant === undefined ? null : await rawMessage(deps.db, grant, id);
  return stored?.raw ?? gone(`message ${id}`);
}

function documentFiles(contents: ZipContents): Files {
  const { messages, parts, documents, deps } = contents;
  const carried = messages.flatMap((message) =>
    message.attachments
      .filter(({ inline }) => !inline)
      .map(({ index, fileName }) => ({
        at: message.sentAt,
        fileName,
        line: { ...particularsOf(contents, message), alone: "" },
        load: () => documentOf(contents, message, index),
      })),
  );
  const alone = parts.flatMap(({ messageId, trayId, attachment, sentAt, who, fileName, ...part }) =>
    attachment === null || fileName === null || messages.some(({ id }) => id === messageId)
      ? []
      : [
          {
            at: sentAt,
            fileName,
            line: { ...aloneBy(who, sentAt), ...filingOfPart(contents, part) },
            load: () => documentOf(contents, { id: messageId, trayId }, attachment),
          },
        ],
  );
  const put = documents.map(({ id, recordId, at, fileName, who, filing }) => ({
    at,
    fileName,
    line: {
      ...aloneBy(who, at),
      ...(filing === null ? {} : filedInWords(contents, { ...filing, filedAt: null, filedBy: null, rule: null })),
    },
    load: async () => (await recordDocument(deps.db, recordId, id))?.content ?? gone(`the document ${fileName}`),
  }));
  const others = [...alone, ...put].toSorted((a, b) => a.at - b.at || (a.fileName < b.fileName ? -1 : 1));
  const found = [...carried, ...others];
  const day = (at: Instant) => dateOf(at).toISOString().slice(0, 10);
  const names = uniqueNames(found.map(({ at, fileName }) => `${day(at)} ${fileName}`));
  return lineByLine(
    found.map(({ fileName, line, load }, at) => ({
      entry: { folder: "documents/", name: names[at] ?? "", load },
      line: { kind: "document", ...line, attachments: fileName },
    })),
  );
}

function gone(what: string): never {
  throw new Error(`${what} went away while its record was taken out`);
}

async function documentOf(
  { deps, grants }: ZipContents,
  { id, trayId }: Pick<MessageOnRecord, "id" | "trayId">,
  index: number,
): Promise<Uint8Array> {
  const grant = grants.find(({ tray }) => tray.id === trayId);
  const read = grant === undefined ? null : await readAttachment(deps, grant, id, index);
  return read?.content ?? gone(`document of ${id}`);
}

function pdfFiles(contents: ZipContents, withNotes: boolean): Files {
  const { deps, about, filings, nameOf, printedAs } = contents;
  const byThread = groupedBy(contents.messages, ({ conversationId }) => conversationId);
  return lineByLine(
    [...byThread].map(([id, messages]) => {
      const subject = filings.get(id)?.[0]?.subject ?? messages[0]?.subject ?? "";
      const toPrint = { id, subject, messages, withNotes, nameOf, about };
      return {
        entry: {
          folder: "conversations/",
          name: printedAs.get(id) ?? "",
          load: () => printConversation(deps, toPrint),
        },
        line: { kind: "conversation", subject, ...filingOf(contents, id) },
      };
    }),
  );
}

function recordEntry(deps: Deps, grant: TrayGrant, { id }: FilingRecord): LazyZipEntry {
  return {
    folder: "",
    name: "record.csv",
    load: async () => {
      const known = new Map((await registerRecords(deps.db, grant)).map((record) => [record.id, record]));
      // What it stands under comes first, so that each line finds the one above it.
      const lines = withAllAbove(id, known).toReversed();
      return Buffer.from(writeTable(RECORD_COLUMNS, await recordLines(deps, grant, lines)));
    },
  };
}

function notesEntry({ deps, messages, printedAs, nameOf }: ZipContents): LazyZipEntry {
  return {
    folder: "",
    name: "notes.csv",
    load: async () => {
      const ids = [...new Set(messages.map(({ conversationId }) => conversationId))];
      const notes = await notesOf(deps.db, ids);
      const lines = notes.map(({ conversationId, at, by, text }) => ({
        conversation: printedAs.get(conversationId) ?? "",
        at: dateOf(at).toISOString(),
        by: nameOf(by),
        text,
      }));
      return Buffer.from(writeTable(NOTE_COLUMNS, lines));
    },
  };
}
