import type { EmailAddress } from "../kernel/email-address";
import { DAY, type Instant } from "../kernel/instant";
import { baseSubject } from "./base-subject";
import type { ThreadedMessage } from "./place-message";

/** What gathering looks at. */
export type GatheredMessage = ThreadedMessage & {
  readonly date: Instant | null;
  readonly subject: string;
  /** List-Id (RFC 2919); null when it is no list mail. */
  readonly list: string | null;
  /** Sender and recipients; nobody but the sender where an archive leaves the recipients out. */
  readonly people: readonly EmailAddress[];
};

type Node<Message> = { message: Message | null; parent: Node<Message> | null; children: Set<Node<Message>> };

// An answer that names no message belongs to a subject of these last days, or to none.
const MAX_APART = 60 * DAY;

/**
 * The conversations in a whole mailbox, in whatever order its messages come: REFERENCES of RFC 5256. Its step 5, which
 * merges by subject, is taken in full only for mail of one list or archive; other mail is merged by subject only when one
 * is an answer, somebody is in both, and they are days apart, as offices get many an "Invoice". Each conversation is in
 * order of date, undated last; conversations are in order of their first message.
 */
export function gatherThreads<Message extends GatheredMessage>(messages: readonly Message[]): Message[][] {
  const threads = rootsOf(messages).map((root) => messagesBelow(root).toSorted(byDate));
  const gathered = mergedBySubject(threads).map((thread) => thread.toSorted(byDate));
  return gathered.toSorted((a, b) => firstDate(a) - firstDate(b));
}

function rootsOf<Message extends GatheredMessage>(messages: readonly Message[]): Node<Message>[] {
  const nodes = new Map<string, Node<Message>>();
  const all: Node<Message>[] = [];
  const made = (): Node<Message> => {
    const node = { message: null, parent: null, children: new Set<Node<Message>>() };
    all.push(node);
    return node;
  };
  const named = (id: string): Node<Message> => {
    const known = nodes.get(id);
    if (known !== undefined) return known;
    const node = made();
    nodes.set(id, node);
    return node;
  };
  for (const message of messages) {
    const own = message.messageId === null ? made() : named(message.messageId);
    // RFC 5256: of two messages with one id, the second counts as having an id of its own.
    const node = own.message === null ? own : made();
    node.message = message;
    const parents = message.references.length > 0 ? message.references : message.inReplyTo.slice(0, 1);
    let parent: Node<Message> | null = null;
    for (const id of parents) {
      const next = named(id);
      if (parent !== null && next.parent === null) link(parent, next);
      parent = next;
    }
    // What its own References say counts more than what a shortened one elsewhere said.
    unlink(node);
    if (parent !== null) link(parent, node);
  }
  return all.filter((node) => node.parent === null);
}

function link<Message>(parent: Node<Message>, child: Node<Message>): void {
  if (parent === child || (child.children.size > 0 && isBelow(parent, child))) return;
  child.parent = parent;
  parent.children.add(child);
}

function unlink<Message>(node: Node<Message>): void {
  node.parent?.children.delete(node);
  node.parent = null;
}

function isBelow<Message>(node: Node<Message>, above: Node<Message>): boolean {
  for (let at: Node<Message> | null = node; at !== null; at = at.parent) if (at === above) return true;
  return false;
}

function messagesBelow<Message>(root: Node<Message>): Message[] {
  const found: Message[] = [];
  const open = [root];
  for (let node = open.pop(); node !== undefined; node = open.pop()) {
    if (node.message !== null) found.push(node.message);
    for (const child of node.children) open.push(child);
  }
  return found;
}

function mergedBySubject<Message extends GatheredMessage>(threads: readonly Message[][]): Message[][] {
  const merged: Message[][] = [];
  const bySubject = new Map<string, Message[][]>();
  for (const thread of threads.filter(({ length }) => length > 0).toSorted((a, b) => firstDate(a) - firstDate(b))) {
    const first = thread[0];
    const base = first === undefined ? "" : baseSubject(first.subject).base;
    const candidates = bySubject.get(base) ?? [];
    const home = base === "" ? undefined : candidates.find((candidate) => belongTogether(candidate, thread));
    if (home !== undefined) {
      home.push(...thread);
      continue;
    }
    const own = [...thread];
    merged.push(own);
    bySubject.set(base, [...candidates, own]);
  }
  return merged;
}

function belongTogether(a: readonly GatheredMessage[], b: readonly GatheredMessage[]): boolean {
  const [first, second] = [a[0], b[0]];
  if (first === undefined || second === undefined) return false;
  if (first.list !== null && first.list === second.list) return true;
  const archived = (message: GatheredMessage) => message.list === null && message.people.length <= 1;
  if (archived(first) && archived(second)) return true;
  if (!baseSubject(first.subject).isReply && !baseSubject(second.subject).isReply) return false;
  const apart = Math.abs(firstDate(b) - Math.max(...a.map((message) => message.date ?? 0)));
  const people = new Set(a.flatMap((message) => message.people));
  return apart <= MAX_APART && b.some((message) => message.people.some((person) => people.has(person)));
}

function byDate(a: GatheredMessage, b: GatheredMessage): number {
  return (a.date ?? Number.MAX_SAFE_INTEGER) - (b.date ?? Number.MAX_SAFE_INTEGER);
}

function firstDate(thread: readonly GatheredMessage[]): number {
  return thread[0]?.date ?? Number.MAX_SAFE_INTEGER;
}
