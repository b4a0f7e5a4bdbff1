const alternatives = (words: readonly string[]) => words.join("|");

// RFC 3676 4.3: "-- "; programs and people lose its space, or write another dash.
const DELIMITER = /^(?:-- ?|—|––|_{2,3}|\*{2,3}|~{2,3})$/;

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

/** The line that RFC 3676 4.3 puts before a signature, or one that stands for it. */
export function isSignatureDelimiter(line: string): boolean {
  return DELIMITER.test(line.trimStart()) && line.length <= 6;
}

/** "Sent from my telephone" and its like: a line that a program adds below the text. */
export function isSentFrom(line: string): boolean {
  const text = line.trim().replace(/^[<[(*_]+|[>\])*_.]+$/g, "");
  return text.length <= MAX_SENT_FROM_CHARACTERS && SENT_FROM.test(text);
}

// List and provider footers come below a rule as wide as the page.
const FOOTER_RULE = /^(?:_{20,}|-{40,}|={40,}|\*{40,}|~{20,}|(?:--~){2,}.*|- - - - - -.*)$/;
const MAX_FOOTER_LINES = 25;

/** Whether the footer of a list or a provider begins here: a rule with nothing but some unquoted lines below it. */
export function startsFooter(lines: readonly string[], at: number): boolean {
  if (!FOOTER_RULE.test((lines[at] ?? "").trim())) return false;
  let below = 0;
  for (let next = at + 1; next < lines.length; next += 1) {
    const line = lines[next] ?? "";
    if (line.trim() !== "") below += 1;
    if (below > MAX_FOOTER_LINES || line.startsWith(">")) return false;
  }
  return true;
}
