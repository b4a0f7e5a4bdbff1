import type { EmailAddress } from "../../core/kernel/email-address";
import type { ConversationId } from "../../core/kernel/ids";
import { dateOf, type Instant } from "../../core/kernel/instant";
import type { PrintedPart } from "../../mail/index";
import { type MessageOnRecord, notesOf } from "../../storage/records/index";
import { conversationTexts } from "../../texts/en/conversation";
import { saidOf } from "../../texts/said";
import type { Deps } from "../base/deps";
import { writtenDown } from "../base/written-down";

const said = saidOf(conversationTexts);

/** A conversation that is to be printed. */
export type ToPrint = {
  readonly id: ConversationId;
  readonly subject: string;
  /** What stands below the subject. */
  readonly about: string;
  readonly messages: readonly MessageOnRecord[];
  readonly withNotes: boolean;
  readonly nameOf: (memberId: string | null) => string;
};

/** A conversation as a PDF: its messages, the notes among them where they are wanted, in order of time. */
export async function printConversation(
  deps: Deps,
  { id, subject, about, messages, withNotes, nameOf }: ToPrint,
): Promise<Uint8Array> {
  const notes = withNotes ? await notesOf(deps.db, [id]) : [];
  const parts = [
    ...messages.map((message) => ({ at: message.sentAt, part: printedMessage(message) })),
    ...notes.map(({ by, at, text }) => ({ at, part: printedNote(nameOf(by), at, text) })),
  ].toSorted((a, b) => a.at - b.at);
  const printed = {
    subject,
    about,
    parts: parts.map(({ part }) => part),
    made: dateOf(parts.at(-1)?.at ?? deps.now()),
  };
  // One that cannot be laid out holds up nothing else that is taken out with it.
  return deps.aside
    .pdf(printed)
    .catch(() =>
      deps.aside.pdf({ ...printed, subject: writtenDown(said("conversation.tooLargeToPrint")), parts: [TOO_LARGE] }),
    );
}

const TOO_LARGE: PrintedPart = {
  kind: "note",
  head: [],
  text: writtenDown(said("conversation.tooLargeToLayOut")),
  attachments: [],
};

const inFull = (at: Instant) => dateOf(at).toUTCString();

function printedMessage(message: MessageOnRecord): PrintedPart {
  const { to, cc } = message.recipients;
  const head: (readonly [string, string])[] = [
    ["From", mailboxLine({ name: message.fromName, address: message.fromAddress })],
    ["To", to.map(mailboxLine).join(", ")],
    ["Cc", cc.map(mailboxLine).join(", ")],
    ["Date", inFull(message.sentAt)],
    ["Subject", message.subject],
  ];
  return {
    kind: "message",
    head: head.filter(([, text]) => text !== ""),
    text: [message.ownText, message.restText].filter((text) => text !== "").join("\n\n"),
    attachments: message.attachments.filter(({ inline }) => !inline).map(({ fileName }) => fileName),
  };
}

function printedNote(by: string, at: Instant, text: string): PrintedPart {
  return { kind: "note", head: [["Note", `${by}, ${inFull(at)}`]], text, attachments: [] };
}

/** Somebody as she stands in a header. */
export const mailboxLine = ({ name, address }: { readonly name: string; readonly address: EmailAddress }) =>
  name === "" ? address : `${name} <${address}>`;
