import { headerBlockAt } from "../message/header-block";
import { attributionAt } from "./attribution";
import { endsHistory, isDivider } from "./history-marks";
import { isPostscript, isSentFrom, startsFooter, startsSignature } from "./signature-marks";

/** A message's text cut in two: what its author wrote now, and what was there before or is the same every time. */
export type DividedText = { readonly own: string; readonly rest: string };

const QUOTED = /^ {0,3}>|^[A-Z]{2,3}> /;
// Mailboxes in mbox format write so what begins a line with "From " (RFC 4155).
const ESCAPED_FROM = /^>From [^:@]*$/;
const RULE_OR_NOTHING = /^[\s\-_=*~]*$/;
const MAX_DIVIDED_LINES = 5_000;

/**
 * Divides the text of a message into the author's own new text and the rest: quoted history (`>` lines of RFC 3676 4.5,
 * attribution lines, header blocks, dividers), forwarded messages, the signature (RFC 3676 4.3) and footers. Own text
 * between quoted passages and below a signature's quotation stays own text, and so does whatever is in doubt. Of a very long
 * text the end is the rest, undivided. `isForward` says that its subject marks it as one, so that header lines at the very top
 * are those of another message and not what a form wrote.
 */
export function divideText(text: string, isForward = false): DividedText {
  const lines = text.replace(/\r\n?/g, "\n").split("\n");
  const divided: Divided = { own: [], rest: [], inSignature: false };
  const top = nextTextAt(lines, 0);
  let at = 0;
  while (at < lines.length && at < MAX_DIVIDED_LINES) {
    const block = blockAt(lines, at, { isTop: at === top, isForward });
    put(divided, block, lines.slice(at, at + block.lines));
    at += block.lines;
    if (!isHistoryFrom(block, lines, at, divided.own)) continue;
    const resumed = lines.findIndex((line, index) => index >= at && endsHistory(line));
    if (resumed === -1) break;
    divided.rest.push(...lines.slice(at, resumed + 1));
    at = resumed + 1;
  }
  // A rule right above the history belongs to it.
  const { own, rest } = divided;
  const end = own.findLastIndex((line) => !RULE_OR_NOTHING.test(line)) + 1;
  return { own: tidy(own.slice(0, end)), rest: tidy([...own.slice(end), ...rest, ...lines.slice(at)]) };
}

// In a signature nothing is own text until a quotation has passed or a postscript begins.
type Divided = { readonly own: string[]; readonly rest: string[]; inSignature: boolean };

function put(divided: Divided, block: Block, lines: readonly string[]): void {
  const [first = ""] = lines;
  if (block.kind === "own" && isPostscript(first)) divided.inSignature = false;
  const ownLines = divided.inSignature ? divided.rest : divided.own;
  if (block.kind === "own") ownLines.push(...lines);
  else if (block.kind === "attribution") {
    if (block.before !== "") ownLines.push(block.before);
    divided.rest.push(first.trim().slice(block.before.length), ...lines.slice(1));
  } else divided.rest.push(...lines);
  if (block.kind !== "own") divided.inSignature = block.kind === "signature";
}

type Block =
  | { readonly kind: "own" | "quoted" | "signature" | "history"; readonly lines: number }
  | { readonly kind: "attribution"; readonly lines: number; readonly before: string; readonly sure: boolean };

type Place = { readonly isTop: boolean; readonly isForward: boolean };

function blockAt(lines: readonly string[], at: number, place: Place): Block {
  const line = lines[at] ?? "";
  if (QUOTED.test(line)) return { kind: isEscapedFrom(lines, at) ? "own" : "quoted", lines: 1 };
  if (line.trim() === "") return { kind: "own", lines: 1 };
  if (endsHistory(line)) return { kind: "quoted", lines: 1 };
  if (startsSignature(lines, at)) return { kind: "signature", lines: 1 };
  if (startsFooter(lines, at)) return { kind: "quoted", lines: lines.length - at };
  const history = isDivider(line) ? dividerAt(lines, at) : copiedHeaderAt(lines, at, place);
  if (history !== null) return { kind: "history", lines: history };
  if (isSentFrom(line) && endsText(lines, at + 1)) return { kind: "quoted", lines: 1 };
  return attributedAt(lines, at) ?? { kind: "own", lines: 1 };
}

