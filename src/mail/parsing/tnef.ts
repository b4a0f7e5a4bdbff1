import { uncompressRtf } from "./compressed-rtf";
import { decodeText } from "./decode-text";
import { textOfRtf } from "./rtf-text";

// Transport Neutral Encapsulation Format, as [MS-OXTNEF] and, for properties, [MS-OXCDATA] define it.
const SIGNATURE = 0x223e9f78;
const MAX_ATTRIBUTES = 20_000;
const MAX_PROPERTIES = 5_000;
const MAX_VALUES = 10_000;
const MAX_FILES = 500;
const MAX_DEPTH = 3;

const ATTRIBUTE = {
  body: 0x0002800c,
  codepage: 0x00069007,
  properties: 0x00069003,
  attachmentBegins: 0x00069002,
  attachmentTitle: 0x00018010,
  attachmentData: 0x0006800f,
  attachmentProperties: 0x00069005,
} as const;

const PROPERTY = {
  body: 0x1000,
  rtf: 0x1009,
  html: 0x1013,
  data: 0x3701,
  shortName: 0x3704,
  longName: 0x3707,
  mimeType: 0x370e,
  contentId: 0x3712,
  codepage: 0x3fde,
} as const;

const TYPE = { text: 0x1e, unicode: 0x1f, object: 0x0d, binary: 0x102, many: 0x1000 } as const;
const FIXED_SIZES: Readonly<Record<number, number>> = {
  1: 0,
  2: 4,
  3: 4,
  4: 4,
  5: 8,
  6: 8,
  7: 8,
  10: 4,
  11: 4,
  20: 8,
  64: 8,
  72: 16,
};
const MESSAGE_OBJECT = Buffer.from("0703020000000000c000000000000046", "hex");

/** A file within the container; its bytes are as they were put in. */
type TnefFile = {
  readonly name: string;
  readonly mimeType: string | null;
  readonly contentId: string | null;
  readonly content: Uint8Array;
};

/** What the container holds; `isWhole` is false where it ended in the middle or was damaged. */
export type OpenedTnef = {
  readonly text: string | null;
  readonly html: string | null;
  readonly files: readonly TnefFile[];
  readonly isWhole: boolean;
};

/** Opens a container; null when it is none. It never throws: of a damaged one comes what stands before the damage. */
export function openTnef(bytes: Uint8Array): OpenedTnef | null {
  return opened(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), 0);
}

type Draft = {
  text: string | null;
  html: string | null;
  charset: string;
  readonly files: TnefFile[];
  name: string;
  data: Uint8Array | null;
  properties: Properties;
  isWhole: boolean;
};

function opened(bytes: Buffer, depth: number): OpenedTnef | null {
  if (bytes.length < 6 || bytes.readUInt32LE(0) !== SIGNATURE) return null;
  const draft: Draft = {
    text: null,
    html: null,
    charset: "windows-1252",
    files: [],
    name: "",
    data: null,
    properties: new Map(),
    isWhole: true,
  };
  try {
    for (const [id, content] of attributesOf(bytes)) take(draft, id, content, depth);
  } catch {
    draft.isWhole = false;
  }
  closeFile(draft, depth);
  const { text, html, files, isWhole } = draft;
  return { text, html, files, isWhole };
}

// Section 2.1.3: level, id, length, data, checksum.
function* attributesOf(bytes: Buffer): Generator<readonly [number, Buffer]> {
  let at = 6;
  for (let count = 0; at < bytes.length; count += 1) {
    if (count > MAX_ATTRIBUTES) throw new RangeError("more attributes than the limit");
    const length = bytes.readUInt32LE(at + 5);
    const start = at + 9;
    if (start + length + 2 > bytes.length) throw new RangeError("it ends in the middle of an attribute");
    yield [bytes.readUInt32LE(at + 1), bytes.subarray(start, start + length)];
    at = start + length + 2;
  }
}

function take(draft: Draft, id: number, content: Buffer, depth: number): void {
  switch (id) {
    case ATTRIBUTE.codepage:
      draft.charset = charsetOf(content.readUInt32LE(0)) ?? draft.charset;
      return;
    case ATTRIBUTE.body:
      draft.text ??= decodeText(withoutNul(content), draft.charset);
      return;
    case ATTRIBUTE.properties:
      takeBody(draft, propertiesOf(content));
      return;
    case ATTRIBUTE.attachmentBegins:
      closeFile(draft, depth);
      return;
    case ATTRIBUTE.attachmentTitle:
      draft.name = decodeText(withoutNul(content), draft.charset);
      return;
    case ATTRIBUTE.attachmentData:
      draft.data = content;
      return;
    case ATTRIBUTE.attachmentProperties:
      draft.properties = propertiesOf(content);
  }
}

