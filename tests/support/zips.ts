import { buffer } from "node:stream/consumers";
import yauzl from "yauzl";

/** The files of a zip by their names, in its order. */
export async function filesInZip(content: Buffer): Promise<Map<string, Buffer>> {
  const zip = await yauzl.fromBufferPromise(content, { lazyEntries: true });
  const files = new Map<string, Buffer>();
  for await (const entry of zip.eachEntry()) {
    files.set(entry.fileName, await buffer(await zip.openReadStreamPromise(entry)));
  }
  return files;
}
