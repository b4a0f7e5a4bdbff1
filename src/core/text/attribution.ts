// How mail programs name whom they quote: the words are theirs, gathered by language, as they stand in mail.

import { alternatives } from "./alternatives";

export const WROTE = alternatives([
  "wrote|writes|said",
  "schrieb|geschrieben",
  "a écrit|écrit|écrivait|écrivit",
  "escribió|escribio|escribiste|va escriure",
  "ha scritto|scrive|scrisse",
  "schreef|geschreven",
  "skrev|skrifaði|kirjoitti|rakstīja|kirjutas|rašė",
  "escreveu|a scris",
  "pisze|napisał\\(a\\)|napisała?|napsala?\\(?a?\\)?|napísala?|napisao|napisala|je napisal",
  "írta|ezt írta",
  "yazdı|yazmış|şunu yazdı|menulis|đã viết|διέγραψε|έγραψε",
  "пишет|писал\\(а\\)|писала?|написал\\(а\\)|написала?|пише|написа",
  "כתב|כתבה|كتب|เขียน",
  "님이 작성",
]);

// No \b: it knows Latin letters only.
const EDGE = "(?:^|[\\s,>)\"'\\]」])";
const WROTE_AT_END = new RegExp(`${EDGE}(?:${WROTE})(?:[\\s:：,][^\\n]{0,160})?[:：]\\s*$`, "iu");
const WROTE_WITHOUT_SPACES = /(?:写道|寫道|書きました|のメール|写了)[:：]\s*$/u;
const SAYS_WHEN = /\d{1,2}[:.h]\d{2}|\d{4}|\d{1,2}[./-]\d{1,2}[./-]|\d{1,2}\.? \p{L}{3,12}/u;
const CLOCK = /\d{1,2}[:.h]\d{2}/;
const NAMES_ADDRESS = /[<[(]?[^\s<>[\]()@]{1,64}@[^\s<>[\]()@]{1,255}[>\])]/u;
const QUOTING = /^(?:quoting|zitat von|citando|citation de|citeren)\s.{2,200}[:：]\s*$/iu;
// "24.11.2026, 10:14, Ines <a@b>:", "2026年11月24日(火) 10:14 Ines <a@b>:", "Tue, 24 Nov 2026 10:14 from Ines <a@b>:"
const DATED_SENDER = /^.{0,60}\d{1,4}[^\n]{2,120}<\s?[^\s<>]{1,254}@[^\s<>]{1,254}>\s?[:：]\s*$/u;
const DATED_SENDER_BARE =
  /^(?:\d{4}[-/年.]|\d{1,2}[./-]\d{1,2}[./-]\d{2,4})[^\n]{2,120}<\s?[^\s<>]{1,254}@[^\s<>]{1,254}>\s*$/u;

// Attribution lines wrap; over more lines or characters than these it is prose.
const MAX_ATTRIBUTION_LINES = 4;
const MAX_ATTRIBUTION_CHARACTERS = 500;

// A wrapped attribution begins with one of these, so that the line of own text above it is not taken for its start.
const OPENING_WORDS = alternatives([
  "on|am|le|el|il|op|den|em|no dia|na|w dniu|dnia|dne|dňa|v|vo|pada|på|dana|vào|la|în|pe|kl|sul|nel",
  "в|во|от|у|στις|ב-|في",
]);
const WEEKDAYS = alternatives([
  "mon(?:day)?|tue(?:s|sday)?|wed(?:nesday)?|thu(?:rs|rsday)?|fri(?:day)?|sat(?:urday)?|sun(?:day)?",
  "mo|di|mi|do|fr|sa|so|montag|dienstag|mittwoch|donnerstag|freitag|samstag|sonntag",
  "lun|mar|mer|jeu|ven|sam|dim|пн|вт|ср|чт|пт|сб|вс",
]);
const OPENERS = new RegExp(
  `^(?:${OPENING_WORDS}|${WEEKDAYS}|quoting|at|in message|in article|zitat von)[\\s.,]|^\\d{1,4}[./年-]|^\\d{1,2}\\.? \\p{L}|^.{0,80}<[^\\s<>]+@[^\\s<>]+>`,
  "iu",
);

/**
 * What an attribution is like: `sure` when it says when or who by address, `likely` when only a quotation below makes it
 * one. `before` is what stands before it on its first line: a reply that a program put on one line with it.
 */
