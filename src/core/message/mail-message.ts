import type { Said } from "../../texts/said";
import type { EmailAddress, Mailbox } from "../kernel/email-address";
import type { Instant } from "../kernel/instant";
import type { Appointment } from "./appointment";

/** One header field, name in lower case, value unfolded and decoded. */
export type Header = { readonly name: string; readonly value: string };

/**
 * Who or what wrote a message:
 * person; automatic (RFC 3834); bounce and delivery-report (RFC 3464: failed, and everything else that a mail system
 * reports of a delivery); list (RFC 2369, RFC 2919); calendar (RFC 5546).
 */
export const MESSAGE_KINDS = ["person", "automatic", "bounce", "delivery-report", "list", "calendar"] as const;
export type MessageKind = (typeof MESSAGE_KINDS)[number];

/** Kind and the reason for it, as the docket says it. */
export type Classification = { readonly kind: MessageKind; readonly reason: Said };

/** A recipient that a bounce says could not be reached. */
export type FailedRecipient = {
  readonly address: EmailAddress;
  /** The address as we wrote to it, where the report names another one too (RFC 3464 2.3.1). */
  readonly original?: EmailAddress;
  /** Permanent when the status is 5.x.x (RFC 3463) or the report says nothing of trying again. */
  readonly permanent: boolean;
  readonly diagnostic: string;
};

/** What became of a message for one recipient, as a mail system reports it. */
export type RecipientReport = {
  readonly address: EmailAddress;
  readonly state: "delivered" | "relayed" | "delayed" | "failed";
  readonly detail: string;
};

/** A part that is carried along: `index` counts the attachments of the message in order. */
export type Attachment = {
  readonly index: number;
  readonly fileName: string;
  readonly contentType: string;
  readonly size: number;
  readonly sha256: string;
  readonly inline: boolean;
  readonly contentId: string | null;
};

/** How a message is signed or encrypted; nothing is verified or opened. */
export type Protection = "signed-smime" | "encrypted-smime" | "signed-openpgp" | "encrypted-openpgp";

/** A message understood: everything derived from the raw bytes, nothing from anywhere else. */
export type MailMessage = {
  /** Its header fields in their order, as far as they are kept. */
  readonly headers: readonly Header[];
  /** The addresses in the fields that have some (RFC 5322 3.6.2, 3.6.3, 3.6.6), by the names of the fields. */
  readonly addressFields: ReadonlyMap<string, readonly string[]>;
  /** Without angle brackets; null when there is none or it is unusable. */
  readonly messageId: string | null;
  /** Null when the Date field is missing or unreadable. */
  readonly date: Instant | null;
  readonly from: Mailbox | null;
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  readonly replyTo: readonly Mailbox[];
  readonly subject: string;
  readonly inReplyTo: readonly string[];
  readonly references: readonly string[];
  /** The readable text: the text part, or the HTML part as text. */
  readonly text: string;
  /** `text` without quoted history and signature. */
  readonly ownText: string;
  /** What `ownText` leaves out. */
  readonly restText: string;
  /** The texts of its other parts: of text files that it carries, and of another form of the same that says less. */
  readonly otherTexts: readonly string[];
  readonly html: string | null;
  /** Which of them says more; "text" where there is no HTML. */
  readonly betterPart: "text" | "html";
  /** What its calendar parts say, in order. */
  readonly appointments: readonly Appointment[];
  readonly classification: Classification;
  readonly failedRecipients: readonly FailedRecipient[];
  /** What a report says of each recipient of our message, failed or not. */
  readonly reports: readonly RecipientReport[];
  /** Message-IDs of the message that a report is about. */
  readonly reportedIds: readonly string[];
  readonly list: string | null;
  /** The URIs of List-Unsubscribe (RFC 2369), the sender's preferred one first. */
  readonly unsubscribe: readonly string[];
  /** Whether List-Unsubscribe-Post says that one POST leaves the list (RFC 8058). */
  readonly saysOneClick: boolean;
  readonly attachments: readonly Attachment[];
  readonly protection: Protection | null;
  /** Whether its HTML would fetch pictures from elsewhere. */
  readonly hasRemoteContent: boolean;
  /** The values of its Authentication-Results fields (RFC 8601), whoever wrote them. */
  readonly authenticationResults: readonly string[];
  /** Whether it carries a DKIM-Signature (RFC 6376); whether that holds is another matter. */
  readonly isSigned: boolean;
  /** When it stops to matter, as its header says; null where it says nothing. */
  readonly expiresAt: Instant | null;
  /** What was odd about it, in words; the message is kept all the same. */
  readonly warnings: readonly string[];
};

/** The first value of a field, or null. */
export function headerValue(headers: readonly Header[], name: string): string | null {
  return headers.find((header) => header.name === name)?.value ?? null;
}
