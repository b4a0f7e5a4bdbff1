// Compressed RTF as [MS-OXRTFCP] defines it: a dictionary of 4,096 bytes that begins with what most texts begin with.
const COMPRESSED = 0x75465a4c;
const UNCOMPRESSED = 0x414c454d;
const PRELOAD =
  "{\\rtf1\\ansi\\mac\\deff0\\deftab720{\\fonttbl;}{\\f0\\fnil \\froman \\fswiss \\fmodern \\fscript \\fdecor MS Sans SerifSymbolArialTimes New RomanCourier{\\colortbl\\red0\\green0\\blue0\r\n\\par \\pard\\plain\\f0\\fs20\\b\\i\\u\\tab\\tx";
const DICTIONARY = 4_096;
const MAX_RTF_BYTES = 8 * 1024 * 1024;

/** The RTF that a compressed body holds; of a damaged one what stands before the damage. */
export function uncompressRtf(bytes: Buffer): Buffer {
  if (bytes.length < 16) return Buffer.alloc(0);
  const kind = bytes.readUInt32LE(8);
  const size = Math.min(bytes.readUInt32LE(4), MAX_RTF_BYTES);
  if (kind === UNCOMPRESSED) return bytes.subarray(16, 16 + size);
  return kind === COMPRESSED ? expanded(bytes.subarray(16), size) : Buffer.alloc(0);
}

type Window = { readonly dictionary: Buffer; write: number; readonly out: Buffer; length: number };

function expanded(bytes: Buffer, size: number): Buffer {
  const dictionary = Buffer.alloc(DICTIONARY);
  const window = { dictionary, write: dictionary.write(PRELOAD, "latin1"), out: Buffer.alloc(size), length: 0 };
  let at = 0;
  while (at < bytes.length && window.length < size) {
    const next = expandRun(window, bytes, at);
    if (next === null) break;
    at = next;
  }
  return window.out.subarray(0, Math.min(window.length, size));
}

// A run is a byte that says of the next eight whether they are bytes or references; null where the end is said.
function expandRun(window: Window, bytes: Buffer, at: number): number | null {
  const control = bytes[at] ?? 0;
  let next = at + 1;
  for (let bit = 0; bit < 8 && next < bytes.length; bit += 1) {
    if ((control & (1 << bit)) === 0) {
      put(window, bytes[next] ?? 0);
      next += 1;
      continue;
    }
    if (next + 1 >= bytes.length || !copyReference(window, bytes.readUInt16BE(next))) return null;
    next += 2;
  }
  return next;
}

// A reference to the place of writing is the end.
function copyReference(window: Window, reference: number): boolean {
  const from = reference >> 4;
  if (from === window.write) return false;
  const count = (reference & 0xf) + 2;
  for (let copied = 0; copied < count; copied += 1) put(window, window.dictionary[(from + copied) % DICTIONARY] ?? 0);
  return true;
}

function put(window: Window, byte: number): void {
  if (window.length < window.out.length) window.out[window.length] = byte;
  window.length += 1;
  window.dictionary[window.write] = byte;
  window.write = (window.write + 1) % DICTIONARY;
}