export type Attribution = { readonly lines: number; readonly sure: boolean; readonly before: string };

/**
 * "On Tue, 24 Nov 2026 at 10:00, Name <address> wrote:", in many languages, wrapped or not, beginning at a line; null
 * where none begins.
 */
export function attributionAt(lines: readonly string[], at: number): Attribution | null {
  const first = (lines[at] ?? "").trim().slice(0, MAX_ATTRIBUTION_CHARACTERS * 4);
  if (first === "") return null;
  for (const start of startsIn(first)) {
    const found = attributionFrom(first.slice(start), lines, at);
    if (found !== null) return { ...found, before: first.slice(0, start).trim() };
  }
  return null;
}

function attributionFrom(first: string, lines: readonly string[], at: number): Omit<Attribution, "before"> | null {
  const most = OPENERS.test(first) ? MAX_ATTRIBUTION_LINES : 1;
  let joined = "";
  for (let count = 1; count <= most; count += 1) {
    const line = count === 1 ? first : (lines[at + count - 1] ?? "").trim();
    if (line === "" || line.startsWith(">")) return null;
    joined = count === 1 ? line : `${joined} ${line}`;
    // What it quotes may follow on its line.
    const attribution = judged(joined.replace(/([:：])\s+>.*$/u, "$1"));
    if (attribution !== null) return { lines: count, sure: attribution === "sure" };
    if (joined.length > MAX_ATTRIBUTION_CHARACTERS) return null;
  }
  return null;
}

// "Yes, gladly. On Tue, 24 Nov 2026 …": an opener with a date behind words of one's own.
const OPENER_WITH_DATE = new RegExp(`^(?:${OPENING_WORDS}|${WEEKDAYS}|\\d)[^<>\\n]{0,40}?\\d`, "iu");
const OPENER_WITHIN = new RegExp(
  `\\s(?=(?:${OPENING_WORDS})\\s(?:(?:${WEEKDAYS})[.,\\s]|\\d{1,4}[\\s.,/年-]|\\p{L}{3,12}\\.? \\d))`,
  "giu",
);
const SENTENCE_ENDS = /[.!?…:)][)"'»”’]?\s+(?=["'«“]?[\p{Lu}\p{Lo}])/gu;
const TITLE_OR_INITIAL = /(?:^|\s)(?:\p{L}|dr|prof|mrs?|ms|st|ing|dipl|hr|fr|rev|sr|jr|mme|mlle|sig|mgr)\.\s+$/iu;
const NAME_WITH_ADDRESS = /^["'«“]?(?:[\p{L}'’.-]+,?\s+){1,5}["'»”]?\s?[<[(][^\s<>]+@[^\s<>]+[>\])]/u;
const MAX_STARTS = 8;

// Where an attribution may begin in a line: at its start, or after words of one's own.
function startsIn(line: string): readonly number[] {
  if (!/[@\d]/.test(line)) return [0];
  const withDates = [...line.matchAll(OPENER_WITHIN)].slice(-MAX_STARTS).map((match) => match.index + match[0].length);
  const afterSentence = withDates.filter((start) => /[.!?…:)\]–-][)"'»”’]?\s+$/u.test(line.slice(0, start)));
  if (OPENER_WITH_DATE.test(line)) return [...afterSentence.toReversed(), 0];
  const names = [...line.matchAll(SENTENCE_ENDS)]
    .slice(-MAX_STARTS)
    .map((match) => match.index + match[0].length)
    .filter((start) => !TITLE_OR_INITIAL.test(line.slice(0, start)) && NAME_WITH_ADDRESS.test(line.slice(start)));
  return [...afterSentence.toReversed(), ...withDates.toReversed(), ...names, 0];
}

function judged(line: string): "sure" | "likely" | null {
  if (DATED_SENDER_BARE.test(line)) return "sure";
  if (!/[:：]$/.test(line)) return null;
  if (DATED_SENDER.test(line) || QUOTING.test(line)) return "sure";
  if (WROTE_WITHOUT_SPACES.test(line)) return SAYS_WHEN.test(line) || NAMES_ADDRESS.test(line) ? "sure" : "likely";
  if (!WROTE_AT_END.test(line)) return null;
  // "As she wrote on 3 May:" is a sentence; who is named by address, or a date that opens the line, is none.
  return NAMES_ADDRESS.test(line) || OPENER_WITH_DATE.test(line) || CLOCK.test(line) ? "sure" : "likely";
}
