import type { EmailAddress } from "../kernel/email-address";
import { DAY, type Instant } from "../kernel/instant";
import { baseSubject } from "./base-subject";
import { placeMessage, type ThreadedMessage, threadIds } from "./place-message";

/** What placing a whole mailbox looks at. */
export type PlacedMessage = ThreadedMessage & {
  readonly date: Instant | null;
  readonly subject: string;
  readonly from: EmailAddress | null;
  readonly recipients: readonly EmailAddress[];
  readonly isList: boolean;
  /** The ids of the message that it reports on; empty for what is no report. */
  readonly reportedIds: readonly string[];
};

/** An answer that names no message belongs to a subject of these days before or after it, or to none, in milliseconds. */
export const SUBJECT_WITHIN = 60 * DAY;

/**
 * Whose conversation an answer that names no message goes to: the writer's, or for one of our own that of the first outside
 * whom it is for; null where there is nobody. Our own address is part of everything, and tells nothing.
 */
export function correspondentOf(
  { from, recipients }: Pick<PlacedMessage, "from" | "recipients">,
  ours: readonly EmailAddress[],
): EmailAddress | null {
  if (from === null || !ours.includes(from)) return from;
  return recipients.find((address) => !ours.includes(address)) ?? null;
}

type Conversation<Message> = { readonly messages: Message[]; readonly people: Set<EmailAddress>; newest: number };

/**
 * The conversations of a mailbox as a tray would come to them, were its messages delivered in this order: by the ids that
 * they name, else an answer by its subject and correspondent. Each is in order of date, undated last; conversations are in
 * order of their first message.
 */
export function placeAll<Message extends PlacedMessage>(
  messages: readonly Message[],
  ours: readonly EmailAddress[],
): Message[][] {
  const tray: Tray<Message> = { known: new Map(), bySubject: new Map(), all: new Set() };
  for (const message of messages) place(tray, message, ours);
  const inOrder = [...tray.all].map((one) => one.messages.toSorted((a, b) => dateOf(a) - dateOf(b)));
  return inOrder.toSorted((a, b) => firstDate(a) - firstDate(b));
}

type Tray<Message> = {
  /** The conversation of each id that was seen or named. */
  readonly known: Map<string, Conversation<Message>>;
  /** The conversations by the subject, without its prefixes, of what began them. */
  readonly bySubject: Map<string, Conversation<Message>[]>;
  readonly all: Set<Conversation<Message>>;
};

function place<Message extends PlacedMessage>(
  tray: Tray<Message>,
  message: Message,
  ours: readonly EmailAddress[],
): void {
  const { known, bySubject, all } = tray;
  const { base } = baseSubject(message.subject);
  const placement = placeMessage(message, known);
  const reported = message.reportedIds.map((id) => known.get(id)).find((one) => one !== undefined);
  const named = placement.kind === "joins" ? placement.conversation : null;
  const home = reported ?? named ?? homeBySubject(message, ours, bySubject.get(base) ?? []);
  const conversation: Conversation<Message> = home ?? { messages: [], people: new Set(), newest: 0 };
  if (home === null) bySubject.set(base, [...(bySubject.get(base) ?? []), conversation]);
  all.add(conversation);
  add(conversation, message);
  for (const id of [...message.reportedIds, ...threadIds(message)]) if (!known.has(id)) known.set(id, conversation);
  if (placement.kind === "joins" && placement.piece !== null && placement.piece !== conversation)
    join(tray, placement.piece, conversation);
}

function join<Message extends PlacedMessage>(
  { known, bySubject, all }: Tray<Message>,
  piece: Conversation<Message>,
  into: Conversation<Message>,
): void {
  for (const message of piece.messages) add(into, message);
  for (const [id, one] of known) if (one === piece) known.set(id, into);
  const { base } = baseSubject(piece.messages[0]?.subject ?? "");
  const others = (bySubject.get(base) ?? []).filter((one) => one !== piece);
  bySubject.set(base, others);
  all.delete(piece);
}

function add<Message extends PlacedMessage>(conversation: Conversation<Message>, message: Message): void {
  conversation.messages.push(message);
  for (const address of [...(message.from === null ? [] : [message.from]), ...message.recipients])
    conversation.people.add(address);
  conversation.newest = Math.max(conversation.newest, message.date ?? 0);
}

function homeBySubject<Message extends PlacedMessage>(
  message: Message,
  ours: readonly EmailAddress[],
  alike: readonly Conversation<Message>[],
): Conversation<Message> | null {
  const { base, isReply } = baseSubject(message.subject);
  const names = message.inReplyTo.length + message.references.length;
  const correspondent = correspondentOf(message, ours);
  if (!isReply || base === "" || names > 0 || message.isList || correspondent === null) return null;
  const written = message.date ?? 0;
  const candidates = alike.filter(
    (one) => Math.abs(one.newest - written) < SUBJECT_WITHIN && one.people.has(correspondent),
  );
  return candidates.toSorted((a, b) => b.newest - a.newest)[0] ?? null;
}

const dateOf = ({ date }: PlacedMessage) => date ?? Number.MAX_SAFE_INTEGER;
const firstDate = ([first]: readonly PlacedMessage[]) =>
  first === undefined ? Number.MAX_SAFE_INTEGER : dateOf(first);

const OURS_FROM = 3;

/** The addresses that are in at least half of some messages, as a mailbox's own are; none where there are fewer than three. */
export function commonAddresses(messages: readonly Pick<PlacedMessage, "from" | "recipients">[]): EmailAddress[] {
  if (messages.length < OURS_FROM) return [];
  const counts = new Map<EmailAddress, number>();
  for (const { from, recipients } of messages)
    for (const address of new Set([...(from === null ? [] : [from]), ...recipients]))
      counts.set(address, (counts.get(address) ?? 0) + 1);
  return [...counts].filter(([, count]) => count * 2 >= messages.length).map(([address]) => address);
}
