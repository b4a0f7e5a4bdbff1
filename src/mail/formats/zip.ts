import { PassThrough, Readable } from "node:stream";
import { buffer } from "node:stream/consumers";
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
