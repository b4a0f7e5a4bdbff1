/** The bytes of a part from how it was sent (RFC 2045 section 6): base64, quoted-printable, uuencode, or as it stands. */
export function decodeContent(sent: Uint8Array, encoding: string): Uint8Array {
  switch (encoding) {
    case "base64":
      return ofBase64(sent);
    case "quoted-printable":
      return ofQuotedPrintable(sent);
    case "x-uuencode":
    case "uuencode":
    case "x-uue":
      return ofUuencode(sent) ?? sent;
    default:
      return sent;
  }
}

const latin1Of = (bytes: Uint8Array) =>
  Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString("latin1");

// A message is large; what it is decoded by is not held as a whole.
const CHUNK_BYTES = 192 * 1024;

// Padding in the middle ends one of several encoded pieces; what is no character of it is passed over, as RFC 2045 asks.
function ofBase64(sent: Uint8Array): Uint8Array {
  const out = Buffer.alloc(Math.ceil((sent.byteLength * 3) / 4));
  let [length, rest] = [0, ""];
  const write = (piece: string) => {
    length += out.write(piece, length, "base64");
  };
  for (let at = 0; at < sent.byteLength; at += CHUNK_BYTES) {
    const chunk = rest + latin1Of(sent.subarray(at, at + CHUNK_BYTES)).replace(/[^A-Za-z0-9+/=]/g, "");
    const pieces = chunk.split(/=+/);
    const last = pieces.pop() ?? "";
    for (const piece of pieces) write(piece);
    // Four characters are three bytes: what is over goes with what comes next.
    const whole = last.length - (last.length % 4);
    write(last.slice(0, whole));
    rest = last.slice(whole);
  }
  write(rest);
  return out.subarray(0, length);
}

const EQUALS = 0x3d;

function ofQuotedPrintable(sent: Uint8Array): Uint8Array {
  const out = Buffer.alloc(sent.byteLength);
  let length = 0;
  for (let at = 0; at < sent.byteLength; at += 1) {
    const byte = sent[at] ?? 0;
    if (byte !== EQUALS) {
      out[length] = byte;
      length += 1;
      continue;
    }
    const value = hexAt(sent, at + 1);
    if (value !== null) {
      out[length] = value;
      length += 1;
      at += 2;
      continue;
    }
    const next = softBreakEnd(sent, at + 1);
    if (next !== null) at = next - 1;
    else {
      out[length] = byte;
      length += 1;
    }
  }
  return out.subarray(0, length);
}

function hexAt(bytes: Uint8Array, at: number): number | null {
  const [high, low] = [hexOf(bytes[at] ?? 0), hexOf(bytes[at + 1] ?? 0)];
  return high === -1 || low === -1 ? null : high * 16 + low;
}

function hexOf(byte: number): number {
  if (byte >= 0x30 && byte <= 0x39) return byte - 0x30;
  // Small letters are no standard, and common.
  const letter = byte | 0x20;
  return letter >= 0x61 && letter <= 0x66 ? letter - 0x57 : -1;
}

const [TAB, LF, CR, SPACE] = [0x09, 0x0a, 0x0d, 0x20];

// Where the line after a soft break begins; null where the sign is none. What mail systems put behind it is passed over.
function softBreakEnd(bytes: Uint8Array, from: number): number | null {
  let at = from;
  while (bytes[at] === SPACE || bytes[at] === TAB) at += 1;
  if (at >= bytes.byteLength) return at;
  if (bytes[at] === CR) at += 1;
  return bytes[at] === LF ? at + 1 : null;
}

// As POSIX defines it: a line says by its first character how many bytes its groups of four have; null where nothing begins.
function ofUuencode(sent: Uint8Array): Uint8Array | null {
  const lines = latin1Of(sent).split(/\r?\n/);
  const begins = lines.findIndex((line) => /^begin [0-7]{3,4} /.test(line));
  if (begins === -1) return null;
  const out: number[] = [];
  for (const line of lines.slice(begins + 1)) {
    if (line === "end") break;
    const count = (line.charCodeAt(0) - 32) & 63;
    const value = (at: number) => ((line.charCodeAt(at) || 32) - 32) & 63;
    for (let at = 1, left = count; left > 0; at += 4, left -= 3) {
      const group = (value(at) << 18) | (value(at + 1) << 12) | (value(at + 2) << 6) | value(at + 3);
      out.push(...[group >> 16, (group >> 8) & 255, group & 255].slice(0, Math.min(3, left)));
    }
  }
  return Uint8Array.from(out);
}
