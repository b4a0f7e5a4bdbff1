import { type EmailAddress, looseAddress } from "../kernel/email-address";

// Reports from before RFC 3464, and from systems that never took it up, name the recipient somewhere in prose. What is
// looked for below are the places where they put it, from the surest to the least sure.

const ADDRESS = "[\\p{L}\\p{N}.!#$%&'*+/=?^_`{|}~-]{1,64}@[\\p{L}\\p{N}-]{1,63}(?:\\.[\\p{L}\\p{N}-]{1,63}){0,8}";
const MAX_TEXT_CHARACTERS = 60_000;
const MAX_FOUND = 50;

const COPY_BEGINS =
  /^(?:[-=*_>\s]*).{0,60}(?:original message|copy of (?:the|your|my|this)|below this line|unsent message|returned (?:message|mail)|message headers?\b|original headers|undelivered message|headers? of (?:the|your)|text of your message|message text|included below|message contents|ursprüngliche nachricht|message d['’]origine|mensaje original|下記|以下).{0,80}$/i;
const COPIED_HEADER =
  /^(?:received:\s+(?:from|by|\()|return-path:\s|x-mailer:|mime-version:|dkim-signature:|content-type:)/i;
const BELOW_THE_TEXT = /follow|below|:\s*$|^\s*[-=*_]{2,}/i;

/** The part of a bounce that a machine wrote about the failure, and the copy of the returned message after it. */
export function splitReport(text: string): { readonly report: string; readonly copy: string } {
  const lines = text.slice(0, MAX_TEXT_CHARACTERS).replace(/\r\n?/g, "\n").split("\n");
  const at = lines.findIndex(
    (line, index) =>
      index > 0 &&
      line.length < 160 &&
      (COPIED_HEADER.test(line) || (COPY_BEGINS.test(line) && BELOW_THE_TEXT.test(line) && !/transcript/i.test(line))),
  );
  if (at === -1) return { report: lines.join("\n"), copy: "" };
  return { report: lines.slice(0, at).join("\n"), copy: lines.slice(at).join("\n") };
}

const line = (pattern: string) => new RegExp(pattern.replaceAll("ADDRESS", ADDRESS), "gimu");

// Each has the address as its first group.
const PLACES: readonly RegExp[] = [
  line("^\\s*(?:final|original|failed)[- ]recipients?\\s*:\\s*(?:rfc822\\s*;\\s*)?<?(ADDRESS)>?"),
  line(
    "^[ \\t>*•·-]{0,12}(?:\\d+[.)]\\s)?[<\\[\"']?(?:smtp:|mailto:)?(ADDRESS)[>\\]\"']?\\s{0,3}(?:[:;,(-].*|\\.\\.\\..*|on \\p{Lu}.*|failed.*|$)",
  ),
  line("rcpt to:\\s{0,3}<?(ADDRESS)>?"),
  line(
    "(?:recipients?|addressees?|user(?:name)?|mailbox|account|e-?mail|address(?:es)?|smtp|empfänger|destinataires?|destinatari[oa]s?|ontvanger|mottagare|получател[ья])(?: address)?(?: is| was)?\\s{0,3}[:=\\[<(\"' ]{1,6}(?:smtp:|mailto:)?(ADDRESS)",
  ),
  line("(?:deliver(?:ed|y|able)?|sen[dt]|reach(?:ed)?|relay(?:ed)?|an|à|to|for)\\s{1,3}[<\\[\"'(]{0,2}(ADDRESS)"),
  line("\\b5\\d\\d[- ](?:[45]\\.\\d{1,3}\\.\\d{1,3}\\s)?.{0,60}?[<(\\[\"' ](ADDRESS)"),
  line("(?<![\\p{L}\\p{N}.])(ADDRESS)"),
];

const NO_RECIPIENT =
  /^(?:mailer-daemon|postmaster|mail-daemon|abuse|hostmaster|webmaster|support|helpdesk|admin|noc|mdaemon)@/i;
const NOT_ABOUT_RECIPIENTS =
  /^\s*(?:message-?id|from|sender|reply-to|return-path|in-reply-to|references|reporting-mta|received|x-[\w-]+)\s*[:=]/i;

/**
 * The recipients that the prose of a bounce names as failed. `ours` are addresses that cannot be meant: the one that
 * reports, and those that the report goes to. When only the returned copy says to whom it went, that counts.
 */
export function failedInText(text: string, ours: readonly EmailAddress[]): EmailAddress[] {
  const { report, copy } = splitReport(text);
  const told = report
    .split("\n")
    .filter((one) => !NOT_ABOUT_RECIPIENTS.test(one))
    .join("\n");
  for (const place of PLACES) {
    const found = addressesAt(place, told).filter((address) => !ours.includes(address) && !NO_RECIPIENT.test(address));
    if (found.length > 0) return found;
  }
  const written = /^to:\s*(.{3,900})$/im.exec(copy)?.[1] ?? "";
  return addressesAt(PLACES.at(-1) ?? /$^/g, written).filter((address) => !ours.includes(address));
}

function addressesAt(place: RegExp, text: string): EmailAddress[] {
  const found = new Set<EmailAddress>();
  for (const match of text.matchAll(place)) {
    const address = (match[1] ?? "").replace(/^[.'`*]+|[.'`*]+$/g, "");
    if (address.includes("@")) found.add(looseAddress(address));
    if (found.size >= MAX_FOUND) break;
  }
  return [...found];
}
