import type { EmailAddress, Mailbox } from "../kernel/email-address";
import { referencesForReply } from "../message/message-ids";

/** What can stand in a text for what is known only when it goes. */
const ANSWER_BLANKS = ["back", "colleague", "cover"] as const;
type AnswerBlank = (typeof ANSWER_BLANKS)[number];

const BLANK = /\[([a-z-]+)\]/gi;

/** The blanks of a text that are none, each once. */
export function unknownBlanks(text: string): string[] {
  const names = [...text.matchAll(BLANK)].map(([, name = ""]) => name.toLowerCase());
  return [...new Set(names.filter((name) => !(ANSWER_BLANKS as readonly string[]).includes(name)))];
}

/** A text with what stands for its blanks. */
export function filledText(text: string, values: Readonly<Record<AnswerBlank, string>>): string {
  return text.replace(BLANK, (whole, name: string) => {
    const blank = ANSWER_BLANKS.find((one) => one === name.toLowerCase());
    return blank === undefined ? whole : values[blank];
  });
}

/** The message that is answered. */
export type AnsweredLetter = {
  readonly messageId: string | null;
  readonly inReplyTo: readonly string[];
  readonly references: readonly string[];
  readonly subject: string;
  readonly fromName: string;
  readonly fromAddress: EmailAddress | null;
};

/** The fields of an automatic answer (RFC 3834 3.1), but for its text. */
export type AnswerFields = {
  readonly to: Mailbox;
  readonly subject: string;
  readonly inReplyTo: string | null;
  readonly references: readonly string[];
  readonly headers: Readonly<Record<string, string>>;
};

const MAX_SUBJECT = 200;

/** Says what it is in its header (RFC 3834 5), and names what it answers (RFC 5322 3.6.4). */
export function answerFields(to: EmailAddress, message: AnsweredLetter): AnswerFields {
  const { messageId, subject, fromName, fromAddress } = message;
  return {
    to: { name: fromAddress === to ? fromName : "", address: to },
    subject: `Auto: ${subject}`.trim().slice(0, MAX_SUBJECT),
    inReplyTo: messageId,
    references: referencesForReply(message),
    headers: { "Auto-Submitted": "auto-replied" },
  };
}