function takeBody(draft: Draft, properties: Properties): void {
  const codepage = properties.get(PROPERTY.codepage)?.content.readUInt32LE(0);
  if (codepage !== undefined) draft.charset = charsetOf(codepage) ?? draft.charset;
  draft.text = textOf(properties.get(PROPERTY.body), draft.charset) ?? draft.text;
  const html = properties.get(PROPERTY.html);
  if (html !== undefined) draft.html = textOf(html, draft.charset) ?? decodeText(html.content, draft.charset);
  const rtf = properties.get(PROPERTY.rtf);
  if (rtf === undefined || (draft.text !== null && draft.html !== null)) return;
  const read = textOfRtf(uncompressRtf(rtf.content));
  if (read.isHtml) draft.html ??= read.text;
  else draft.text ??= read.text;
}

function closeFile(draft: Draft, depth: number): void {
  const { properties, charset } = draft;
  const said = (id: number) => textOf(properties.get(id), charset);
  const object = properties.get(PROPERTY.data);
  const name = said(PROPERTY.longName) ?? (draft.name || (said(PROPERTY.shortName) ?? ""));
  // A message within: its own files are what one looks for.
  const inner = object === undefined ? null : openedObject(object, depth);
  if (inner !== null) {
    draft.files.push(...inner.files.slice(0, MAX_FILES - draft.files.length));
    if (inner.text !== null)
      draft.files.push({
        name: `${name || "message"}.txt`,
        mimeType: "text/plain",
        contentId: null,
        content: Buffer.from(inner.text),
      });
    draft.isWhole &&= inner.isWhole;
  } else {
    const content = draft.data ?? object?.content ?? null;
    if (content !== null && content.byteLength > 0 && draft.files.length < MAX_FILES)
      draft.files.push({
        name,
        mimeType: said(PROPERTY.mimeType)?.toLowerCase() ?? null,
        contentId: said(PROPERTY.contentId)?.replace(/^<|>$/g, "") ?? null,
        content,
      });
  }
  draft.name = "";
  draft.data = null;
  draft.properties = new Map();
}

function openedObject({ type, content }: Property, depth: number): OpenedTnef | null {
  if (type !== TYPE.object || depth >= MAX_DEPTH || !content.subarray(0, 16).equals(MESSAGE_OBJECT)) return null;
  return opened(content.subarray(16), depth + 1);
}

type Property = { readonly type: number; readonly content: Buffer };
type Properties = ReadonlyMap<number, Property>;

// Section 2.1.3.4, MsgPropertyList; of several values the first is kept.
function propertiesOf(bytes: Buffer): Properties {
  const found = new Map<number, Property>();
  const count = Math.min(bytes.readUInt32LE(0), MAX_PROPERTIES);
  let at = 4;
  for (let index = 0; index < count && at < bytes.length; index += 1) {
    const type = bytes.readUInt16LE(at);
    const id = bytes.readUInt16LE(at + 2);
    const { content, next } = valuesAt(bytes, id >= 0x8000 ? afterName(bytes, at + 4) : at + 4, type);
    if (content !== null && !found.has(id)) found.set(id, { type: type & ~TYPE.many, content });
    at = next;
  }
  return found;
}

// The first of the values that begin here, and where the next property begins.
function valuesAt(
  bytes: Buffer,
  from: number,
  type: number,
): { readonly content: Buffer | null; readonly next: number } {
  const size = FIXED_SIZES[type & ~TYPE.many];
  const isCounted = size === undefined || (type & TYPE.many) !== 0;
  const values = isCounted ? bytes.readUInt32LE(from) : 1;
  if (values > MAX_VALUES) throw new RangeError("more values than the limit");
  let at = isCounted ? from + 4 : from;
  let content: Buffer | null = null;
  for (let value = 0; value < values; value += 1) {
    const length = size ?? bytes.readUInt32LE(at);
    const start = size === undefined ? at + 4 : at;
    if (start + length > bytes.length || at >= bytes.length)
      throw new RangeError("it ends in the middle of a property");
    content ??= bytes.subarray(start, start + length);
    at = start + padded(length);
  }
  return { content, next: at };
}

// A GUID, then a number or a name.
function afterName(bytes: Buffer, at: number): number {
  const kind = bytes.readUInt32LE(at + 16);
  return kind === 0 ? at + 24 : at + 24 + padded(bytes.readUInt32LE(at + 20));
}

const padded = (length: number) => length + ((4 - (length % 4)) % 4);

function textOf(property: Property | undefined, charset: string): string | null {
  if (property === undefined) return null;
  if (property.type === TYPE.unicode) return property.content.toString("utf16le").replace(/\0+$/, "");
  return property.type === TYPE.text ? decodeText(withoutNul(property.content), charset) : null;
}

function withoutNul(content: Buffer): Buffer {
  const end = content.indexOf(0);
  return end === -1 ? content : content.subarray(0, end);
}

function charsetOf(codepage: number): string | null {
  if (codepage === 65001) return "utf-8";
  if (codepage === 20127) return "us-ascii";
  if (codepage >= 28591 && codepage <= 28605) return `iso-8859-${codepage - 28590}`;
  const others: Readonly<Record<number, string>> = {
    932: "shift_jis",
    936: "gbk",
    949: "euc-kr",
    950: "big5",
    20866: "koi8-r",
  };
  return others[codepage] ?? (codepage >= 1250 && codepage <= 1258 ? `windows-${codepage}` : null);
}
