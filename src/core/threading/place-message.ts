/** What threading looks at (RFC 5322 3.6.4): ids without angle brackets, `references` from the oldest to the nearest. */
export type ThreadedMessage = {
  readonly messageId: string | null;
  readonly inReplyTo: readonly string[];
  readonly references: readonly string[];
};

/** Where a message goes. */
export type Placement<Conversation> =
  | {
      readonly kind: "joins";
      readonly conversation: Conversation;
      readonly by: string;
      /** Another conversation that answers this message already: it turns out to be a piece of the same one. */
      readonly piece: Conversation | null;
    }
  | { readonly kind: "starts" };

/** Every id by which a message is tied to a thread: those it answers, nearest first, then its own (a late parent is named by its answers). */
export function threadIds(message: ThreadedMessage): string[] {
  const nearestFirst = [...message.references].reverse();
  const own = message.messageId === null ? [] : [message.messageId];
  return [...new Set([...message.inReplyTo, ...nearestFirst, ...own])];
}

/**
 * The conversation a message joins: the one that knows its nearest parent, else the one that already answers it, else none.
 * `known` holds, for one tray only, the conversation of each id that was seen or named there; ids of other trays are not
 * in it, so that naming them starts a conversation of its own. Only those who answered this very message before it came
 * are joined with it; a message that names messages of two conversations joins the nearest and ties nothing together.
 */
export function placeMessage<Conversation>(
  message: ThreadedMessage,
  known: ReadonlyMap<string, Conversation>,
): Placement<Conversation> {
  const answering = message.messageId === null ? undefined : known.get(message.messageId);
  for (const id of threadIds(message)) {
    const conversation = known.get(id);
    if (conversation === undefined) continue;
    return { kind: "joins", conversation, by: id, piece: answering === conversation ? null : (answering ?? null) };
  }
  return { kind: "starts" };
}
