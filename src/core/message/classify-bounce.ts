import { messageTexts } from "../../texts/en/message";
import { eachOnce, type Said, type Sayable, saidOf } from "../../texts/said";
import type { EmailAddress } from "../kernel/email-address";
import type { ClassifiableMessage, ClassifiedMessage } from "./classifiable-message";
import {
  type CompleteAddress,
  failedRecipients,
  type RecipientStatus,
  readDeliveryStatus,
  recipientsOfDisposition,
} from "./delivery-status";
import {
  addressesWritten,
  completed,
  failedInText,
  type NamedRecipient,
  type ReportAbout,
  splitReport,
} from "./failed-in-text";
import { type FailedRecipient, headerValue, type RecipientReport } from "./mail-message";
import {
  AUTOMATIC_SUBJECT,
  FAILURE_SUBJECT,
  FAILURE_TEXT,
  REFUSAL_TEXT,
  SUCCESS_SUBJECT,
  saysDelayed,
} from "./report-words";

const said = saidOf(messageTexts);

const MAX_REPORT_CHARACTERS = 8_000;
const MAX_NAMED = 5;

/** What a mail system says of delivering our mail: a bounce, a delivery report, or null for everything else. */
export function classifyBounce(message: ClassifiableMessage): ClassifiedMessage | null {
  const statuses = statusesOf(message);
  if (statuses.length > 0) return reported(statuses);
  return refused(message) ?? toldInProse(message) ?? enclosedIn(message);
}

// Gateways turn the status part into plain text.
function statusesOf(message: ClassifiableMessage): RecipientStatus[] {
  const complete = completing(message);
  const statuses = message.deliveryStatus.flatMap((text) => readDeliveryStatus(text, complete));
  if (statuses.length > 0 || !/^final-recipient:/im.test(message.text) || !isFromMachine(message)) return statuses;
  return readDeliveryStatus(message.text, complete);
}

function completing(message: ClassifiableMessage): CompleteAddress {
  return (local) => completed(local, addressesWritten(message.copies), domainOf(message));
}

const domainOf = ({ fromAddress }: ClassifiableMessage) => fromAddress?.split("@").at(-1) ?? null;

// RFC 5429 2.1.2: a filter of the recipient's may refuse by a disposition notification.
function refused(message: ClassifiableMessage): ClassifiedMessage | null {
  const [disposition] = message.dispositions.flatMap((text) => /^disposition:\s*(.{3,200})$/im.exec(text)?.[1] ?? []);
  if (disposition === undefined) return null;
  const isSurelyRefused = /;\s*(?:failed|denied|rejected)\b/i.test(disposition);
  const isDeletedByMachine = /automatic-action/i.test(disposition) && /;\s*deleted\b/i.test(disposition);
  if (!isSurelyRefused && !(isDeletedByMachine && REFUSAL_TEXT.test(message.text.slice(0, MAX_REPORT_CHARACTERS))))
    return null;
  const failed = message.dispositions
    .flatMap((text) => recipientsOfDisposition(text, completing(message)))
    .map((address) => ({ address, permanent: true, diagnostic: disposition.trim() }));
  return bounce(failed, (whom) => said("message.dispositionRefused", { whom }));
}

// A list's software passes on reports that it could not make sense of.
function enclosedIn(message: ClassifiableMessage): ClassifiedMessage | null {
  const [enclosed] = message.enclosed;
  if (enclosed === undefined || !(isFromMachine(message) || isFromListSoftware(message))) return null;
  const { kind, reason } = enclosed.classification;
  return { ...enclosed, classification: { kind, reason: said("message.carriesReport", { reason }) } };
}

function reported(statuses: readonly RecipientStatus[]): ClassifiedMessage {
  const failed = failedRecipients(statuses);
  if (failed.length > 0) {
    const bounced = bounce(failed, (whom) => said("message.statusFailed", { whom }));
    return { ...bounced, reports: statuses.map(reportOf) };
  }
  const actions = statuses.map(({ action, address }) => said("message.actionFor", { action, whom: address }));
  const what: Sayable = { all: eachOnce(actions).slice(0, MAX_NAMED), by: "comma" };
  return { ...report(said("message.statusOf", { what })), reports: statuses.map(reportOf) };
}

function reportOf({ address, original, action, status, diagnostic }: RecipientStatus): RecipientReport {
  return {
    address: original ?? address,
    state: action === "expanded" ? "delivered" : action,
    detail: diagnostic || status,
  };
}

function toldInProse(message: ClassifiableMessage): ClassifiedMessage | null {
  const named = headerValue(message.headers, "x-failed-recipients");
  const subject = headerValue(message.headers, "subject") ?? "";
  const machine = isFromMachine(message);
  // Nearly all mail ends here, before anything looks at its text.
  if (named === null && !machine && !FAILURE_SUBJECT.test(subject)) return null;
  const { report: told } = splitReport(message.text.slice(0, MAX_REPORT_CHARACTERS * 4));
  const words = told.slice(0, MAX_REPORT_CHARACTERS);
  if (isFromMailer(message.fromAddress, message.fromName) && saysDelayed(subject, words)) return late(message);
  if (named === null && !isAboutFailure(message, subject, words, machine)) {
    return machine && SUCCESS_SUBJECT.test(subject) ? report(said("message.reportsDelivery")) : null;
  }
  const recipients = named === null ? failedInText(message.text, about(message)) : namedIn(named, message);
  const failed = recipients.map(({ address, original }) => ({
    address,
    ...(original === null ? {} : { original }),
    permanent: !/\b4\.\d\.\d{1,3}\b/.test(words) || /\b5\.\d\.\d{1,3}\b/.test(words),
    diagnostic: lineAbout(address, words),
  }));
  if (saysDelayed(subject, words)) return late(message);
  return bounce(failed, (whom) => said("message.couldNotDeliver", { whom }));
}

