import iconv from "iconv-lite";

// What Node's decoder lacks and the library has: the code pages of old systems, and UTF-7 (RFC 2152).
const OF_THE_LIBRARY =
  /^(?:cp|ibm)[-_]?(?:437|737|775|850|852|855|857|858|860|861|862|863|864|865|869|1125)$|^utf-?7$|^unicode-1-1-utf-7$/;
// Names that say nothing about which characters are meant by bytes above 127.
const SAYS_NOTHING =
  /^(?:|us-?ascii|ascii|ansi_x3\.4-19\d\d|iso646-us|unknown(?:-8bit)?|x-unknown|8bit|7bit|default|none)$/;
// Charsets of one byte a character, in which bytes that are valid UTF-8 are as good as never meant as they stand.
const SINGLE_BYTE =
  /^(?:iso[-_]?8859|iso-ir-|latin|l\d$|windows-125|cp125|x-cp125|macintosh|koi8|utf-?8|unicode-1-1-utf-8)/;
// Plain ASCII carries other characters in these.
const SEVEN_BIT = /^(?:iso-2022-|utf-?7$|unicode-1-1-utf-7$|hz-gb|csiso2022)/;
const HAS_HIGH_BYTE = /[\x80-\xff]/;

/**
 * Text from bytes that are labelled with a charset, rightly or not. Valid UTF-8 is UTF-8 where the label names no charset of
 * several bytes, whatever it says; a label that says nothing, or nothing known, is windows-1252 then (WHATWG Encoding
 * Standard), and so are single bytes that break a text of UTF-8.
 */
export function decodeText(bytes: Uint8Array, label: string): string {
  const charset = label.trim().toLowerCase().replace(/\*.*$/, "");
  const latin1 = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString("latin1");
  const isSevenBit = SEVEN_BIT.test(charset);
  if (!isSevenBit && !HAS_HIGH_BYTE.test(latin1) && !/^utf-?(?:16|32)/.test(charset)) return latin1;
  const decoder = decoderOf(charset);
  if (decoder === null || SINGLE_BYTE.test(charset)) {
    const asUtf8 = validUtf8(bytes);
    if (asUtf8 !== null) return asUtf8;
    if (decoder === null || /^(?:utf-?8|unicode-1-1-utf-8)$/.test(charset)) return mostlyUtf8(bytes);
  }
  return decoder(bytes);
}

function decoderOf(charset: string): ((bytes: Uint8Array) => string) | null {
  if (SAYS_NOTHING.test(charset)) return null;
  if (OF_THE_LIBRARY.test(charset)) return (bytes) => iconv.decode(Buffer.from(bytes), charset.replace(/^ibm/, "cp"));
  if (/^(?:iso-2022-kr|csiso2022kr)$/.test(charset)) return iso2022Kr;
  // Node 20 takes windows-1252 for ISO 8859-1.
  if (/^(?:windows-1252|cp1252|x-cp1252|iso[-_]?8859-?1|latin-?1|l1)$/.test(charset)) return windows1252;
  try {
    const decoder = new TextDecoder(charset);
    return (bytes) => decoder.decode(bytes);
  } catch {
    const name = charset.replace(/^(?:x-|cs)/, "");
    return iconv.encodingExists(name) ? (bytes) => iconv.decode(Buffer.from(bytes), name) : null;
  }
}

const [SHIFT_OUT, SHIFT_IN] = [0x0e, 0x0f];

// RFC 1557: between the two shifts stand the characters of EUC-KR with their high bits off.
function iso2022Kr(bytes: Uint8Array): string {
  let isShifted = false;
  const latin1 = Buffer.from(bytes).toString("latin1").replaceAll("\x1b$)C", "");
  const out = [...Buffer.from(latin1, "latin1")].flatMap((byte) => {
    if (byte !== SHIFT_OUT && byte !== SHIFT_IN) return [isShifted && byte > 0x20 ? byte | 0x80 : byte];
    isShifted = byte === SHIFT_OUT;
    return [];
  });
  return new TextDecoder("euc-kr").decode(Uint8Array.from(out));
}

const windows1252 = (bytes: Uint8Array) => iconv.decode(Buffer.from(bytes), "windows-1252");

function validUtf8(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(bytes);
  } catch {
    return null;
  }
}

// A sequence of UTF-8 of two to four bytes (RFC 3629), as latin1 shows it.
const SEQUENCE =
  /[\xc2-\xdf][\x80-\xbf]|\xe0[\xa0-\xbf][\x80-\xbf]|[\xe1-\xec\xee\xef][\x80-\xbf]{2}|\xed[\x80-\x9f][\x80-\xbf]|\xf0[\x90-\xbf][\x80-\xbf]{2}|[\xf1-\xf3][\x80-\xbf]{3}|\xf4[\x80-\x8f][\x80-\xbf]{2}|[\x80-\xff]/g;

// Where several kinds of text were put together, each byte is what it can be.
function mostlyUtf8(bytes: Uint8Array): string {
  const latin1 = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString("latin1");
  return latin1.replace(SEQUENCE, (found) => {
    const part = Buffer.from(found, "latin1");
    return found.length === 1 ? windows1252(part) : part.toString("utf8");
  });
}

const WORD = /=\?([^?\s]{1,60})\?([bq])\?([^?\s]*)\?=/gi;
const UNDERSTOOD =
  /^(?:utf-?8|iso-8859-\d+|windows-125\d|big5|gb2312|gbk|gb18030|euc-(?:jp|kr)|shift_jis|iso-2022-jp|koi8-[ru])$/i;

/** A line of a header as UTF-8: bytes above 127 as far as they can be read, encoded words (RFC 2047) of charsets that parsers do not know anew. */
export function readableHeaderLine(line: Uint8Array): Uint8Array {
  const text = decodeText(line, "");
  const anew = text.replace(WORD, (word, charset: string, kind: string, encoded: string) => {
    const label = charset.replace(/\*.*$/, "");
    if (UNDERSTOOD.test(label) || !(SAYS_NOTHING.test(label.toLowerCase()) || decoderOf(label.toLowerCase()) !== null))
      return word;
    const bytes = kind.toLowerCase() === "b" ? Buffer.from(encoded, "base64") : ofQ(encoded);
    return `=?utf-8?B?${Buffer.from(decodeText(bytes, label)).toString("base64")}?=`;
  });
  return Buffer.from(anew);
}

function ofQ(encoded: string): Buffer {
  const latin1 = encoded
    .replaceAll("_", " ")
    .replace(/=([0-9a-f]{2})/gi, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16)));
  return Buffer.from(latin1, "latin1");
}
