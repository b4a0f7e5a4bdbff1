import { createHash } from "node:crypto";

/** A base64 run cut out of a message: where it stood, how its lines were broken, and what it says. */
export type Segment = {
  /** Where it goes back in, counted in what is left without the runs. */
  readonly at: number;
  readonly lineLength: number;
  readonly lineEnd: "\r\n" | "\n";
  /** Whether its last line has a line end of its own. */
  readonly endsLine: boolean;
  readonly sha256: Uint8Array;
  readonly content: Uint8Array;
};

export type CutMessage = { readonly rest: Uint8Array; readonly runs: readonly Segment[] };

// Small ones cost more in rows than they save in bytes.
const MIN_ENCODED_BYTES = 16 * 1024;
const LINE_FEED = 10;
const CARRIAGE_RETURN = 13;
const MAX_LINE = 100;
const MIN_LINE = 40;

/**
 * Cuts long runs of base64 (RFC 4648) out of a message, so that an attachment is kept once however many messages carry
 * it. Only what encodes back to the very same bytes is cut; no knowledge of MIME is needed for that.
 */
export function cutBase64Segments(raw: Uint8Array): CutMessage {
  if (raw.byteLength < MIN_ENCODED_BYTES) return { rest: raw, runs: [] };
  const bytes = Buffer.from(raw.buffer, raw.byteOffset, raw.byteLength);
  const rest: Uint8Array[] = [];
  const runs: Segment[] = [];
  let kept = 0;
  let left = 0;
  for (let start = 0; start < bytes.length; ) {
    const run = runAt(bytes, start);
    if (run === null) {
      const next = bytes.indexOf(LINE_FEED, start);
      start = next === -1 ? bytes.length : next + 1;
      continue;
    }
    if (run.content !== null) {
      rest.push(bytes.subarray(kept, start));
      left += start - kept;
      const sha256 = createHash("sha256").update(run.content).digest();
      runs.push({ at: left, ...run.form, sha256, content: run.content });
      kept = run.end;
    }
    start = run.end;
  }
  rest.push(bytes.subarray(kept));
  return runs.length === 0 ? { rest: raw, runs } : { rest: Buffer.concat(rest), runs };
}

/** The message that was cut, byte for byte. */
export function joinBase64Segments(rest: Uint8Array, runs: readonly Omit<Segment, "sha256">[]): Uint8Array {
  const pieces: Uint8Array[] = [];
  let from = 0;
  for (const run of runs) {
    pieces.push(rest.subarray(from, run.at), encoded(run.content, run));
    from = run.at;
  }
  return Buffer.concat([...pieces, rest.subarray(from)]);
}

type Form = Pick<Segment, "lineLength" | "lineEnd" | "endsLine">;

// Lines of one length, the last one perhaps shorter; content is null for a run that is too short or does not encode back.
function runAt(bytes: Buffer, start: number): { end: number; form: Form; content: Uint8Array | null } | null {
  const first = lineAt(bytes, start);
  if (first === null || first.length < MIN_LINE || first.length > MAX_LINE) return null;
  let end = first.end;
  let endsLine = first.ended;
  for (let line = lineAt(bytes, end); line !== null && line.length > 0; line = lineAt(bytes, end)) {
    if (line.length > first.length) break;
    end = line.end;
    endsLine = line.ended;
    if (line.length < first.length) break;
  }
  const form: Form = { lineLength: first.length, lineEnd: first.lineEnd, endsLine };
  if (end - start < MIN_ENCODED_BYTES) return { end, form, content: null };
  const text = bytes.subarray(start, end);
  const content = Buffer.from(text.toString("latin1"), "base64");
  return { end, form, content: Buffer.from(encoded(content, form)).equals(text) ? content : null };
}

const IN_BASE64 = new Uint8Array(256);
for (const character of "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/=") {
  IN_BASE64[character.charCodeAt(0)] = 1;
}

// A line of nothing but base64; null for any other.
function lineAt(
  bytes: Buffer,
  start: number,
): { length: number; end: number; lineEnd: "\r\n" | "\n"; ended: boolean } | null {
  let at = start;
  while (at < bytes.length && at - start <= MAX_LINE && IN_BASE64[bytes[at] ?? 0] === 1) at += 1;
  const length = at - start;
  if (at >= bytes.length) return { length, end: at, lineEnd: "\n", ended: false };
  if (bytes[at] === LINE_FEED) return { length, end: at + 1, lineEnd: "\n", ended: true };
  if (bytes[at] === CARRIAGE_RETURN && bytes[at + 1] === LINE_FEED) {
    return { length, end: at + 2, lineEnd: "\r\n", ended: true };
  }
  return null;
}

function encoded(content: Uint8Array, form: Form): Uint8Array {
  const text = Buffer.from(content).toString("base64");
  const lines: string[] = [];
  for (let at = 0; at < text.length; at += form.lineLength) lines.push(text.slice(at, at + form.lineLength));
  return Buffer.from(`${lines.join(form.lineEnd)}${form.endsLine ? form.lineEnd : ""}`, "latin1");
}
