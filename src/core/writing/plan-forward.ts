import { type Mailbox, printMailboxes } from "../kernel/email-address";

/** A message that is passed on, as far as its first lines say what it was. */
export type ForwardedMessage = {
  readonly subject: string;
  readonly fromName: string;
  readonly fromAddress: Mailbox["address"];
  readonly to: readonly Mailbox[];
  readonly sentAt: string;
  readonly ownText: string;
};

/** How a message that is passed on begins: its subject, the lines of its head, and its own text after them. */
export type ForwardPlan = { readonly subject: string; readonly head: readonly string[]; readonly text: string };

/** "Fwd: " before the subject, once; the head names the fields of RFC 5322 3.6 that a reader wants to know. */
export function planForward({ subject, fromName, fromAddress, to, sentAt, ownText }: ForwardedMessage): ForwardPlan {
  return {
    subject: /^(fwd?|fw)\s*:/i.test(subject) ? subject : `Fwd: ${subject}`.trim(),
    head: [
      `From: ${printMailboxes([{ name: fromName, address: fromAddress }])}`,
      `To: ${printMailboxes(to)}`,
      `Date: ${sentAt}`,
      `Subject: ${subject}`,
    ],
    text: ownText,
  };
}
