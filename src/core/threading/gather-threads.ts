import type { Instant } from "../kernel/instant";
import { type ThreadedMessage, threadIds } from "./place-message";

type DatedMessage = ThreadedMessage & { readonly date: Instant | null };

/**
 * The conversations in a whole mailbox, in whatever order its messages come: messages that name each other, or the same
 * third one, stand together (the sets of RFC 5256 REFERENCES without its merging by subject). Each conversation is in order
 * of date, undated last; conversations are in order of their first message.
 */
export function gatherThreads<Message extends DatedMessage>(messages: readonly Message[]): Message[][] {
  const parents = new Map<string, string>();
  const root = (id: string): string => {
    let at = id;
    for (let up = parents.get(at); up !== undefined && up !== at; up = parents.get(at)) {
      parents.set(at, parents.get(up) ?? up);
      at = up;
    }
    return at;
  };
  const keys = messages.map((message, at) => {
    const ids = threadIds(message);
    // "\n" cannot stand in an id: a message without any is alone.
    const key = ids[0] ?? `\n${at}`;
    for (const id of ids) parents.set(root(id), root(key));
    return key;
  });
  const threads = new Map<string, Message[]>();
  messages.forEach((message, at) => {
    const name = root(keys[at] ?? "");
    const thread = threads.get(name);
    if (thread === undefined) threads.set(name, [message]);
    else thread.push(message);
  });
  return [...threads.values()].map((thread) => thread.toSorted(byDate)).toSorted((a, b) => firstDate(a) - firstDate(b));
}

function byDate(a: DatedMessage, b: DatedMessage): number {
  return (a.date ?? Number.MAX_SAFE_INTEGER) - (b.date ?? Number.MAX_SAFE_INTEGER);
}

function firstDate(thread: readonly DatedMessage[]): number {
  return thread[0]?.date ?? Number.MAX_SAFE_INTEGER;
}
