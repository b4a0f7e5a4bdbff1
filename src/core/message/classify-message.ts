import { type EmailAddress, looseAddress } from "../kernel/email-address";
import { failedRecipients, readDeliveryStatus } from "./delivery-status";
import { type Classification, type FailedRecipient, type Header, headerValue } from "./mail-message";

/** What the classification looks at. */
export type ClassifiableMessage = {
  readonly headers: readonly Header[];
  readonly fromAddress: EmailAddress | null;
  /** Envelope sender (RFC 5321 MAIL FROM) or Return-Path: an empty text for `<>`, null when it is not known. */
  readonly envelopeSender: string | null;
  /** Text of the message/delivery-status parts. */
  readonly deliveryStatus: readonly string[];
  readonly text: string;
  /** METHOD of a text/calendar part (RFC 5546 1.4), null when there is no such part. */
  readonly calendarMethod: string | null;
};

export type ClassifiedMessage = {
  readonly classification: Classification;
  readonly failedRecipients: readonly FailedRecipient[];
};

/** What kind of message it is, by the first rule that speaks, with the reason in words. */
export function classifyMessage(message: ClassifiableMessage): ClassifiedMessage {
  return (
    deliveryStatusKind(message) ??
    plainBounceKind(message) ??
    withoutRecipients(calendarKind(message) ?? automaticKind(message) ?? listKind(message)) ?? {
      classification: { kind: "person", reason: "nothing in it says that a machine sent it" },
      failedRecipients: [],
    }
  );
}

function withoutRecipients(classification: Classification | null): ClassifiedMessage | null {
  return classification === null ? null : { classification, failedRecipients: [] };
}

function deliveryStatusKind(message: ClassifiableMessage): ClassifiedMessage | null {
  const contentType = headerValue(message.headers, "content-type")?.toLowerCase() ?? "";
  const isReport = contentType.startsWith("multipart/report");
  if (isReport && contentType.includes("disposition-notification")) {
    return withoutRecipients({ kind: "automatic", reason: "a disposition notification (RFC 8098)" });
  }
  const statuses = message.deliveryStatus.flatMap(readDeliveryStatus);
  if (statuses.length === 0) return null;
  const failed = failedRecipients(statuses);
  if (failed.length > 0) {
    const named = failed.map((recipient) => recipient.address).join(", ");
    return {
      classification: { kind: "bounce", reason: `a delivery status notification: failed for ${named}` },
      failedRecipients: failed,
    };
  }
  const actions = [...new Set(statuses.map((status) => status.action))].join(", ");
  return withoutRecipients({ kind: "delivery-report", reason: `a delivery status notification: ${actions}` });
}

const MAILER = /^(mailer-daemon|postmaster|mail-daemon|mailerdaemon)@/;
const FAILURE_WORDS =
  /undeliver|could not be delivered|delivery (has )?failed|delivery failure|returned to sender|failure notice|user unknown|mailbox unavailable|no such user|550[ -]5?/i;

// Bounces from before RFC 3464 and from systems that never took it up.
function plainBounceKind(message: ClassifiableMessage): ClassifiedMessage | null {
  const named = headerValue(message.headers, "x-failed-recipients");
  const fromMailer = message.fromAddress !== null && MAILER.test(message.fromAddress);
  const subject = headerValue(message.headers, "subject") ?? "";
  const saysFailure = FAILURE_WORDS.test(subject) || FAILURE_WORDS.test(message.text.slice(0, 4_000));
  if (named === null && !(fromMailer && saysFailure)) return null;
  const addresses = named?.split(",") ?? addressesBeforeQuote(message.text, message.fromAddress);
  const failed = addresses.map((address) => ({ address: looseAddress(address), permanent: true, diagnostic: "" }));
  const whom = failed.map((recipient) => recipient.address).join(", ") || "a recipient it does not name";
  return {
    classification: { kind: "bounce", reason: `a mail system says it could not deliver to ${whom}` },
    failedRecipients: failed,
  };
}

// The returned copy of our own message follows the report and would name its sender, us, as failed.
function addressesBeforeQuote(text: string, reporter: EmailAddress | null): string[] {
  const report = text.slice(0, 8_000).split(/^-{3,}.*(?:original|copy|returned).*$/im)[0] ?? "";
  const found = report.match(/[\w.+-]{1,64}@[\w-]{1,63}(?:\.[\w-]{1,63}){1,8}/g) ?? [];
  return [...new Set(found.map((address) => address.toLowerCase()))]
    .filter((address) => address !== reporter)
    .slice(0, 1);
}

function calendarKind(message: ClassifiableMessage): Classification | null {
  if (message.calendarMethod === null) return null;
  return { kind: "calendar", reason: `carries a calendar ${message.calendarMethod.toLowerCase()} (RFC 5546)` };
}

function automaticKind(message: ClassifiableMessage): Classification | null {
  const value = (name: string) => headerValue(message.headers, name)?.trim().toLowerCase() ?? null;
  const autoSubmitted = value("auto-submitted");
  if (autoSubmitted !== null && !/^no\b/.test(autoSubmitted)) {
    return { kind: "automatic", reason: `Auto-Submitted: ${autoSubmitted.slice(0, 60)} (RFC 3834)` };
  }
  for (const name of ["x-autoreply", "x-autorespond", "x-autoresponder", "x-auto-reply-from"]) {
    if (value(name) !== null && value(name) !== "no") return { kind: "automatic", reason: `carries ${name}` };
  }
  if (value("precedence") === "auto_reply") return { kind: "automatic", reason: "Precedence: auto_reply" };
  if (message.envelopeSender === "" && value("list-id") === null) {
    return { kind: "automatic", reason: "empty return path: its sender wants no answer (RFC 5321 4.5.5)" };
  }
  if (message.fromAddress !== null && /^(no-?reply|do-?not-?reply)@/.test(message.fromAddress)) {
    return { kind: "automatic", reason: "its sender takes no answers" };
  }
  return null;
}

function listKind(message: ClassifiableMessage): Classification | null {
  const listId = headerValue(message.headers, "list-id");
  if (listId !== null) return { kind: "list", reason: `List-Id: ${listId.slice(0, 80)} (RFC 2919)` };
  for (const name of ["list-post", "list-unsubscribe"]) {
    if (headerValue(message.headers, name) !== null) return { kind: "list", reason: `carries ${name} (RFC 2369)` };
  }
  const precedence = headerValue(message.headers, "precedence")?.trim().toLowerCase() ?? "";
  if (precedence === "bulk" || precedence === "list" || precedence === "junk") {
    return { kind: "list", reason: `Precedence: ${precedence}` };
  }
  return null;
}
