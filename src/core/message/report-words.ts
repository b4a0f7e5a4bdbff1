const any = (words: readonly string[], flags = "iu") => new RegExp(words.join("|"), flags);

const MARKS_BEFORE = "^\\s*(?:\\[[^\\]]{1,40}\\]\\s*)?(?:\\W{0,3}warning\\W{1,3})?";

/** Subjects under which mail systems return what they could not deliver; a reply or a forward of one is not one. */
export const FAILURE_SUBJECT = new RegExp(
  `${MARKS_BEFORE}(?:${[
    "undeliver|undelivered|non[- ]?deliver|not delivered|delivery (?:status notification|failure|failed|notification|report|error|problem|has failed)",
    "mail (?:delivery|could not|not delivered|error|failure|rejected|returned|system error|undeliverable|status report)",
    "message (?:could not|not delivered|undeliverable|delivery|rejected|status|bounced|you sent)",
    "returned (?:mail|to sender|e-?mail|message)|return(?:ed)? mail|failure (?:notice|notification|delivery)|failed (?:mail|delivery|to deliver)|mailsystem error",
    "could not (?:deliver|send)|cannot (?:deliver|send)|unable to deliver|e-?mail (?:delivery|could not|rejected|not delivered)|user unknown|host unknown|rejected (?:mail|message)|bounced? (?:mail|message|e-?mail)?",
    "permanent delivery failure|nondeliverable|recipient (?:unknown|rejected)|address (?:unknown|not found)|your (?:message|mail|e-?mail) (?:could|was|to|cannot|has not)",
    "unzustellbar|nicht zustellbar|nicht zugestellt|zustellung|fehler bei|rückläufer",
    "non remis|échec|message non|courrier non|avis de non|no se (?:puede|pudo|ha)|error (?:de|en la) entrega|no entregado|devuelto",
    "mancat[ao]|impossibile|recapito|falha (?:na|de)|não (?:entregue|foi)|devolvid|onbestelbaar|niet (?:bezorgd|afgeleverd)",
    "kunde inte|olever|kan ikke lever|kunne ikke|ei voitu|nie można|zwrot|nedoručitel|недоставлен|не доставлен|невозможно доставить",
    "送信できません|配信不能|配信エラー|送信エラー|投递失败|退信|系统退信|배달 (?:실패|되지)",
  ].join("|")})`,
  "iu",
);

/** What the text of such a report says. */
export const FAILURE_TEXT = any([
  "could ?n[o']t be (?:delivered|sent|reached|completed)|can ?not be (?:delivered|sent|reached|completed)|cannot deliver|could not deliver|unable to deliver|undeliverable|not (?:be )?delivered|wasn['’]t delivered|were not delivered|delivery (?:to .{0,80})?(?:has )?failed|failed (?:to deliver|permanently|recipient)|delivery failure|fail(?:ed|ure) .{0,40}deliver",
  "permanent(?:ly)? (?:fatal )?error|permanent failure|fatal errors|returned (?:to (?:you|sender)|message|mail)|did not reach|has been rejected|was rejected|message rejected|giving up|gave up|given up",
  "user (?:is )?unknown|unknown (?:user|recipient|address|local part|mailbox)|no such (?:user|recipient|mailbox|address|person|account)|(?:user|recipient|mailbox|account|address|addressee|alias) .{0,60}(?:not (?:be )?found|does ?n[o']t exist|not (?:listed|known|exist|valid|recogni[sz]ed)|unavailable|disabled|inactive|full|over quota|suspended|rejected|invalid)",
  "invalid (?:recipient|address|mailbox|user)|mailbox (?:is )?(?:full|unavailable|disabled)|over (?:the )?quota|quota exceeded|exceeded .{0,30}(?:quota|storage)|host (?:unknown|not found|or domain name not found)|domain (?:not found|does not exist)|relay(?:ing)? (?:access )?denied|unrouteable|unroutable|loops? back|too many hops|mail loop|connection (?:refused|timed out)|retry time(?:out)? (?:not reached|exceeded)|delivery time expired|message expired|retry timeout",
  "\\b5\\d\\d[ -](?:\\d|[#<]|[A-Z]\\w+)|\\b5\\.[0-7]\\.\\d{1,3}\\b|status: 5",
  "nicht zugestellt|nicht zustellbar|unzustellbar|konnte nicht|unbekannt|n['’]a pas (?:pu|été)|non remis|inconnu|no (?:se )?pud[oe] entregar|no se ha podido|desconocid|non è stato possibile|sconosciut|não (?:foi possível|pôde)|niet worden (?:bezorgd|afgeleverd)|onbekend|kunde inte|kunne ikke|не (?:может быть|удалось|был[оа]) достав|не существует|届きません|配信できません|送信できません|存在しません|無法|无法|失败",
]);

