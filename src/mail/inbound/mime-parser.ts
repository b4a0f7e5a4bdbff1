import PostalMime, { type Email } from "postal-mime";

// Deeper nesting and larger headers are no mail that a person sent.
const MAX_NESTING = 40;
const MAX_HEADER_BYTES = 1024 * 1024;
const MAX_PARTS = 2_000;
// 36 MB of base64 has fewer.
const MAX_LINES = 600_000;
const PART_HEADER = Buffer.from("\nContent-Type:");
const LINE_END = Buffer.from("\n");
const GATHERED_LINES = 128;

type Decoder = { chunks?: (Uint8Array | string)[] };
type Internals = {
  readonly currentNode?: { readonly contentDecoder?: Decoder | null };
  processLine: (line: Uint8Array, isFinal: boolean) => Promise<void>;
};

/**
 * Splits a message into its parts. Throws when it is nested deeper, has more parts, lines or header than the limits.
 *
 * The library keeps a part that is not encoded as one piece a line until its end: a million lines took 20 s and 2 GB. The
 * lines are put together as they come (checked against version 4.0.0, which is pinned).
 */
export async function parseMime(raw: Uint8Array): Promise<Email> {
  if (isMoreThan(MAX_PARTS, PART_HEADER, raw)) throw new Error(`it has more than ${MAX_PARTS} parts`);
  if (isMoreThan(MAX_LINES, LINE_END, raw)) throw new Error(`it has more than ${MAX_LINES} lines`);
  const parser = new PostalMime({
    maxNestingDepth: MAX_NESTING,
    maxHeadersSize: MAX_HEADER_BYTES,
    forceRfc822Attachments: true,
  });
  const internals = parser as unknown as Internals;
  const original = internals.processLine.bind(parser);
  const gathered = new WeakMap<Decoder, number>();
  internals.processLine = (line, isFinal) => {
    const decoder = internals.currentNode?.contentDecoder;
    if (decoder?.chunks !== undefined) gatherLines(decoder, decoder.chunks, gathered);
    return original(line, isFinal);
  };
  return parser.parse(raw);
}

function gatherLines(decoder: Decoder, chunks: (Uint8Array | string)[], gathered: WeakMap<Decoder, number>): void {
  const done = gathered.get(decoder) ?? 0;
  if (chunks.length - done < GATHERED_LINES) return;
  const lines = chunks.splice(done).map((chunk) => (typeof chunk === "string" ? Buffer.from(chunk) : chunk));
  chunks.push(Buffer.concat(lines));
  gathered.set(decoder, done + 1);
}

function isMoreThan(limit: number, mark: Buffer, raw: Uint8Array): boolean {
  const bytes = Buffer.from(raw.buffer, raw.byteOffset, raw.byteLength);
  let count = 0;
  for (let at = bytes.indexOf(mark); at !== -1; at = bytes.indexOf(mark, at + 1)) {
    count += 1;
    if (count > limit) return true;
  }
  return false;
}
