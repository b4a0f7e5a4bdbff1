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
