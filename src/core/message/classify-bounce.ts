import type { EmailAddress } from "../kernel/email-address";
import type { ClassifiableMessage, ClassifiedMessage } from "./classifiable-message";
import { failedRecipients, type RecipientStatus, readDeliveryStatus } from "./delivery-status";
import { failedInText, splitReport } from "./failed-in-text";
import { type FailedRecipient, headerValue, type RecipientReport } from "./mail-message";
import { AUTOMATIC_SUBJECT, FAILURE_SUBJECT, FAILURE_TEXT, SUCCESS_SUBJECT, saysDelayed } from "./report-words";

const MAX_REPORT_CHARACTERS = 8_000;

/** What a mail system says of delivering our mail: a bounce, a delivery report, or null for everything else. */
export function classifyBounce(message: ClassifiableMessage): ClassifiedMessage | null {
  const statuses = statusesOf(message);
  return statuses.length > 0 ? reported(statuses) : toldInProse(message);
}

// Gateways turn the status part into plain text.
function statusesOf(message: ClassifiableMessage): RecipientStatus[] {
  const statuses = message.deliveryStatus.flatMap(readDeliveryStatus);
  if (statuses.length > 0 || !/^final-recipient:/im.test(message.text) || !isFromMachine(message)) return statuses;
  return readDeliveryStatus(message.text);
}

function reported(statuses: readonly RecipientStatus[]): ClassifiedMessage {
  const failed = failedRecipients(statuses);
  if (failed.length > 0) {
    const said = bounce(failed, (named) => `a delivery status notification (RFC 3464): failed for ${named}`);
    return { ...said, reports: statuses.map(reportOf) };
  }
  const actions = [...new Set(statuses.map(({ action, address }) => `${action} for ${address}`))].slice(0, 5);
  const said = report(`a delivery status notification (RFC 3464): ${actions.join(", ")}`);
  return { ...said, reports: statuses.map(reportOf) };
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
    return machine && SUCCESS_SUBJECT.test(subject) ? report("a mail system reports a delivery") : null;
  }
  const addresses = named === null ? failedInText(message.text, notMeant(message)) : namedIn(named, message.text);
  const failed = addresses.map((address) => ({
    address,
    permanent: !/\b4\.\d\.\d{1,3}\b/.test(words) || /\b5\.\d\.\d{1,3}\b/.test(words),
    diagnostic: lineAbout(address, words),
  }));
  if (saysDelayed(subject, words)) return late(message);
  return bounce(failed, (whom) => `a mail system says it could not deliver to ${whom}`);
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

// People write about failed deliveries as well, and forward bounces; a machine's hand has to show in more than the words.
function isAboutFailure(message: ClassifiableMessage, subject: string, words: string, machine: boolean): boolean {
  const subjectFails = FAILURE_SUBJECT.test(subject);
  const textFails = () => FAILURE_TEXT.test(words);
  if (isFromMailer(message.fromAddress, message.fromName)) return subjectFails || textFails();
  if (headerValue(message.headers, "list-id") !== null || AUTOMATIC_SUBJECT.test(subject)) return false;
  if (machine) return subjectFails ? message.isReport || textFails() : message.isReport && textFails();
  return subjectFails && textFails() && message.returnsCopy && /\b5\d\d\b|\b5\.\d\.\d\b/.test(words);
}

function notMeant(message: ClassifiableMessage): EmailAddress[] {
  return [...(message.fromAddress === null ? [] : [message.fromAddress]), ...message.toAddresses];
}

function namedIn(field: string, text: string): EmailAddress[] {
  const addresses = failedInText(field.replace(/[,;\s]+/g, "\n"), []);
  return addresses.length > 0 ? addresses : failedInText(text, []);
}

const MAX_DIAGNOSTIC_CHARACTERS = 300;

function lineAbout(address: EmailAddress, words: string): string {
  const lines = words.split("\n").map((line) => line.trim());
  const code = lines.find((line) => /\b[45]\d\d[ -]|\b[45]\.\d\.\d{1,3}\b/.test(line));
  return (code ?? lines.find((line) => line.toLowerCase().includes(address)) ?? "").slice(0, MAX_DIAGNOSTIC_CHARACTERS);
}

function bounce(failed: readonly FailedRecipient[], say: (named: string) => string): ClassifiedMessage {
  const named = failed.map(({ address }) => address).join(", ") || "a recipient it does not name";
  const reports = failed.map(
    ({ address, diagnostic }): RecipientReport => ({ address, state: "failed", detail: diagnostic }),
  );
  return { classification: { kind: "bounce", reason: say(named) }, failedRecipients: failed, reports };
}

function late(message: ClassifiableMessage): ClassifiedMessage {
  const reports = failedInText(message.text, notMeant(message)).map(
    (address): RecipientReport => ({ address, state: "delayed", detail: "" }),
  );
  return { ...report("a mail system says that a delivery is late and goes on trying"), reports };
}

function report(reason: string): ClassifiedMessage {
  return { classification: { kind: "delivery-report", reason }, failedRecipients: [], reports: [] };
}
