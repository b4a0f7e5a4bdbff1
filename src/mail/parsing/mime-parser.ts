import PostalMime, { type Attachment, type Email } from "postal-mime";
import { unflowed } from "../../core/text/flowed-text";
import { decodeContent } from "./decode-content";
import { decodeText, readableHeaderLine } from "./decode-text";

// Deeper nesting and larger headers are no mail that a person sent.
const MAX_NESTING = 40;
const MAX_HEADER_BYTES = 1024 * 1024;
const MAX_PARTS = 2_000;
// 36 MB of base64 has fewer.
const MAX_LINES = 600_000;
// More than anybody is shown of a text.
const MAX_TEXT_BYTES = 8 * 1024 * 1024;
const PART_HEADER = Buffer.from("\nContent-Type:");
const LINE_END = Buffer.from("\n");

type Parameters = Readonly<Record<string, string | undefined>>;
type Part = {
  state: "header" | "body" | "finished";
  contentDecoder: unknown;
  content: Uint8Array | null;
  readonly childNodes: readonly Part[];
  readonly parentNode?: Part;
  readonly contentType: { multipart: string | false; readonly parsed: { value: string; readonly params: Parameters } };
  readonly contentTransferEncoding: { readonly encoding: string };
  getTextContent: () => string;
};
type Internals = {
  readonly currentNode: Part;
  readonly root: Part;
  readonly readPos: number;
  readonly attachments: Attachment[];
  readonly isInlineTextNode: (part: Part) => boolean;
  readonly textMap: Map<Part, { plain?: unknown; html?: unknown }>;
  processLine: (line: Uint8Array, isFinal: boolean) => Promise<void>;
  collectNode: (part: Part, alternative: Part | false, related: boolean) => Promise<void>;
  collectAttachment: (part: Part, ...more: unknown[]) => void;
};

/** A message in parts, and whether one of them should have had parts that are not there. */
export type ParsedMime = { readonly email: Email; readonly lacksParts: boolean };

/** From where to where the body of a part goes, in bytes of the message. */
type Span = { readonly start: number; end: number };

/**
 * Splits a message into its parts. Throws when it is nested deeper, has more parts, lines or header than the limits.
 *
 * The library takes a body apart into lines, which loses how they ended, and a charset by its label. It is told the lines of
 * headers and boundaries only: bodies are cut out of the message as they were sent, and decoded here (checked against version
 * 4.0.0, which is pinned).
 */
export async function parseMime(raw: Uint8Array): Promise<ParsedMime> {
  if (isMoreThan(MAX_PARTS, PART_HEADER, raw)) throw new Error(`it has more than ${MAX_PARTS} parts`);
  if (isMoreThan(MAX_LINES, LINE_END, raw)) throw new Error(`it has more than ${MAX_LINES} lines`);
  const parser = new PostalMime({
    maxNestingDepth: MAX_NESTING,
    maxHeadersSize: MAX_HEADER_BYTES,
    forceRfc822Attachments: true,
  });
  const internals = parser as unknown as Internals;
  const spans = cutBodies(internals, raw);
  const seen = { lacksParts: false };
  const collectNode = internals.collectNode.bind(parser);
  internals.collectNode = (part, alternative, related) => {
    if (part === internals.root) seen.lacksParts = giveContents(part, raw, spans);
    // Of alternatives the last is the best (RFC 2046 section 5.1.4); they would be joined.
    const isText = part.contentType.multipart === false && internals.isInlineTextNode(part);
    if (alternative !== false && part.parentNode === alternative && isText && part.content?.byteLength !== 0)
      delete internals.textMap.get(alternative)?.[part.contentType.parsed.value === "text/html" ? "html" : "plain"];
    return collectNode(part, alternative, related);
  };
  const collectAttachment = internals.collectAttachment.bind(parser);
  internals.collectAttachment = (part, ...more) => {
    collectAttachment(part, ...more);
    // Calendars would be written anew.
    const attachment = internals.attachments.at(-1);
    if (attachment !== undefined && part.content !== null) attachment.content = part.content;
  };
  const email = await parser.parse(uncopied(raw));
  return { email, lacksParts: seen.lacksParts };
}

function cutBodies(internals: Internals, raw: Uint8Array): ReadonlyMap<Part, Span> {
  const spans = new Map<Part, Span>();
  const original = internals.processLine.bind(internals);
  internals.processLine = async (line, isFinal) => {
    const part = internals.currentNode;
    const isHeader = part.state === "header";
    await original(isHeader ? readableHeaderLine(line) : line, isFinal);
    const span = spans.get(part);
    if (internals.currentNode !== part) {
      // The line end before a boundary belongs to the boundary (RFC 2046 section 5.1.1).
      if (span !== undefined) span.end = withoutLineEnd(raw, span.start, span.end);
      return;
    }
    if (isHeader && part.state !== "header") {
      part.contentDecoder = null;
      spans.set(part, { start: internals.readPos, end: internals.readPos });
    } else if (span !== undefined) span.end = internals.readPos;
  };
  return spans;
}

const [LF, CR] = [0x0a, 0x0d];

function withoutLineEnd(raw: Uint8Array, start: number, end: number): number {
  const withoutLf = end > start && raw[end - 1] === LF ? end - 1 : end;
  return withoutLf > start && raw[withoutLf - 1] === CR ? withoutLf - 1 : withoutLf;
}

// Gives each part what it has; true where one says that it has parts and none of them is found, so that it is read as text.
function giveContents(part: Part, raw: Uint8Array, spans: ReadonlyMap<Part, Span>): boolean {
  const span = spans.get(part) ?? { start: 0, end: 0 };
  const lacksParts = part.contentType.multipart !== false && part.childNodes.length === 0;
  if (lacksParts) {
    part.contentType.multipart = false;
    part.contentType.parsed.value = "text/plain";
  }
  if (part.contentType.multipart === false) {
    const content = decodeContent(raw.subarray(span.start, span.end), part.contentTransferEncoding.encoding);
    part.content = content;
    part.getTextContent = () => textOf(content.subarray(0, MAX_TEXT_BYTES), part.contentType.parsed.params);
  }
  const ofChildren = part.childNodes.map((child) => giveContents(child, raw, spans));
  return lacksParts || ofChildren.includes(true);
}

// The library copies what is a part of something larger.
function uncopied(raw: Uint8Array): Uint8Array | ArrayBuffer {
  const { buffer, byteLength } = raw;
  return buffer instanceof ArrayBuffer && buffer.byteLength === byteLength ? buffer : raw;
}

function textOf(content: Uint8Array, { charset = "", format, delsp }: Parameters): string {
  const text = decodeText(content, charset).replaceAll("\r\n", "\n");
  return format?.toLowerCase() === "flowed" ? unflowed(text, delsp?.toLowerCase() === "yes") : text;
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
