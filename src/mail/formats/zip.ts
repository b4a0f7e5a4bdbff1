import { PassThrough, Readable } from "node:stream";
import { buffer } from "node:stream/consumers";
import yauzl from "yauzl";
import yazl from "yazl";
import { safeFileName, withinBytes } from "../parsing/safe-file-name";

/** A file on its way into a zip. */
export type ZipEntry = { readonly name: string; readonly content: Uint8Array };

/** A zip of files in one folder, each name made safe and unlike every other. */
export async function zipOf(entries: readonly ZipEntry[]): Promise<Uint8Array> {
  const zip = new yazl.ZipFile();
  const names = uniqueNames(entries.map(({ name }) => name));
  entries.forEach(({ content }, at) => {
    zip.addBuffer(Buffer.from(content), names[at] ?? `file-${at + 1}`);
  });
  zip.end();
  return buffer(zip.outputStream as unknown as NodeJS.ReadableStream);
}

/** A file that is made when its turn comes, in a folder of the zip or (empty) outermost. */
export type LazyZipEntry = {
  readonly folder: string;
  readonly name: string;
  /** Its bytes, or pieces of them one after the other. */
  readonly load: () => Promise<Uint8Array | AsyncIterable<Uint8Array>>;
};

/**
 * A zip that is written as it is read, one file in memory at a time, in the order given; names have to be safe and unlike
 * each other (`uniqueNames`). A file that cannot be made breaks the stream off.
 */
export function zipStream(entries: readonly LazyZipEntry[], madeAt: Date): Readable {
  const zip = new yazl.ZipFile();
  const out = new PassThrough();
  for (const { folder, name, load } of entries) {
    zip.addReadStreamLazy(`${folder}${name}`, { mtime: madeAt }, (give) => {
      load().then(
        (content) =>
          give(null, Readable.from(content instanceof Uint8Array ? [content] : content, { objectMode: false })),
        (problem) => out.destroy(problem instanceof Error ? problem : new Error(String(problem))),
      );
    });
  }
  zip.end();
  (zip.outputStream as unknown as Readable).pipe(out);
  return out;
}

/** What is refused of a zip from outside, before anything of it is unpacked. */
export const ZIP_LIMITS = {
  entries: 500_000,
  /** Of all files together, in bytes. */
  unpacked: 64 * 1024 ** 3,
  /** Of one file that is read as one piece: the largest that there can be here are documents of records, of 50 MB. */
  file: 64 * 1024 ** 2,
  /** Of one file that is read as it comes. */
  streamedFile: 16 * 1024 ** 3,
  /** How many times larger a file may get: mail and documents get 3 to 20 times as large, text that repeats itself 100. */
  ratio: 200,
  /** Under so many bytes the ratio says nothing. */
  ratioFrom: 1024 ** 2,
} as const;

/** Whether a file of a zip gets larger than anything that anybody packed in earnest. */
export function isBomb({ compressedSize, uncompressedSize }: Pick<yauzl.Entry, "compressedSize" | "uncompressedSize">) {
  return uncompressedSize > ZIP_LIMITS.ratioFrom && uncompressedSize > compressedSize * ZIP_LIMITS.ratio;
}

/** A zip that is read file by file; to be closed. */
export type OpenZip = {
  /** The names of its files, in its order. */
  readonly names: readonly string[];
  /** The bytes of a file; null where it has none of that name. Throws where it is damaged or larger than 64 MB. */
  readonly read: (name: string) => Promise<Buffer | null>;
  /** The same in pieces, of whatever size. */
  readonly stream: (name: string) => Promise<Readable | null>;
  readonly close: () => void;
};

/** Opens a zip, from a file (its path) or from its bytes; null for what is no zip, or is over a limit (`ZIP_LIMITS`). */
export async function openZip(source: string | Uint8Array): Promise<OpenZip | null> {
  const options = { lazyEntries: true, autoClose: false } as const;
  const entries = new Map<string, yauzl.Entry>();
  try {
    const zip =
      typeof source === "string"
        ? await yauzl.openPromise(source, options)
        : await yauzl.fromBufferPromise(Buffer.from(source), options);
    let unpacked = 0;
    let isOver = zip.entryCount > ZIP_LIMITS.entries;
    for await (const entry of isOver ? [] : zip.eachEntry()) {
      unpacked += entry.uncompressedSize;
      isOver ||= isBomb(entry) || entry.uncompressedSize > ZIP_LIMITS.streamedFile || unpacked > ZIP_LIMITS.unpacked;
      if (isOver) break;
      if (!entry.fileName.endsWith("/")) entries.set(entry.fileName, entry);
    }
    if (isOver) {
      zip.close();
      return null;
    }
    const stream = async (name: string): Promise<Readable | null> => {
      const entry = entries.get(name);
      return entry === undefined ? null : zip.openReadStreamPromise(entry);
    };
    return {
      names: [...entries.keys()],
      read: async (name) => {
        if ((entries.get(name)?.uncompressedSize ?? 0) > ZIP_LIMITS.file) throw new Error(`${name} is too large`);
        const content = await stream(name);
        return content === null ? null : buffer(content);
      },
      stream,
      close: () => zip.close(),
    };
  } catch {
    return null;
  }
}

const MAX_NAME_BYTES = 120;

/** Names that every file system takes, at most 120 bytes, none twice even where case makes no difference. */
export function uniqueNames(wanted: readonly string[]): string[] {
  const taken = new Set<string>();
  return wanted.map((name) => {
    const safe = safeFileName(name);
    const extension = /\.[\w-]{1,10}$/.exec(safe)?.[0] ?? "";
    const stem = safe.slice(0, safe.length - extension.length);
    for (let count = 1; ; count += 1) {
      const mark = count === 1 ? "" : ` (${count})`;
      const room = MAX_NAME_BYTES - Buffer.byteLength(extension + mark);
      const tried = `${withinBytes(stem, room).trimEnd()}${mark}${extension}`;
      if (taken.has(tried.toLowerCase())) continue;
      taken.add(tried.toLowerCase());
      return tried;
    }
  });
}
