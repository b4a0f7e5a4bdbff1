/** A message's text cut in two: what its author wrote now, and what was there before or is the same every time. */
export type DividedText = { readonly own: string; readonly rest: string };

// Attribution lines wrap; over more lines or characters than these it is prose.
const MAX_ATTRIBUTION_LINES = 3;
const MAX_ATTRIBUTION_CHARACTERS = 500;

/**
 * Divides the text of a message into the author's own new text and the rest: quoted history (`>` lines, attribution
 * lines, header blocks, dividers) and the signature (RFC 3676 4.3). Own text between quoted passages stays own text.
 */
export function divideText(text: string): DividedText {
  const lines = text.replace(/\r\n?/g, "\n").split("\n");
  const own: string[] = [];
  const rest: string[] = [];
  let at = 0;
  while (at < lines.length) {
    const line = lines[at] ?? "";
    const afterAttribution = attributionEnd(lines, at);
    const quoteFollows = afterAttribution !== null && nextText(lines, afterAttribution).startsWith(">");
    if (isSignature(line) || startsHistory(lines, at) || (afterAttribution !== null && !quoteFollows)) break;
    const end = afterAttribution ?? at + 1;
    (quoteFollows || line.startsWith(">") ? rest : own).push(...lines.slice(at, end));
    at = end;
  }
  return { own: tidy(own), rest: tidy([...rest, ...lines.slice(at)]) };
}

/** The start of the own text on one line, for lists; at most `limit` characters, cut at a word. */
export function firstWords(ownText: string, limit = 160): string {
  const line = ownText.replace(/\s+/g, " ").trim();
  if (line.length <= limit) return line;
  const cut = line.slice(0, limit);
  return `${cut.slice(0, Math.max(cut.lastIndexOf(" "), limit - 20))}…`;
}

function isSignature(line: string): boolean {
  return line === "-- " || line === "--";
}

const DIVIDERS = [
  /^\s*-{2,}\s*(original message|forwarded message|ursprüngliche nachricht|message d'origine|mensaje original)\s*-{2,}\s*$/i,
  /^_{20,}\s*$/,
];
const HEADER_LINE = /^\*?(from|von|de|sent|gesendet|envoyé|date|datum|to|an|à|subject|betreff|objet|cc)\s*:\*?\s/i;

// A divider, or a block of three header lines as replies quote them, begins the history; at the very top it is the text itself.
function startsHistory(lines: readonly string[], at: number): boolean {
  const line = lines[at] ?? "";
  if (at === 0) return false;
  if (DIVIDERS.some((divider) => divider.test(line))) return true;
  return HEADER_LINE.test(line) && lines.slice(at, at + 5).filter((one) => HEADER_LINE.test(one)).length >= 3;
}

const ATTRIBUTION_OPENS = /^(on|am|le|el|op)\s/i;
const ATTRIBUTION = /^\S+\s.{4,400}\s(wrote|schrieb|écrit|escribió|schreef)(\s.{0,120})?\s?:$/i;

// "On Tue, 24 Nov 2026 at 10:00, Name <address> wrote:", wrapped or not; null where none begins, else the line after it.
function attributionEnd(lines: readonly string[], at: number): number | null {
  if (!ATTRIBUTION_OPENS.test(lines[at] ?? "")) return null;
  for (let count = 1; count <= MAX_ATTRIBUTION_LINES; count += 1) {
    const joined = lines
      .slice(at, at + count)
      .join(" ")
      .trim();
    if (joined.length <= MAX_ATTRIBUTION_CHARACTERS && ATTRIBUTION.test(joined)) return at + count;
  }
  return null;
}

function nextText(lines: readonly string[], from: number): string {
  for (let at = from; at < lines.length; at += 1) if ((lines[at] ?? "").trim() !== "") return lines[at] ?? "";
  return "";
}

function tidy(lines: readonly string[]): string {
  return lines
    .join("\n")
    .replace(/[ \t]+$/gm, "")
    .replace(/\n{3,}/g, "\n\n")
    .trim();
}
