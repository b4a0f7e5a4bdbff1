import type { NamedFile } from "../../core/kernel/named-file";
import { searchVector } from "../../core/search/search-vector";
import { hasText } from "../../mail/index";
import { blobBySha256, inTransaction } from "../../storage/base/index";
import {
  saveAttachmentWords,
  saveDocumentWords,
  type UnreadCarrier,
  unreadCarriers,
  unreadDocuments,
} from "../../storage/mail/index";
import type { Deps } from "../base/deps";

const BATCH = 20;
// What is longer is no text that somebody reads, and would take long to go through.
const MAX_BYTES = 25_000_000;
const MAX_CHARACTERS = 150_000;

/** Hands the reading in where there is anything to read. */
export async function wantReading(deps: Deps): Promise<void> {
  const [carriers, documents] = [await unreadCarriers(deps.db, 1), await unreadDocuments(deps.db, 1)];
  if (carriers.length + documents.length > 0)
    await inTransaction(deps.db, (trx) => deps.jobs.enqueue(trx, { kind: "read-documents" }));
}

/** Reads the files that messages brought and that were put on records, so that they are found by their words; gives how many there were. */
export async function readDocuments(deps: Deps): Promise<number> {
  let count = 0;
  for (;;) {
    const carriers = await unreadCarriers(deps.db, BATCH);
    for (const carrier of carriers) await readCarrier(deps, carrier);
    const documents = await unreadDocuments(deps.db, BATCH);
    for (const { id, content, ...named } of documents) {
      const text = await textOf(deps, { ...named, content });
      await inTransaction(deps.db, (trx) => saveDocumentWords(trx, id, wordsOf(named.name, text)));
    }
    count += carriers.length + documents.length;
    if (carriers.length + documents.length === 0) return count;
  }
}

async function readCarrier(deps: Deps, { id, attachments, raw }: UnreadCarrier): Promise<void> {
  const texts: { readonly index: number; readonly name: string; readonly text: string }[] = [];
  for (const { index, fileName: name, contentType, size, sha256 } of attachments) {
    const content = async () => {
      const kept = await blobBySha256(deps.db, sha256);
      if (kept !== null) return kept;
      return (await deps.aside.attachment(await raw(), index)) ?? new Uint8Array();
    };
    const text = size > MAX_BYTES ? "" : await textOf(deps, { name, contentType, content });
    texts.push({ index, name, text });
  }
  const words = texts.map(({ index, name, text }) => ({ index, vector: wordsOf(name, text) }));
  const all = texts.map(({ name, text }) => `${name}\n${text}`).join("\n");
  await inTransaction(deps.db, (trx) => saveAttachmentWords(trx, id, words, unplaced(all)));
}

type LazyFile = Omit<NamedFile, "content"> & { readonly content: () => Promise<Uint8Array> };

async function textOf(deps: Deps, { content, ...named }: LazyFile): Promise<string> {
  if (!hasText(named)) return "";
  const text = await deps.aside.documentText({ ...named, content: await content() });
  return (text ?? "").slice(0, MAX_CHARACTERS);
}

// By its name and its words; phrases in it are found, too.
const wordsOf = (name: string, text: string) =>
  searchVector({ subject: name, people: "", ownText: text, restText: "" });
// In a message they have no place: a phrase does not reach from its text into what it carries.
const unplaced = (text: string) => searchVector({ subject: "", people: "", ownText: "", restText: text });
