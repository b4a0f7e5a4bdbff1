import { addressParser, decodeWords, type Email } from "postal-mime";
import type { Appointment } from "../../core/message/appointment";
import type { ClassifiedMessage } from "../../core/message/classifiable-message";
import { classifyMessage } from "../../core/message/classify-message";
import { expiryOf } from "../../core/message/expiry";
import { mailDate } from "../../core/message/mail-date";
import { type Header, headerValue, type MailMessage } from "../../core/message/mail-message";
import { readMessageIds } from "../../core/message/message-ids";
import { betterPart } from "../../core/text/better-part";
import { type DividedText, divideText } from "../../core/text/new-text";
import { plainLine, turnsDirection } from "../../core/text/plain-line";
import { saysForwarded } from "../../core/threading/base-subject";
import { messageTexts } from "../../texts/en/message";
import { saidOf } from "../../texts/said";
import { type CarriedParts, openContainers } from "./carried-parts";
import { decodeText } from "./decode-text";
import { htmlContents } from "./html-contents";
import { fromOf, mailboxesOf } from "./mailboxes";
import {
  attachmentOf,
  bytesOf,
  calendarsIn,
  copiesIn,
  DISPOSITION_TYPES,
  protectionOf,
  reportedIds,
  reportsWithin,
  STATUS_TYPES,
  textsOf,
} from "./message-parts";
import { parseMime } from "./mime-parser";
import { repairText } from "./repair-text";
import { isTooDeep, MAX_HTML_CHARACTERS, markedTextOfHtml, textOfHtml } from "./text-of-html";
import { cutHeader, withoutStructure } from "./trimmed-mail";

const MAX_RAW_SHOWN_CHARACTERS = 100_000;
const MAX_KEPT_HTML_CHARACTERS = 2_000_000;
const MAX_TEXT_CHARACTERS = 1_000_000;
const MAX_ATTACHMENTS = 500;
const MAX_SUBJECT_CHARACTERS = 2_000;

const LACKS_PARTS = "it says that it has parts, and none of them is found: its text is shown as it came";

/** A parsed message with the bytes of its attachments in the same order. */
export type ParsedMail = { readonly message: MailMessage; readonly contents: readonly Uint8Array[] };

/**
 * Understands a message. It never throws and never refuses: what is over a limit or cannot be parsed comes back with what
 * could be read, and a warning. `envelopeSender` is what MAIL FROM said (empty for `<>`); null takes Return-Path instead.
 */
export function parseMessage(raw: Uint8Array, envelopeSender: string | null = null): Promise<ParsedMail> {
  return parsed(raw, envelopeSender, false);
}

async function parsed(raw: Uint8Array, envelopeSender: string | null, isEnclosed: boolean): Promise<ParsedMail> {
  const attempts: readonly { bytes: () => Uint8Array; warning: string | null }[] = [
    { bytes: () => raw, warning: null },
    { bytes: () => cutHeader(raw), warning: "its header is too large and was read in part" },
    {
      bytes: () => withoutStructure(raw),
      warning: "its parts are nested too deep or too many, or its lines too many: it is shown raw",
    },
  ];
  for (const { bytes, warning } of attempts) {
    try {
      const { email, lacksParts } = await parseMime(bytes());
      return await understood(email, envelopeSender, {
        warning: warning ?? (lacksParts ? LACKS_PARTS : null),
        isEnclosed,
      });
    } catch {
      // The next attempt reads less of it.
    }
  }
  return unparsed(raw);
}

type Circumstances = { readonly warning: string | null; readonly isEnclosed: boolean };