const MAILER =
  /^(?:mailer-?daemon|postmaster|mail-?daemon|mdaemon|mail[-.]?(?:er|delivery|system|admin\w*|gateway|server)[\w.-]*|(?:double-)?bounces?(?:[-+][\w.=-]*)?|delivery[\w.-]*|undeliver\w*|smtp[\w.-]*|mta|system-?admin\w*|returnmail|root)@/i;
const MAILER_NAME =
  /mail delivery|mailer[- ]?daemon|postmaster|system administrator|mail(?:er)? (?:system|admin|service|server)|delivery (?:sub)?system|internet mail|mail agent|message (?:delivery|handling)/i;

function isFromMachine({ fromAddress, fromName, envelopeSender, isReport }: ClassifiableMessage): boolean {
  return isReport || envelopeSender === "" || isFromMailer(fromAddress, fromName);
}

function isFromMailer(address: EmailAddress | null, name: string): boolean {
  return (address !== null && MAILER.test(address)) || MAILER_NAME.test(name);
}

const LIST_SOFTWARE =
  /^[\w.+-]*-(?:bounces|owner|request|admin)@|^(?:owner|bounces?)-[\w.+-]+@|^(?:mailman|listserv|majordomo|ecartis|sympa|listmaster)@/i;

const isFromListSoftware = ({ fromAddress }: ClassifiableMessage) =>
  fromAddress !== null && LIST_SOFTWARE.test(fromAddress);

// People write about failed deliveries as well, and forward bounces; a machine's hand has to show in more than the words.
function isAboutFailure(message: ClassifiableMessage, subject: string, words: string, machine: boolean): boolean {
  const subjectFails = FAILURE_SUBJECT.test(subject);
  const textFails = () => FAILURE_TEXT.test(words);
  if (isFromMailer(message.fromAddress, message.fromName)) return subjectFails || textFails();
  if (headerValue(message.headers, "list-id") !== null || AUTOMATIC_SUBJECT.test(subject)) return false;
  const returnsOnly = message.isReport && message.copies.length > 0 && words.trim() === "";
  if (machine) return subjectFails ? message.isReport || textFails() : returnsOnly || (message.isReport && textFails());
  return subjectFails && textFails() && message.copies.length > 0 && SPEAKS_AS_MACHINE.test(words);
}

// What a person who asks about a report would not write, and does not quote without saying so.
const SPEAKS_AS_MACHINE =
  /\b5\d\d\b|\b5\.\d\.\d\b|^\s*(?:this (?:is|message (?:was|is))|your (?:message|mail|e-?mail)|the (?:following|message|mail|e-?mail|original|attached|enclosed)|sorry|delivery|message|mail|unable|could not|we were unable|i['’]m (?:sorry|afraid)|returned)\b/i;

function about(message: ClassifiableMessage): ReportAbout {
  const { fromAddress, toAddresses, copies } = message;
  return { ours: [...(fromAddress === null ? [] : [fromAddress]), ...toAddresses], copies, domain: domainOf(message) };
}

function namedIn(field: string, message: ClassifiableMessage): NamedRecipient[] {
  const nobody: ReportAbout = { ours: [], copies: [], domain: null };
  const named = failedInText(field.replace(/[,;\s]+/g, "\n"), nobody);
  return named.length > 0 ? named : failedInText(message.text, { ...about(message), ours: [] });
}

const MAX_DIAGNOSTIC_CHARACTERS = 300;

function lineAbout(address: EmailAddress, words: string): string {
  const lines = words.split("\n").map((line) => line.trim());
  const code = lines.find((line) => /\b[45]\d\d[ -]|\b[45]\.\d\.\d{1,3}\b/.test(line));
  return (code ?? lines.find((line) => line.toLowerCase().includes(address)) ?? "").slice(0, MAX_DIAGNOSTIC_CHARACTERS);
}

function bounce(failed: readonly FailedRecipient[], say: (whom: Sayable) => Said): ClassifiedMessage {
  const named = failed.map(({ address }) => address);
  const whom: Sayable = named.length === 0 ? said("message.recipientNotNamed") : { all: named, by: "comma" };
  const reports = failed.map(
    ({ address, diagnostic }): RecipientReport => ({ address, state: "failed", detail: diagnostic }),
  );
  return { classification: { kind: "bounce", reason: say(whom) }, failedRecipients: failed, reports };
}

function late(message: ClassifiableMessage): ClassifiedMessage {
  const reports = failedInText(message.text, about(message)).map(
    ({ address }): RecipientReport => ({ address, state: "delayed", detail: "" }),
  );
  return { ...report(said("message.deliveryLate")), reports };
}

function report(reason: Said): ClassifiedMessage {
  return { classification: { kind: "delivery-report", reason }, failedRecipients: [], reports: [] };
}
