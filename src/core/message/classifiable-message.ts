import type { EmailAddress } from "../kernel/email-address";
import type { Classification, FailedRecipient, Header, RecipientReport } from "./mail-message";

/** What the classification looks at. */
export type ClassifiableMessage = {
  readonly headers: readonly Header[];
  readonly fromAddress: EmailAddress | null;
  readonly fromName: string;
  /** Those it is addressed to in To. */
  readonly toAddresses: readonly EmailAddress[];
  /** Envelope sender (RFC 5321 MAIL FROM) or Return-Path: an empty text for `<>`, null when it is not known. */
  readonly envelopeSender: string | null;
  /** Whether it is a multipart/report about a delivery (RFC 6522), whatever is in it. */
  readonly isReport: boolean;
  /** The beginnings of the messages, or of their headers, that it carries. */
  readonly copies: readonly string[];
  /** What reports that it carries whole say: a report within a report. */
  readonly enclosed: readonly ClassifiedMessage[];
  /** Text of the message/delivery-status parts. */
  readonly deliveryStatus: readonly string[];
  /** Text of the message/disposition-notification parts (RFC 8098). */
  readonly dispositions: readonly string[];
  readonly text: string;
  /** METHOD of a text/calendar part (RFC 5546 1.4), null when there is no such part. */
  readonly calendarMethod: string | null;
};

export type ClassifiedMessage = {
  readonly classification: Classification;
  readonly failedRecipients: readonly FailedRecipient[];
  readonly reports: readonly RecipientReport[];
};
