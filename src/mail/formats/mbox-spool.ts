import { mkdtemp, open, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readMbox } from "./mbox";

/** The messages of an mbox, on the disk: any of them can be read at any time. To be closed. */
export type SpooledMbox = {
  readonly count: number;
  readonly read: (at: number) => Promise<Uint8Array>;
  readonly close: () => Promise<void>;
};

/** Reads an mbox through once and keeps where each message is, so that no more than one is in memory. */
export async function spoolMbox(chunks: AsyncIterable<Uint8Array>): Promise<SpooledMbox> {
  const folder = await mkdtemp(join(tmpdir(), "common-tray-mbox-"));
  const file = await open(join(folder, "messages"), "wx+", 0o600);
  // The file goes with the last who has it open, also where the process is killed.
  await rm(folder, { recursive: true });
  const places: { readonly position: number; readonly length: number }[] = [];
  let position = 0;
  try {
    for await (const raw of readMbox(chunks)) {
      await file.write(raw, 0, raw.byteLength, position);
      places.push({ position, length: raw.byteLength });
      position += raw.byteLength;
    }
  } catch (problem) {
    await file.close();
    throw problem;
  }
  return {
    count: places.length,
    async read(at) {
      const place = places[at];
      if (place === undefined) throw new RangeError(`there is no message ${at}`);
      const { buffer } = await file.read({ buffer: Buffer.alloc(place.length), ...place });
      return buffer;
    },
    close: () => file.close(),
  };
}