/** A report that it is not there yet, and that they go on trying. */
const DELAY_TEXT = any([
  "warning message only|will (?:be retried|continue|keep|try|attempt)|still (?:being retried|trying|undelivered|not been)|continue (?:to try|trying|attempting)|has (?:not yet|been delayed)|not (?:yet )?been delivered (?:yet|for)|delivery (?:is|has been|was)? ?(?:delayed|deferred|temporarily)|(?:do|need) not (?:need to )?re-?send|no action is required|temporarily (?:deferred|delayed|suspended)|next attempt|further attempts|delivery attempts will|will be attempted again|mail delayed|verzögert|retard|retras|ritard|vertraagd|задерж|遅延",
]);
const DELAY_SUBJECT =
  /\bdelay|deferred|could not send message for past|warning: (?:message|mail|could)|still being retried|not yet been delivered|verzögert|retardé|en retard|retras|ritard|vertraagd|задерж|遅延/iu;
const FINAL =
  /giv(?:e|ing) up|gave up|given up|no longer|permanent|returned to (?:you|sender)|has failed|have failed|expired|will not be retried|final/iu;

/** Whether a report says that delivery is late and not that it failed. */
export function saysDelayed(subject: string, report: string): boolean {
  if (FINAL.test(subject)) return false;
  if (DELAY_SUBJECT.test(subject)) return true;
  return DELAY_TEXT.test(report) && !FINAL.test(report);
}

/** Reports of success. */
export const SUCCESS_SUBJECT =
  /delivery status notification \(success\)|successful (?:mail )?delivery|^(?:successfully )?delivered:|^relayed:|return receipt|delivery confirmation|zugestellt:|message delivered/iu;

/** Subjects that out-of-office programs write in front of ours. */
export const AUTOMATIC_SUBJECT = any([
  "^\\s*(?:re:\\s*)?\\[?(?:auto(?:matic|matische?|mated)?[- ]?(?:reply|response|responder|antwort|antwoord|svar|vastaus)|autoreply|autoresponse|auto:|out of (?:the )?office|out[- ]of[- ]office|ooo:|away from (?:my|the)|vacation|on (?:vacation|holiday|leave)|i am (?:away|out of)|abwesenheit|abwesend|automatische antwort|nicht im (?:büro|haus)|urlaub|réponse automatique|absence|absent|en congé|respuesta automática|fuera de (?:la )?oficina|ausente|risposta automatica|fuori (?:sede|ufficio)|resposta automática|ausência|automatisch antwoord|afwezig|autosvar|frånvaro|fravær|automaattinen|poissa|autoodpowiedź|odpowiedź automatyczna|automatická odpověď|автоответ|自动回复|自動回覆|自動返信|자동 (?:회신|응답))",
]);

/** How out-of-office programs begin, whose subject does not say what they are. */
export const ABSENCE_TEXT = any([
  "(?:i am|i['’]m|i will be|i['’]ll be|we are|currently) (?:\\w+ ){0,3}(?:out of (?:the |my )?office|away (?:from|until|on)|on (?:vacation|holiday|annual leave|leave|maternity|parental|a (?:business )?trip)|unavailable until)",
  "this is an auto(?:mated|matic|-?)\\s?(?:reply|response)|vacation (?:message|notice|program)|ich bin (?:\\S+ ){0,6}(?:nicht im (?:büro|haus)|im urlaub|abwesend)|je suis (?:\\S+ ){0,3}(?:absente?|en congé)|estoy (?:\\S+ ){0,3}(?:fuera|de vacaciones)|sono (?:\\S+ ){0,3}(?:assente|in ferie|fuori)|ik ben (?:\\S+ ){0,6}(?:afwezig|met vakantie)",
]);

/** How a recipient's own filter says that it took a message not (RFC 5429 2.1). */
export const REFUSAL_TEXT = any([
  "(?:was|has been|been|is) (?:refused|rejected|blocked|denied|not accepted)|refus(?:es|al|ed) (?:to accept|your|the|by)|does not (?:accept|wish to receive)|will not (?:accept|be accepted)|abgelehnt|zurückgewiesen|refusée?|rechazad|rifiutat|geweigerd",
]);
