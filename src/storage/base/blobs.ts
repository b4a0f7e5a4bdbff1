import { createHash } from "node:crypto";
import { cutBase64Segments, joinBase64Segments, type Segment } from "./base64-segments";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";

/** A run as it is noted with the blob that it was cut out of. */
type NotedSegment = Omit<Segment, "sha256" | "content"> & { readonly sha256: string };

export type BlobRow = { readonly content: Buffer; readonly runs: readonly NotedSegment[] | null };

/** What is stored of some bytes: themselves, or the rest with its runs noted; the runs are stored by `storeSegments`. */
export type CutBlob = {
  readonly content: Uint8Array;
  readonly noted: readonly NotedSegment[] | null;
  readonly runs: readonly Segment[];
};

/** Cuts bytes for storing. */
export function cutForStoring(raw: Uint8Array): CutBlob {
  const { rest, runs } = cutBase64Segments(raw);
  if (runs.length === 0) return { content: raw, noted: null, runs };
  const noted = runs.map(
    ({ at, lineLength, lineEnd, endsLine, sha256 }): NotedSegment => ({
      at,
      lineLength,
      lineEnd,
      endsLine,
      sha256: Buffer.from(sha256).toString("hex"),
    }),
  );
  return { content: rest, noted, runs };
}

/** Stores the contents of runs, those that are there already but once. */
export async function storeSegments(db: Database, runs: readonly Segment[]): Promise<void> {
  for (const { sha256, content } of runs) await saveContent(db, sha256, content);
}

/** Keeps some bytes as they are, those that are there already but once, and gives their SHA-256. */
export async function saveBlob(db: Database, content: Uint8Array): Promise<Buffer> {
  const sha256 = createHash("sha256").update(content).digest();
  await saveContent(db, sha256, content);
  return sha256;
}

// Bytes that are there already are held until the transaction ends: whoever looks for what nothing needs passes them over.
// What was just being deleted is stored anew.
async function saveContent(db: Database, sha256: Uint8Array, content: Uint8Array): Promise<void> {
  const blob = { sha256: Buffer.from(sha256), size: content.byteLength, content: Buffer.from(content) };
  for (let held = false; !held; ) {
    await knexOf(db)("blob").insert(blob).onConflict().ignore();
    const row = await knexOf(db)("blob").first("size").where("sha256", blob.sha256).forKeyShare();
    held = row !== undefined;
  }
}

/** The bytes of a blob as they were, its runs back in their places. */
export async function wholeBlob(db: Database, row: BlobRow): Promise<Uint8Array> {
  if (row.runs === null) return row.content;
  const wanted = row.runs.map(({ sha256 }) => sha256);
  const contents = new Map<string, Uint8Array>();
  for (const sha256 of new Set(wanted)) {
    const content = await blobBySha256(db, sha256);
    if (content === null) throw new Error(`a message has lost its part ${sha256}`);
    contents.set(sha256, content);
  }
  const runs = row.runs.map((run) => ({ ...run, content: contents.get(run.sha256) ?? new Uint8Array() }));
  return joinBase64Segments(row.content, runs);
}

/** The bytes with this SHA-256 (in hexadecimal digits); null when there are none. */
export async function blobBySha256(db: Database, sha256: string): Promise<Uint8Array | null> {
  const row: BlobRow | undefined = await knexOf(db)("blob")
    .first("content", "runs")
    .where({ sha256: Buffer.from(sha256, "hex") });
  return row === undefined ? null : wholeBlob(db, row);
}
