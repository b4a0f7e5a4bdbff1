import type { ThreadedMessage } from "./place-message";

/** A message and all that hang on it: its answers, theirs, and so on, in the order they are given in. */
export function branchOf<Message extends ThreadedMessage>(messages: readonly Message[], root: Message): Message[] {
  const branch = new Set<Message>([root]);
  const ids = new Set(root.messageId === null ? [] : [root.messageId]);
  // An answer may stand before what it answers, as clocks differ; a second look finds it.
  for (let size = 0; size < branch.size; ) {
    size = branch.size;
    for (const message of messages) {
      if (branch.has(message) || ![...message.inReplyTo, ...message.references].some((id) => ids.has(id))) continue;
      branch.add(message);
      if (message.messageId !== null) ids.add(message.messageId);
    }
  }
  return messages.filter((message) => branch.has(message));
}