// Without a date or an address only a quotation below makes it one.
function attributedAt(lines: readonly string[], at: number): Block | null {
  const found = attributionAt(lines, at);
  if (found === null || !(found.sure || isQuotedAt(lines, at + found.lines))) return null;
  return { kind: "attribution", ...found };
}

// A divider with the header lines below it.
function dividerAt(lines: readonly string[], at: number): number {
  const below = nextTextAt(lines, at + 1);
  const header = headerBlockAt(lines, below);
  return header === null ? 1 : below - at + header.lines;
}

// At the very top such lines are the text itself, as forms write it, unless it is known for a forward or copied in full.
function copiedHeaderAt(lines: readonly string[], at: number, { isTop, isForward }: Place): number | null {
  const rule = /^_{20,}\s*$/.test(lines[at] ?? "") ? nextTextAt(lines, at + 1) - at : 0;
  const block = headerBlockAt(lines, at + rule);
  if (block === null || (isTop && rule === 0 && !isForward && block.names < 4)) return null;
  return rule + block.lines;
}

// Whether what follows a block is history without marks.
function isHistoryFrom(block: Block, lines: readonly string[], next: number, own: readonly string[]): boolean {
  if (isQuotedAt(lines, next)) return false;
  if (block.kind === "history") return true;
  // With nothing above an attribution and no marks below it, what follows may be the answer as well.
  return block.kind === "attribution" && block.sure && own.some((line) => line.trim() !== "");
}

// Whether the text is at its end here: nothing follows, or what is not its author's.
function endsText(lines: readonly string[], from: number): boolean {
  const next = nextTextAt(lines, from);
  return (
    next >= lines.length ||
    isSentFrom(lines[next] ?? "") ||
    blockAt(lines, next, { isTop: false, isForward: false }).kind !== "own"
  );
}

function isEscapedFrom(lines: readonly string[], at: number): boolean {
  const isMarked = (line: string | undefined) => line?.startsWith(">") === true;
  return ESCAPED_FROM.test(lines[at] ?? "") && !isMarked(lines[at - 1]) && !isMarked(lines[at + 1]);
}

const isQuotedAt = (lines: readonly string[], from: number) => QUOTED.test(lines[nextTextAt(lines, from)] ?? "");

/** The first words to show of a message in a list: its own, or those of what it passes on. */
export function wordsToShow({ own, rest }: DividedText): string {
  if (own !== "") return firstWords(own);
  const lines = rest.split("\n");
  const at = nextTextAt(lines, isDivider(lines[0] ?? "") ? 1 : 0);
  const passedOn = lines.slice(at + (headerBlockAt(lines, at)?.lines ?? 0)).join("\n");
  return firstWords(passedOn.trim() === "" ? rest : passedOn);
}

/** The start of the own text on one line, for lists; at most `limit` characters, cut at a word. */
export function firstWords(ownText: string, limit = 160): string {
  const line = ownText
    .slice(0, limit * 20)
    .replace(/\s+/g, " ")
    .trim();
  if (line.length <= limit) return line;
  const cut = line.slice(0, limit);
  return `${cut.slice(0, Math.max(cut.lastIndexOf(" "), limit - 20))}…`;
}

function nextTextAt(lines: readonly string[], from: number): number {
  let at = from;
  while (at < lines.length && (lines[at] ?? "").trim() === "") at += 1;
  return at;
}

function tidy(lines: readonly string[]): string {
  return lines
    .map((line) => line.trimEnd())
    .join("\n")
    .replace(/\n{3,}/g, "\n\n")
    .trim();
}
