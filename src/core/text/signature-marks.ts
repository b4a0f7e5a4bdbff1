import { alternatives } from "./alternatives";

// RFC 3676 4.3.
const DELIMITER = /^-- $/;
// Programs and people lose its space, or write another dash.
const LIKE_DELIMITER = /^\s*(?:--|—|––|_{2,3}|\*{2,3}|~{2,3})\s*$/;
const MAX_SIGNATURE_LINES = 15;
const MAX_SIGNATURE_WORDS = 7;

const SENT_FROM = new RegExp(
  `^(?:${alternatives([
    "(?:sent|written|typed) (?:from|with|via|using|by|through|on) (?:my|the|a|an|\\p{Lu})",
    "(?:gesendet|verfasst|geschrieben) (?:mit|von|über|aus)",
    "von meinem? .{2,40} gesendet",
    "diese nachricht wurde .{2,40} gesendet",
    "envoyé (?:de|depuis|à partir|avec|par) ",
    "enviado (?:desde|a partir|do|da|de|con|com) ",
    "inviato (?:da|dal|con) ",
    "(?:verzonden|verstuurd) (?:vanaf|van|met|via) ",
    "(?:skickat|skickades) från ",
    "sendt (?:fra|med) ",
    "wysłan[eo] z ",
    "odeslán?o z ",
    "lähetetty ",
    "отправлено (?:с|из|от) ",
    "发自我的|發自我的|从我的.{1,20}发送|.{1,20}から送信|나의 .{1,20}에서 보냄",
    "(?:get|download|obtenir|holen sie sich|obtén|scarica|download) .{2,30} (?:for|pour|für|para|per|voor) (?:ios|android)",
  ])}).{0,60}$`,
  "iu",
);
const MAX_SENT_FROM_CHARACTERS = 90;

/**
 * Whether a signature begins here: behind the line that RFC 3676 4.3 puts before it, or behind one that stands for it if
 * what follows reads like a signature. People put such lines between the parts of a letter as well.
 */
export function startsSignature(lines: readonly string[], at: number): boolean {
  const line = lines[at] ?? "";
  if (DELIMITER.test(line)) return true;
  if (!LIKE_DELIMITER.test(line)) return false;
  const below = following(lines, at + 1, MAX_SIGNATURE_LINES + 1);
  if (below.length > MAX_SIGNATURE_LINES) return false;
  // Below a double dash notices of law may follow, below anything else only names and numbers.
  return line.trim() === "--" ? !isSentence(below[0] ?? "") : below.length > 0 && !below.some(isSentence);
}

function isSentence(line: string): boolean {
  const words = line.split(/\s+/).filter((word) => /\p{L}{2}/u.test(word)).length;
  return words > MAX_SIGNATURE_WORDS || (words > 2 && /[?!.]$/.test(line.trim()));
}

// The lines with text from here to a quotation or the end.
function following(lines: readonly string[], from: number, most: number): string[] {
  const found: string[] = [];
  for (let at = from; at < lines.length && found.length < most; at += 1) {
    const line = lines[at] ?? "";
    if (line.startsWith(">")) break;
    if (line.trim() !== "") found.push(line);
  }
  return found;
}

const POSTSCRIPT = /^\s*(?:P\.? ?(?:P\.? ?)?S\b[.:]?|N\.? ?B\b[.:])\s*\S/u;

/** "P.S." below a signature: its author goes on. */
export function isPostscript(line: string): boolean {
  return POSTSCRIPT.test(line);
}

/** "Sent from my telephone" and its like: a line that a program adds below the text. */
export function isSentFrom(line: string): boolean {
  const text = line.trim().replace(/^[<[(*_]+|[>\])*_.]+$/g, "");
  return text.length <= MAX_SENT_FROM_CHARACTERS && SENT_FROM.test(text);
}

// List and provider footers come below a rule as wide as the page.
const FOOTER_RULE = /^(?:_{20,}|-{40,}|={40,}|\*{40,}|~{20,}|(?:--~){2,}.*|- - - - - -.*)$/;
const MAX_FOOTER_LINES = 25;
// People draw such rules too: a footer speaks of its list, or of the law.
const FOOTER_WORDS =
  /unsubscri|subscrib|mailing.?list|list(?:info|serv)|mailman|https?:\/\/|\bwww\.|confidential|disclaim|intended (?:for|recipient|only)|privileged|virus|vertraulich|abmelden|abbestellen|austragen|désabonn|désinscri|confidentiel|cancelar|baja de la lista|disiscriver|afmelden|avregistrer|wypis|отпис/iu;

/** Whether the footer of a list or a provider begins here: a rule with nothing but some lines of the kind below it. */
export function startsFooter(lines: readonly string[], at: number): boolean {
  if (!FOOTER_RULE.test((lines[at] ?? "").trim())) return false;
  let below = 0;
  let speaksOfIt = false;
  for (let next = at + 1; next < lines.length; next += 1) {
    const line = lines[next] ?? "";
    if (line.trim() !== "") below += 1;
    if (below > MAX_FOOTER_LINES || line.startsWith(">")) return false;
    speaksOfIt ||= FOOTER_WORDS.test(line);
  }
  return below === 0 || speaksOfIt;
}
