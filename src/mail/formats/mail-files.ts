import { createReadStream } from "node:fs";
import { open, readdir, readFile, stat } from "node:fs/promises";
import { join } from "node:path";
import { readMbox } from "./mbox";

/**
 * The raw messages in a file or a folder of files, folders in it included, in order of their names: an mbox (RFC 4155,
 * known by its first five bytes) gives many, any other file is one message.
 */
export async function* readMailFiles(path: string): AsyncGenerator<Uint8Array> {
  if ((await stat(path)).isDirectory()) {
    const names = (await readdir(path)).filter((name) => !name.startsWith(".")).sort();
    for (const name of names) yield* readMailFiles(join(path, name));
  } else if (await isMbox(path)) {
    yield* readMbox(createReadStream(path));
  } else {
    yield await readFile(path);
  }
}

async function isMbox(path: string): Promise<boolean> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read({ buffer: Buffer.alloc(5), length: 5, position: 0 });
    return buffer.subarray(0, bytesRead).toString("latin1") === "From ";
  } finally {
    await file.close();
  }
}