async function understood(
  email: Email,
  envelopeSender: string | null,
  { warning, isEnclosed }: Circumstances,
): Promise<ParsedMail> {
  const headers: Header[] = email.headers.map(({ key, value }) => ({ name: key, value }));
  const subject = subjectOf(email);
  const { parts, contents, calendars, html, text, divided, part, others, oddParts } = readParts(
    email,
    saysForwarded(subject),
  );
  const from = fromOf(headerValue(headers, "from"), headerValue(headers, "sender"));
  const to = mailboxesOf(email.to);
  const date = mailDate(headerValue(headers, "date") ?? "");
  const messageId = readMessageIds(email.messageId ?? "")[0] ?? null;
  const contentType = headerValue(headers, "content-type") ?? "";
  const copies = copiesIn(parts, contents);
  const { classification, failedRecipients, reports } = classifyMessage({
    headers,
    fromAddress: from?.address ?? null,
    fromName: from?.name ?? "",
    toAddresses: to.map(({ address }) => address),
    envelopeSender: envelopeSender ?? returnPath(headers),
    isReport: /^multipart\/report/i.test(contentType) && !/report-type="?(?:disposition|feedback)/i.test(contentType),
    copies,
    enclosed: isEnclosed ? [] : await enclosedReports(parts, contents),
    deliveryStatus: textsOf(STATUS_TYPES, parts, contents),
    dispositions: textsOf(DISPOSITION_TYPES, parts, contents),
    text,
    calendarMethod: calendars.method,
  });
  return {
    contents,
    message: {
      headers: keptHeaders(headers),
      addressFields: addressFieldsOf(headers),
      messageId,
      date,
      from,
      to,
      cc: mailboxesOf(email.cc),
      replyTo: mailboxesOf(email.replyTo),
      subject,
      inReplyTo: readMessageIds(email.inReplyTo ?? ""),
      references: readMessageIds(email.references ?? ""),
      text,
      ownText: divided.own,
      restText: divided.rest,
      otherTexts: [...others, ...textFilesIn({ parts, contents })],
      html,
      betterPart: part,
      appointments: calendars.appointments,
      classification,
      failedRecipients,
      reports,
      reportedIds: isReportKind(classification.kind) ? reportedIds(copies, text) : [],
      list: headerValue(headers, "list-id"),
      ...unsubscribeIn(headers),
      attachments: parts.map((part, index) => attachmentOf(part, index, contents[index] ?? new Uint8Array())),
      protection: protectionOf(contentType, parts, text),
      hasRemoteContent: html !== null && REMOTE_IMAGE.test(html),
      ...authenticationIn(headers),
      expiresAt: expiryOf(headers),
      warnings: [...(warning === null ? [] : [warning]), ...oddParts, ...oddities(email, { from, date, messageId })],
    },
  };
}

function readParts(email: Email, isForward: boolean) {
  const carried = email.attachments.slice(0, MAX_ATTACHMENTS);
  const opened = openContainers(carried, carried.map(bytesOf));
  const { parts, contents } = opened;
  const calendars = calendarsIn(parts, contents);
  const html = htmlOf(email.html ?? opened.html);
  const oddParts = [...opened.warnings, ...(calendars.isUnreadable ? ["its calendar part cannot be read"] : [])];
  return {
    ...{ parts, contents, calendars, html, oddParts },
    ...readableText(textOf(email, opened, calendars.appointments), html, isForward),
  };
}

// One level deep: what a report within a report within a report says is about mail that is not ours.
async function enclosedReports(
  parts: CarriedParts["parts"],
  contents: readonly Uint8Array[],
): Promise<ClassifiedMessage[]> {
  const enclosed = await Promise.all(reportsWithin(parts, contents).map((raw) => parsed(raw, null, true)));
  return enclosed.map(({ message }) => message).filter(({ classification }) => isReportKind(classification.kind));
}

const MAX_HEADERS = 300;
const MAX_HEADER_CHARACTERS = 4_000;

function keptHeaders(headers: readonly Header[]): Header[] {
  return headers.slice(0, MAX_HEADERS).map(({ name, value }) => {
    // A tab is where a line was folded.
    const kept = value.slice(0, MAX_HEADER_CHARACTERS).replaceAll("\t", " ");
    return { name, value: kept.includes("=?") ? decodeWords(kept) : kept };
  });
}

// Those that name people (RFC 5322 3.6.2, 3.6.3 and 3.6.6), or where something is to go, and what servers write of where a
// message went.
const ADDRESS_FIELDS = new Set(
  [
    "from sender reply-to to cc bcc",
    "resent-from resent-sender resent-reply-to resent-to resent-cc resent-bcc",
    "mail-followup-to mail-reply-to errors-to disposition-notification-to return-receipt-to",
    "delivered-to x-original-to envelope-to x-envelope-to apparently-to return-path",
  ].flatMap((names) => names.split(" ")),
);

function addressFieldsOf(headers: readonly Header[]): Map<string, readonly string[]> {
  const fields = new Map<string, readonly string[]>();
  for (const { name, value } of headers) {
    if (!ADDRESS_FIELDS.has(name)) continue;
    const addresses = mailboxesOf(addressParser(value)).map(({ address }) => address);
    fields.set(name, [...(fields.get(name) ?? []), ...addresses]);
  }
  return fields;
}

const MAX_TEXT_FILE_BYTES = 256 * 1024;

function textFilesIn({ parts, contents }: Pick<CarriedParts, "parts" | "contents">): string[] {
  return parts.flatMap(({ mimeType }, at) =>
    /^text\/(?!calendar)/i.test(mimeType)
      ? [decodeText((contents[at] ?? new Uint8Array()).subarray(0, MAX_TEXT_FILE_BYTES), "")]
      : [],
  );
}

function unsubscribeIn(headers: readonly Header[]): Pick<MailMessage, "unsubscribe" | "saysOneClick"> {
  const post = headerValue(headers, "list-unsubscribe-post");
  return {
    unsubscribe: bracketed(headerValue(headers, "list-unsubscribe") ?? ""),
    saysOneClick: post !== null && ONE_CLICK.test(post),
  };
}

// RFC 8058 section 3.1.
const ONE_CLICK = /^\s*list-unsubscribe\s*=\s*one-click\s*$/i;

