// How mail programs divide what is new from what was there before: the words are theirs, gathered by language.

import { alternatives } from "./alternatives";
import { WROTE } from "./attribution";

const DIVIDER_WORDS = alternatives([
  "original (?:message|mail|e-?mail|letter|appointment|post|text)|forwarded|replied|reply separator",
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
  `^[\\s*]*[-_=~]{2,}\\s*[^\\n]{0,30}(?:${DIVIDER_WORDS})[^\\n]{0,120}?\\s*[-_=~]{2,}[\\s*]*$`,
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

const END_WORDS =
  "end(?: of)?|ende(?: der)?|fin(?: du| del)?|fine(?: del)?|fim(?: da)?|einde|slut(?: på)?|koniec|конец";
const HISTORY_ENDS = new RegExp(
  `^[\\s*]*[-_=~]{2,}\\s*(?:${END_WORDS})\\s[^\\n]{0,30}(?:${DIVIDER_WORDS})[^\\n]{0,40}$`,
  "iu",
);
const MAX_DIVIDER_CHARACTERS = 300;

/** A line that says that another message follows. */
export function isDivider(line: string): boolean {
  if (line.length > MAX_DIVIDER_CHARACTERS || endsHistory(line)) return false;
  return DIVIDER.test(line) || FORWARD_BEGINS.test(line) || DIVIDED_ATTRIBUTION.test(line.trim());
}

/** A line that says that another message ended here. */
export function endsHistory(line: string): boolean {
  return line.length <= MAX_DIVIDER_CHARACTERS && HISTORY_ENDS.test(line);
}
