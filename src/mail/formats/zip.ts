import { PassThrough, Readable } from "node:stream";
import { buffer } from "node:stream/consumers";
import yauzl from "yauzl";
import yazl from "yazl";
import { safeFileName, withinBytes } from "../inbound/safe-file-name";

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

// What a zip may unpack to, and what one file of it: more is a bomb.
const MAX_UNPACKED_BYTES = 64 * 1024 ** 3;
const MAX_FILE_BYTES = 2 * 1024 ** 3;

/** A zip that is read file by file; to be closed. */
export type OpenZip = {
  /** The names of its files, in its order. */
  readonly names: readonly string[];
  /** The bytes of a file; null where it has none of that name. Throws where it is damaged. */
  readonly read: (name: string) => Promise<Buffer | null>;
  readonly close: () => void;
};

/** Opens a zip, from a file (its path) or from its bytes; null for what is no zip, or would unpack to more than 64 GB. */
export async function openZip(source: string | Uint8Array): Promise<OpenZip | null> {
  const options = { lazyEntries: true, autoClose: false } as const;
  const entries = new Map<string, yauzl.Entry>();
  try {
    const zip =
      typeof source === "string"
        ? await yauzl.openPromise(source, options)
        : await yauzl.fromBufferPromise(Buffer.from(source), options);
    let unpacked = 0;
    for await (const entry of zip.eachEntry()) {
      unpacked += entry.uncompressedSize > MAX_FILE_BYTES ? Number.POSITIVE_INFINITY : entry.uncompressedSize;
      if (!entry.fileName.endsWith("/")) entries.set(entry.fileName, entry);
    }
    if (unpacked > MAX_UNPACKED_BYTES) {
      zip.close();
      return null;
    }
    return {
      names: [...entries.keys()],
      read: async (name) => {
        const entry = entries.get(name);
        return entry === undefined ? null : buffer(await zip.openReadStreamPromise(entry));
      },
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