function authenticationIn(headers: readonly Header[]): Pick<MailMessage, "authenticationResults" | "isSigned"> {
  const results = headers.filter(({ name }) => name === "authentication-results").map(({ value }) => value);
  return { authenticationResults: results, isSigned: headerValue(headers, "dkim-signature") !== null };
}

function returnPath(headers: readonly Header[]): string | null {
  return headerValue(headers, "return-path")?.replace(/[<>\s]/g, "") ?? null;
}

const REMOTE_IMAGE = /<img\b[^<>]{0,2000}\bsrc\s{0,5}=\s{0,5}["']?\s{0,5}https?:/i;

function subjectOf({ subject = "" }: Email): string {
  return plainLine(repairText(subject)).slice(0, MAX_SUBJECT_CHARACTERS);
}

function htmlOf(html: string | null): string | null {
  return html === null ? null : repairText(html.slice(0, MAX_KEPT_HTML_CHARACTERS));
}

// Mail that is nothing but a calendar says what stands in that.
function textOf({ text = "", html }: Email, opened: CarriedParts, appointments: readonly Appointment[]): string {
  const written = text.trim() === "" ? (opened.text ?? "") : text;
  const said = appointments.map(({ summary, description }) => `${summary}\n\n${description}`.trim());
  const isSilent = written.trim() === "" && html === undefined && opened.html === null;
  return repairText((isSilent ? said.join("\n\n") : written).slice(0, MAX_TEXT_CHARACTERS));
}

const isReportKind = (kind: MailMessage["classification"]["kind"]) => kind === "bounce" || kind === "delivery-report";

function oddities(email: Email, read: Pick<MailMessage, "from" | "date" | "messageId">): string[] {
  const warnings: string[] = [];
  if (email.attachments.length > MAX_ATTACHMENTS)
    warnings.push(`only its first ${MAX_ATTACHMENTS} attachments are listed`);
  if (read.from === null) warnings.push("it has no From");
  if (read.date === null) warnings.push(email.date === undefined ? "it has no Date" : "its Date is unreadable");
  if (read.messageId === null) warnings.push("it has no usable Message-ID");
  const html = email.html ?? "";
  if (html.length > MAX_HTML_CHARACTERS) warnings.push("its HTML is very large: the text made of it is cut");
  if (isTooDeep(html.slice(0, MAX_KEPT_HTML_CHARACTERS))) warnings.push("its HTML is broken or nested too deep");
  const names = [email.subject, email.from?.name, ...email.attachments.map((part) => part.filename)];
  if (names.some((name) => turnsDirection(name ?? ""))) {
    warnings.push("a name in it turned the direction of writing to look like another");
  }
  return warnings;
}

/** `others` are texts of the message that neither part of `divided` has. */
type Readable = {
  readonly text: string;
  readonly divided: DividedText;
  readonly part: "text" | "html";
  readonly others: readonly string[];
};

function readableText(text: string, html: string | null, isForward: boolean): Readable {
  if (html === null) return { text, divided: divideText(text, isForward), part: "text", others: [] };
  const { part, lacksWords } = betterPart(text, htmlContents(html));
  if (!lacksWords && text.trim() !== "") return { text, divided: divideText(text, isForward), part, others: [] };
  const divided = divideText(markedTextOfHtml(html), isForward);
  const isOfHtml = text.trim() === "";
  return { text: isOfHtml ? textOfHtml(html) : text, divided, part: "html", others: isOfHtml ? [] : [text] };
}

/** A message of which nothing could be understood, shown raw. */
export function unparsed(raw: Uint8Array): ParsedMail {
  const text = new TextDecoder("latin1").decode(raw.subarray(0, MAX_RAW_SHOWN_CHARACTERS));
  return {
    contents: [],
    message: {
      headers: [],
      addressFields: new Map(),
      messageId: null,
      date: null,
      from: null,
      to: [],
      cc: [],
      replyTo: [],
      subject: plainLine(/^subject:[ \t]*(.*)$/im.exec(text.slice(0, 20_000))?.[1] ?? ""),
      inReplyTo: [],
      references: [],
      text,
      ownText: text,
      restText: "",
      otherTexts: [],
      html: null,
      betterPart: "text",
      appointments: [],
      classification: { kind: "person", reason: saidOf(messageTexts)("message.couldNotBeParsed") },
      failedRecipients: [],
      reports: [],
      reportedIds: [],
      list: null,
      unsubscribe: [],
      saysOneClick: false,
      attachments: [],
      protection: null,
      hasRemoteContent: false,
      authenticationResults: [],
      isSigned: false,
      expiresAt: null,
      warnings: ["it could not be parsed and is shown raw"],
    },
  };
}

function bracketed(field: string): string[] {
  return [...field.matchAll(/<([^<>]+)>/g)].map((match) => match[1]?.trim() ?? "");
}
