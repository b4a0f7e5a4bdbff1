import { createReadStream } from "node:fs";
import { open, readdir, readFile, stat } from "node:fs/promises";
import { basename, join } from "node:path";
import { promisify } from "node:util";
import yauzl from "yauzl";
import { looksLikeMail } from "./looks-like-mail";
import { MAX_MESSAGE_BYTES, readMbox } from "./mbox";
import { isBomb, ZIP_LIMITS } from "./zip";

// What a zip of mail unpacks to: more belongs in files of its own.
const MAX_UNPACKED_BYTES = 8 * 1024 ** 3;

export type MailFilesOptions = {
  /** Told the name of a file in a folder or a zip that is no mail and is passed over. */
  readonly passesOver?: (name: string) => void;
  /** Takes any file for a message, however it begins. */
  readonly takesAll?: boolean;
};

/**
 * The raw messages in a file or a folder of files, folders in it included, in order of their names: an mbox (RFC 4155,
 * known by its first five bytes) gives many, a zip those of the files in it, any other file that begins like a message is
 * one. Throws `DamagedFile` where a file cannot be read on, and where the one file that is given is no mail; what it gave
 * before that is whole.
 */
export async function* readMailFiles(path: string, options: MailFilesOptions = {}): AsyncGenerator<Uint8Array> {
  if ((await stat(path)).isDirectory()) {
    const names = (await readdir(path)).filter((name) => !name.startsWith(".")).sort();
    for (const name of names) yield* readOneOfMany(join(path, name), options);
    return;
  }
  const start = await firstBytes(path);
  if (start.subarray(0, 5).toString("latin1") === "From ") yield* readMbox(createReadStream(path));
  else if (start.subarray(0, 2).toString("latin1") === "PK") yield* readZip(path, options);
  else if (options.takesAll !== true && !looksLikeMail(start)) throw new NoMail();
  else if ((await stat(path)).size <= MAX_MESSAGE_BYTES) yield await readFile(path);
  else throw new DamagedFile("it is larger than a message can be");
}

async function* readOneOfMany(path: string, options: MailFilesOptions): AsyncGenerator<Uint8Array> {
  try {
    yield* readMailFiles(path, options);
  } catch (problem) {
    if (!(problem instanceof NoMail)) throw problem;
    options.passesOver?.(basename(path));
  }
}

/** A file that cannot be read on, in words for whoever brought it. */
export class DamagedFile extends Error {}

class NoMail extends DamagedFile {
  constructor() {
    super("it is no mail: neither a message, nor an mbox, nor a zip of them");
  }
}

const BEGINNING_BYTES = 16 * 1024;

async function firstBytes(path: string): Promise<Buffer> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read({ buffer: Buffer.alloc(BEGINNING_BYTES), position: 0 });
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

const openZip = promisify<string, yauzl.Options, yauzl.ZipFile>(yauzl.open);

async function* readZip(path: string, options: MailFilesOptions): AsyncGenerator<Uint8Array> {
  const zip = await openZip(path, { lazyEntries: true, autoClose: false }).catch(() => {
    throw new DamagedFile("it looks like a zip, and its list of contents cannot be read");
  });
  try {
    let unpacked = 0;
    let count = 0;
    for await (const entry of entriesOf(zip)) {
      count += 1;
      if (count > ZIP_LIMITS.entries) throw new DamagedFile(`the zip has more than ${ZIP_LIMITS.entries} files`);
      if (entry.fileName.endsWith("/") || /(^|\/)(\.|__MACOSX)|\.csv$/.test(entry.fileName)) continue;
      unpacked += entry.uncompressedSize;
      if (isBomb(entry)) throw new DamagedFile(`${entry.fileName} in the zip unpacks to more than 200 times its size`);
      if (unpacked > MAX_UNPACKED_BYTES) throw new DamagedFile("the zip unpacks to more than 8 GB");
      yield* messagesIn(zip, entry, options);
    }
  } finally {
    zip.close();
  }
}

async function* entriesOf(zip: yauzl.ZipFile): AsyncGenerator<yauzl.Entry> {
  for (;;) {
    const entry = await new Promise<yauzl.Entry | null>((resolve, reject) => {
      zip.removeAllListeners();
      zip.once("entry", resolve);
      zip.once("end", () => resolve(null));
      zip.once("error", () => reject(new DamagedFile("the zip is damaged")));
      zip.readEntry();
    });
    if (entry === null) return;
    yield entry;
  }
}

async function* messagesIn(
  zip: yauzl.ZipFile,
  entry: yauzl.Entry,
  options: MailFilesOptions,
): AsyncGenerator<Uint8Array> {
  const damaged = () => new DamagedFile(`${entry.fileName} in the zip is damaged`);
  const stream = await new Promise<NodeJS.ReadableStream>((resolve, reject) => {
    zip.openReadStream(entry, (problem, opened) => (problem === null ? resolve(opened) : reject(damaged())));
  });
  const chunks = stream as AsyncIterable<Uint8Array>;
  if (/\.(mbox|mbx)$/i.test(entry.fileName)) {
    yield* readMbox(chunks);
    return;
  }
  const parts: Uint8Array[] = [];
  let size = 0;
  try {
    for await (const chunk of chunks) {
      size += chunk.byteLength;
      if (size > MAX_MESSAGE_BYTES)
        throw new DamagedFile(`${entry.fileName} in the zip is larger than a message can be`);
      parts.push(chunk);
    }
  } catch (problem) {
    throw problem instanceof DamagedFile ? problem : damaged();
  }
  const content = Buffer.concat(parts);
  if (options.takesAll === true || looksLikeMail(content.subarray(0, BEGINNING_BYTES))) yield content;
  else options.passesOver?.(entry.fileName);
}
