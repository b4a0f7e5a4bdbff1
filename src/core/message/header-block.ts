// The header lines that replies and forwards copy above what they quote, in the words of the programs that write them.

const HEADER_NAMES = {
  from: "from|von|de|da|van|från|fra|od|feladó|lähettäjä|kimden|gönderen|expéditeur|от|от кого|від|发件人|發件人|寄件者|差出人|보낸 사람",
  date: "sent|date|gesendet|datum|envoyé|envoyé le|enviado|enviada|enviado el|fecha|data|inviato|verzonden|skickat|sendt|dato|wysłano|odesláno|elküldve|dátum|lähetetty|päivä|gönderildi|tarih|дата|отправлено|отправлен|发送时间|發送時間|日期|送信日時|日時|날짜|보낸 날짜",
  to: "to|an|à|a|para|aan|till|til|do|komu|címzett|vastaanottaja|kime|alıcı|кому|收件人|宛先|받는 사람",
  subject:
    "subject|betreff|objet|asunto|assunto|oggetto|onderwerp|ämne|emne|temat|předmět|tárgy|aihe|konu|тема|主题|主題|件名|제목",
  other:
    "cc|bcc|kopi|attachments?|anlagen?|anhänge|pièces? jointes?|adjuntos?|allegati|bijlagen?|resent-from|sender|x-[\\w-]+|mime-version|content-[\\w-]+|kopie|copie à|copia|kopia|копия|抄送|reply-to|antwort an|importance|wichtigkeit|priority|organization|message-id|in-reply-to|references|list-id|user-agent",
};
const HEADER_PATTERNS = Object.entries(HEADER_NAMES).map(
  ([name, words]) =>
    [name, new RegExp(`^\\s{0,4}\\*{0,2}(?:${words})\\s?\\*{0,2}\\s?[:：]\\s?\\*{0,2}`, "iu")] as const,
);
const ADDRESS = /[^\s<>@]@[^\s<>@]/;
const LABEL = /^\s{0,4}\*{0,2}\p{L}[\p{L}\p{N} .'’/-]{0,30}\*{0,2}\s?[:：](?!\/\/)/u;
const MAX_BLOCK_LINES = 16;

type HeaderLine = { readonly name: string; readonly value: string };

function headerLineOf(line: string): HeaderLine | null {
  if (line.length > 1_000) return null;
  for (const [name, pattern] of HEADER_PATTERNS) {
    const start = pattern.exec(line)?.[0];
    if (start !== undefined) return { name, value: line.slice(start.length) };
  }
  return null;
}

/** How many lines a block of header lines takes, and how many of From, Date, To and Subject are among them. */
export type HeaderBlock = { readonly lines: number; readonly names: number };

/**
 * The block of header lines (From, Sent, To, Subject in some language) that begins at a line, as replies and forwards copy
 * them; null where none begins. A run of labels in which others stand too ("Name:", "Message:") is what a form wrote, and
 * none.
 */
export function headerBlockAt(lines: readonly string[], at: number): HeaderBlock | null {
  const first = headerLineOf(lines[at] ?? "");
  if (first === null || first.name === "other") return null;
  const above = lines[at - 1] ?? "";
  if (LABEL.test(above)) return null;
  const block = collect(lines, at);
  if (block === null) return null;
  const [from, date, to, subject] = ["from", "date", "to", "subject"].map((name) => block.values.get(name));
  const names = [from, date, to, subject].filter((value) => value !== undefined).length;
  if (names < 3) return null;
  // Right below text it has to be more than likely.
  const isApart = /^[\s\-_=*~>]*$/.test(above) || /[:：-]\s*$/.test(above);
  if (!isApart && !ADDRESS.test(from ?? "") && !/\d/.test(date ?? "")) return null;
  return { lines: block.lines, names };
}

type Collected = { readonly lines: number; readonly values: ReadonlyMap<string, string> };

function collect(lines: readonly string[], at: number): Collected | null {
  const values = new Map<string, string>();
  let taken = 0;
  for (let offset = 0; offset < MAX_BLOCK_LINES; offset += 1) {
    const header = headerLineOf(lines[at + offset] ?? "");
    if (header !== null && (header.name === "other" || !values.has(header.name))) {
      values.set(header.name, header.value);
      taken = offset + 1;
      continue;
    }
    const step = header === null ? stepAt(lines, at + offset, offset === taken) : "end";
    if (step === "form") return null;
    if (step === "end") break;
    if (step === "continued") taken = offset + 1;
  }
  return { lines: taken, values };
}

// What a line that names no field is in a block; `isBelow` when it stands right below a line of it.
function stepAt(lines: readonly string[], at: number, isBelow: boolean): "form" | "continued" | "gap" | "end" {
  const line = lines[at] ?? "";
  // Programs that make text of HTML leave a line empty between them.
  if (line.trim() === "") return headerLineOf(lines[at + 1] ?? "") === null ? "end" : "gap";
  if (!isBelow) return "end";
  if (LABEL.test(line)) return "form";
  return ADDRESS.test(line) || /^\s/.test(line) ? "continued" : "end";
}
