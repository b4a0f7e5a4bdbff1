// How mail programs mark what was there before: the words are theirs, gathered by language, as they stand in mail.

const alternatives = (words: readonly string[]) => words.join("|");

const WROTE = alternatives([
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
const OPENERS = new RegExp(
  `^(?:${alternatives([
    "on|am|le|el|il|op|den|em|no dia|na|w dniu|dnia|dne|dňa|v|vo|pada|på|dana|vào|la|în|pe|kl|sul|nel",
    "в|во|от|у|στις|ב-|في",
    "mon|tue|wed|thu|fri|sat|sun|mo|di|mi|do|fr|sa|so|lun|mar|mer|jeu|ven|sam|dim|пн|вт|ср|чт|пт|сб|вс",
    "quoting|at|in message|in article|zitat von",
  ])})[\\s.,]|^\\d{1,4}[./年-]|^\\d{1,2}\\.? \\p{L}|^.{0,80}<[^\\s<>]+@[^\\s<>]+>`,
  "iu",
);

/** What an attribution is like: `sure` when it says when or who by address, `likely` when only a quotation below makes it one. */
export type Attribution = { readonly lines: number; readonly sure: boolean };

/**
 * "On Tue, 24 Nov 2026 at 10:00, Name <address> wrote:", in many languages, wrapped or not, beginning at a line; null
 * where none begins.
 */
export function attributionAt(lines: readonly string[], at: number): Attribution | null {
  const first = (lines[at] ?? "").trim();
  if (first === "") return null;
  const most = OPENERS.test(first) ? MAX_ATTRIBUTION_LINES : 1;
  let joined = "";
  for (let count = 1; count <= most; count += 1) {
    const line = (lines[at + count - 1] ?? "").trim();
    if (line === "" || line.startsWith(">")) return null;
    joined = count === 1 ? line : `${joined} ${line}`;
    if (joined.length > MAX_ATTRIBUTION_CHARACTERS) return null;
    const attribution = judged(joined);
    if (attribution !== null) return { lines: count, sure: attribution === "sure" };
  }
  return null;
}

function judged(line: string): "sure" | "likely" | null {
  if (DATED_SENDER_BARE.test(line)) return "sure";
  if (!/[:：]$/.test(line)) return null;
  if (DATED_SENDER.test(line) || QUOTING.test(line)) return "sure";
  if (!WROTE_AT_END.test(line) && !WROTE_WITHOUT_SPACES.test(line)) return null;
  return SAYS_WHEN.test(line) || NAMES_ADDRESS.test(line) ? "sure" : "likely";
}

const DIVIDER_WORDS = alternatives([
  "original|forwarded|replied|reply separator",
  "urspr(?:ü|ue)ngliche|originalnachricht|weitergeleitete",
  "message d['’]origine|message original|message transféré|message réexpédié|transféré",
  "mensaje original|mensaje reenviado|reenviado|mensagem original|mensagem encaminhada|encaminhada",
  "messaggio originale|messaggio inoltrato|inoltrato",
  "oorspronkelijk|doorgestuurd",
  "originalmeddelande|ursprungligt|vidarebefordrat|oprindelig|opprinnelig|videresendt",
  "alkuperäinen|välitetty|oryginaln|przekazan|původní|přeposlan|pôvodná|eredeti|továbbított",
  "исходное|пересылаемое|пересланное|переадресованное|orijinal|iletilen",
  "原始邮件|原始郵件|转发邮件|轉寄|元のメッセージ|転送|원본|전달",
]);
const DIVIDER = new RegExp(
  `^[\\s*]*[-_=~]{2,}\\s*[^\\n]{0,30}(?:${DIVIDER_WORDS})[^\\n]{0,40}?\\s*[-_=~]{2,}[\\s*]*$`,
  "iu",
);
const DIVIDED_ATTRIBUTION = new RegExp(`^-{2,}\\s.{4,200}(?:${WROTE})\\s?-{2,}$`, "iu");
const FORWARD_BEGINS = new RegExp(
  `^\\s*(?:${alternatives([
    "begin forwarded message|anfang der weitergeleiteten (?:nachricht|e-mail)|début du message (?:réexpédié|transféré)",
    "inizio (?:del )?messaggio inoltrato|inicio del mensaje reenviado|início da mensagem (?:encaminhada|reencaminhada)",
    "begin doorgestuurd bericht|vidarebefordrat brev|videresendt (?:besked|melding)|välitetty viesti alkaa",
    "początek przekazywanej wiadomości|начало переадресованного сообщения",
  ])})\\s?[:：]\\s*$`,
  "iu",
);

/** A line that says that another message follows. */
export function isDivider(line: string): boolean {
  if (line.length > 300) return false;
  return DIVIDER.test(line) || FORWARD_BEGINS.test(line) || DIVIDED_ATTRIBUTION.test(line.trim());
}

const HEADER_NAMES = {
  from: "from|von|de|da|van|från|fra|od|feladó|lähettäjä|kimden|gönderen|expéditeur|от|от кого|від|发件人|發件人|寄件者|差出人|보낸 사람",
  date: "sent|date|gesendet|datum|envoyé|envoyé le|enviado|enviada|enviado el|fecha|data|inviato|verzonden|skickat|sendt|dato|wysłano|odesláno|elküldve|dátum|lähetetty|päivä|gönderildi|tarih|дата|отправлено|отправлен|发送时间|發送時間|日期|送信日時|日時|날짜|보낸 날짜",
  to: "to|an|à|a|para|aan|till|til|do|komu|címzett|vastaanottaja|kime|alıcı|кому|收件人|宛先|받는 사람",
  subject:
    "subject|betreff|objet|asunto|assunto|oggetto|onderwerp|ämne|emne|temat|předmět|tárgy|aihe|konu|тема|主题|主題|件名|제목",
  other: "cc|kopie|copie à|copia|kopia|копия|抄送|reply-to|antwort an|importance|wichtigkeit|organization|message-id",
};
const HEADER_PATTERNS = Object.entries(HEADER_NAMES).map(
  ([name, words]) =>
    [name, new RegExp(`^\\s{0,4}\\*{0,2}(?:${words})\\s?\\*{0,2}\\s?[:：]\\s?\\*{0,2}`, "iu")] as const,
);
const HEADER_WINDOW_LINES = 7;

function headerNameOf(line: string): string | null {
  if (line.length > 1_000) return null;
  return HEADER_PATTERNS.find(([, pattern]) => pattern.test(line))?.[0] ?? null;
}

/** Whether a block of header lines (From, Sent, To, Subject in some language) begins here, as replies and forwards copy them. */
export function startsHeaderBlock(lines: readonly string[], at: number): boolean {
  const first = headerNameOf(lines[at] ?? "");
  if (first === null || first === "other") return false;
  const names = new Set([first]);
  for (const line of lines.slice(at + 1, at + HEADER_WINDOW_LINES)) {
    const name = headerNameOf(line);
    if (name !== null) names.add(name);
  }
  const who = names.has("from") && (names.has("date") || names.has("to"));
  return names.size >= 3 && (who || (names.has("subject") && names.has("date")));
}
