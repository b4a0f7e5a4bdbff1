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

const ANYWHERE = line("(?<![\\p{L}\\p{N}.])(ADDRESS)");

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
  ANYWHERE,
];

const NO_RECIPIENT =
  /^(?:mailer-daemon|postmaster|mail-daemon|abuse|hostmaster|webmaster|support|helpdesk|admin|noc|mdaemon)@/i;
const NOT_ABOUT_RECIPIENTS =
  /^\s*(?:message-?id|from|sender|reply-to|return-path|in-reply-to|references|reporting-mta|received|x-[\w-]+)\s*[:=]/i;

/** What a report is read with: addresses that cannot be meant, and the copies of what was returned. */
export type ReportAbout = {
  /** The one that reports, and those that the report goes to. */
  readonly ours: readonly EmailAddress[];
  /** The beginnings of the returned messages, or of their headers. */
  readonly copies: readonly string[];
  /** The domain of who reports. */
  readonly domain: string | null;
};

/** A recipient that a report names, and the address that was written to where that one stands for it. */
export type NamedRecipient = { readonly address: EmailAddress; readonly original: EmailAddress | null };

/**
 * The recipients that the prose of a bounce names as failed. Where it names them by their local part alone, the returned copy
 * or the domain of who reports says the rest; where it names nobody, those count that the copy was written to.
 */
export function failedInText(text: string, about: ReportAbout): NamedRecipient[] {
  const { report, copy } = splitReport(text);
  const told = report
    .split("\n")
    .filter((one) => !NOT_ABOUT_RECIPIENTS.test(one))
    .join("\n");
  const meant = (address: EmailAddress) => !about.ours.includes(address) && !NO_RECIPIENT.test(address);
  const plain = told.replace(EXPANDED_FROM, " ");
  for (const place of PLACES) {
    const found = addressesAt(place, plain).filter(meant);
    if (found.length > 0) return found.map((address) => ({ address, original: expandedFrom(address, told) }));
  }
  const written = addressesWritten([copy, ...about.copies]).filter((address) => !about.ours.includes(address));
  const named = localPartsIn(told).flatMap((local) => completed(local, written, about.domain) ?? []);
  return (named.length > 0 ? [...new Set(named)] : written).map((address) => ({ address, original: null }));
}

/** An address for a local part: one that was written to, else one of the domain that reports; null where neither is known. */
export function completed(local: string, written: readonly EmailAddress[], domain: string | null): EmailAddress | null {
  const one = written.find((address) => address.startsWith(`${local.toLowerCase()}@`));
  return one ?? (domain === null ? null : looseAddress(`${local}@${domain}`));
}

/** Those that returned copies were written to, by their To, Cc and Bcc; without these by what delivered them. */
export function addressesWritten(copies: readonly string[]): EmailAddress[] {
  for (const names of ["to|cc|bcc", "x-original-to|delivered-to|envelope-to|apparently-to"]) {
    const field = new RegExp(
      `^[> \\t]{0,4}(?:${names}):[ \\t]*([^\\n]{3,900}(?:\\n[ \\t]+[^\\n]{1,900}){0,40})`,
      "gim",
    );
    const found = copies.flatMap((copy) =>
      [...headerOf(copy).matchAll(field)].flatMap((match) => addressesAt(ANYWHERE, match[1] ?? "")),
    );
    if (found.length > 0) return [...new Set(found)].slice(0, MAX_FOUND);
  }
  return [];
}

// The header of a copy; in prose there may be words and empty lines above it.
function headerOf(copy: string): string {
  const text = copy.slice(0, MAX_TEXT_CHARACTERS).replace(/\r\n?/g, "\n");
  const end = /^[\w-]+:[^\n]*\n(?:[^\n]+\n)*\n/m.exec(text);
  return end === null ? text : text.slice(0, end.index + end[0].length);
}

const EXPANDED_FROM = new RegExp(
  `\\(?(?:expanded from|alias|rewritten from)\\s?:?\\s{1,6}[<"']?${ADDRESS}[>"']?\\)?`,
  "giu",
);

// "<final@host> (expanded from: <written@host>)", also on the next line.
function expandedFrom(address: EmailAddress, told: string): EmailAddress | null {
  const at = told.toLowerCase().indexOf(address);
  const [written] =
    at === -1 ? [] : (told.slice(at + address.length, at + address.length + 300).match(EXPANDED_FROM) ?? []);
  const [original] = written === undefined ? [] : addressesAt(ANYWHERE, written);
  return original === undefined || original === address ? null : original;
}

const LOCAL = "[\\p{L}\\p{N}][\\p{L}\\p{N}._+-]{1,63}";
const UNKNOWN =
  "(?:is )?(?:an? )?(?:unknown|no such|not (?:known|listed|found|a (?:known|valid))|does ?n[o']t exist|invalid|mailbox|user unknown|over quota|unbekannt|inconnu)";
// Local parts alone, from the surest place to the least sure.
const LOCAL_PLACES: readonly RegExp[] = [
  new RegExp(
    `^[ \\t<"']{0,8}(${LOCAL})[>"']?\\s?(?:\\.{3}|:|--?|,)\\s?(?:(?:user|recipient|mailbox|account|address) )?${UNKNOWN}`,
    "gimu",
  ),
  new RegExp(
    `(?:no such|unknown|invalid|unbekannter?) (?:local )?(?:user|recipient|mailbox|account|addressee|person|address|part|benutzer|empfänger)(?: here)?(?: name)?\\s?[:=]?\\s?[<"'(\\[]?(${LOCAL})[>"')\\]]?\\s*[.!]?$`,
    "gimu",
  ),
  new RegExp(
    `(?:user|recipient|mailbox|account|addressee)(?:name)?s?\\s?[:=]?\\s?[<"'(\\[](${LOCAL})[>"')\\]]`,
    "gimu",
  ),
  new RegExp(`^[ \\t]{1,12}[<"']?(${LOCAL})[>"']?\\s*(?:\\(|$)`, "gmu"),
];

function localPartsIn(told: string): string[] {
  for (const place of LOCAL_PLACES) {
    const found = [...told.matchAll(place)].map((match) => match[1] ?? "").slice(0, MAX_FOUND);
    if (found.length > 0) return found;
  }
  return [];
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
