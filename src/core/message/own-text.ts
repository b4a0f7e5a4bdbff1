import { attributionAt, isDivider, startsHeaderBlock } from "./history-marks";
import { isSentFrom, isSignatureDelimiter, startsFooter } from "./signature-marks";

/** A message's text cut in two: what its author wrote now, and what was there before or is the same every time. */
export type DividedText = { readonly own: string; readonly rest: string };

const QUOTED = /^ {0,3}>|^[A-Z]{2,3}> /;
const RULE_OR_NOTHING = /^[\s\-_=*~]*$/;
const MAX_DIVIDED_LINES = 5_000;

/**
 * Divides the text of a message into the author's own new text and the rest: quoted history (`>` lines of RFC 3676 4.5,
 * attribution lines, header blocks, dividers), forwarded messages, the signature (RFC 3676 4.3) and footers. Own text
 * between quoted passages stays own text. Of a very long text the end is the rest, undivided.
 */
export function divideText(text: string): DividedText {
  const lines = text.replace(/\r\n?/g, "\n").split("\n");
  const own: string[] = [];
  const rest: string[] = [];
  const top = nextTextAt(lines, 0);
  let at = 0;
  // Below a line that a program added, nothing is own text until a quotation has passed.
  let belowSentFrom = false;
  while (at < lines.length && at < MAX_DIVIDED_LINES) {
    const block = blockAt(lines, at, top);
    if (block.kind === "end") break;
    const isOwn = block.kind === "own" && !belowSentFrom;
    belowSentFrom = block.kind === "sent-from" || (belowSentFrom && block.kind !== "quoted");
    (isOwn ? own : rest).push(...lines.slice(at, at + block.lines));
    at += block.lines;
  }
  // A rule right above the history belongs to it.
  const end = own.findLastIndex((line) => !RULE_OR_NOTHING.test(line)) + 1;
  return { own: tidy(own.slice(0, end)), rest: tidy([...own.slice(end), ...rest, ...lines.slice(at)]) };
}

type Block = { readonly kind: "own" | "quoted" | "sent-from" | "end"; readonly lines: number };

const END: Block = { kind: "end", lines: 0 };

// `top` is the first line with text.
function blockAt(lines: readonly string[], at: number, top: number): Block {
  const line = lines[at] ?? "";
  if (QUOTED.test(line)) return { kind: "quoted", lines: 1 };
  if (line.trim() === "") return { kind: "own", lines: 1 };
  if (isSignatureDelimiter(line) || isDivider(line) || startsFooter(lines, at)) return END;
  // At the very top such lines are the text itself: forms write like that.
  if (at !== top && startsHeaderBlock(lines, at)) return END;
  if (/^_{20,}\s*$/.test(line) && startsHeaderBlock(lines, nextTextAt(lines, at + 1))) return END;
  if (isSentFrom(line)) return { kind: "sent-from", lines: 1 };
  const attribution = attributionAt(lines, at);
  if (attribution === null) return { kind: "own", lines: 1 };
  if (QUOTED.test(nextText(lines, at + attribution.lines))) return { kind: "quoted", lines: attribution.lines };
  return attribution.sure ? END : { kind: "own", lines: 1 };
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

function nextText(lines: readonly string[], from: number): string {
  return lines[nextTextAt(lines, from)] ?? "";
}

function tidy(lines: readonly string[]): string {
  return lines
    .map((line) => line.trimEnd())
    .join("\n")
    .replace(/\n{3,}/g, "\n\n")
    .trim();
}
