import { domainOf, type EmailAddress } from "../kernel/email-address";
import { foldedWords, hasWords } from "../kernel/folded-words";
import type { CategoryId, MemberId } from "../kernel/ids";
import type { WatchKind } from "./events";

/** What a member watches: an address or `@domain`, a category's id, or words that have to be there together. */
export type Watch = { readonly memberId: MemberId; readonly kind: WatchKind; readonly value: string };

/** A message that came, as far as watching goes; the categories are those of its conversation with all above them. */
export type WatchedMessage = {
  readonly from: EmailAddress | null;
  readonly subject: string;
  readonly text: string;
  readonly categoryIds: readonly CategoryId[];
};

/** Those of the watches that a message is for. */
export function watchesFor(message: WatchedMessage, watches: readonly Watch[]): Watch[] {
  if (watches.length === 0) return [];
  const text = foldedWords(`${message.subject} ${message.text}`);
  return watches.filter(({ kind, value }) => {
    switch (kind) {
      case "person":
        return message.from !== null && (value.startsWith("@") ? `@${domainOf(message.from)}` : message.from) === value;
      case "category":
        return message.categoryIds.some((id) => id === value);
      case "words":
        return hasWords(text, value);
    }
    return false;
  });
}
