import type { EmailAddress, Mailbox } from "../kernel/email-address";
import type { MessageKind } from "../message/mail-message";
import { referencesForReply } from "../message/message-ids";

/** A message of the conversation, as far as answering looks at it; in order of time. */
export type AnsweredMessage = {
  readonly direction: "in" | "out";
  readonly kind: MessageKind;
  readonly messageId: string | null;
  readonly inReplyTo: readonly string[];
  readonly references: readonly string[];
  readonly subject: string;
  readonly fromName: string;
  readonly fromAddress: EmailAddress;
  readonly recipients: {
    readonly to: readonly Mailbox[];
    readonly cc: readonly Mailbox[];
    readonly replyTo: readonly Mailbox[];
  };
};

/** How an answer to a conversation begins. */
export type AnswerPlan = {
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  readonly subject: string;
  readonly inReplyTo: string | null;
  readonly references: readonly string[];
};

/**
 * The answer's fields by RFC 5322 3.6.3 and 3.6.4: it goes to Reply-To or From of the newest message by a person outside,
 * with the others it was addressed to in Cc, none of them ours. With no such message it goes where our last one went.
 * `ours` are the tray's own addresses.
 */
export function planAnswer(messages: readonly AnsweredMessage[], ours: readonly EmailAddress[] = []): AnswerPlan {
  const theirs = messages.findLast(
    ({ direction, kind }) => direction === "in" && (kind === "person" || kind === "calendar"),
  );
  const parent = theirs ?? messages.at(-1);
  if (parent === undefined) return { to: [], cc: [], subject: "", inReplyTo: null, references: [] };
  const outside = (mailboxes: readonly Mailbox[]) => mailboxes.filter((mailbox) => !ours.includes(mailbox.address));
  const sender = { name: parent.fromName, address: parent.fromAddress };
  const replyTo = parent.recipients.replyTo.length > 0 ? parent.recipients.replyTo : [sender];
  const to = parent.direction === "out" ? parent.recipients.to : outside(replyTo);
  const others = parent.direction === "out" ? parent.recipients.cc : [...parent.recipients.to, ...parent.recipients.cc];
  const cc = outside(others).filter((other) => !to.some((mailbox) => mailbox.address === other.address));
  // The newest of all is what the writer has read, whoever wrote it.
  const newest = messages.findLast(({ kind }) => kind === "person" || kind === "calendar") ?? parent;
  return {
    to,
    cc,
    subject: replySubject(parent.subject),
    inReplyTo: newest.messageId,
    references: referencesForReply(newest),
  };
}

/** "Re: " before the subject, once (RFC 5322 3.6.5). */
export function replySubject(subject: string): string {
  return /^re\s*:/i.test(subject) ? subject : `Re: ${subject}`.trim();
}
