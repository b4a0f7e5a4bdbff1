import type { EmailAddress } from "../kernel/email-address";
import { groupedBy } from "../kernel/grouped";
import type { ConversationId } from "../kernel/ids";

/** How a conversation can be put away without an answer. */
const PUT_AWAY = ["settle", "bin", "junk"] as const;
export type PutAway = (typeof PUT_AWAY)[number];

/** A conversation that began with a message from outside. */
export type Passed = {
  readonly id: ConversationId;
  readonly from: EmailAddress | null;
  /** The id of the list that it came through (RFC 2919); null for none. */
  readonly list: string | null;
  /** How people put it away without having opened it; null where they did anything else, or nothing, or a rule did. */
  readonly putAway: PutAway | null;
};

/** What comes again and again and is put away unread each time. */
export type Routine = {
  /** Whose it is: `list:` and an id, or `from:` and an address. It stays the same as more comes. */
  readonly key: string;
  readonly putAway: PutAway;
  /** In the order in which they were given. */
  readonly ids: readonly ConversationId[];
};

// Fewer are put away as fast by hand; and whoever opens some of them wants to see them.
const LEAST = 10;
const SHARE = 0.95;

/** The routines among some conversations, those with the most first. */
export function findRoutines(conversations: readonly Passed[]): Routine[] {
  const bySource = groupedBy(conversations, sourceOf);
  return [...bySource]
    .flatMap(([key, all]): Routine[] => {
      if (key === null) return [];
      const ways = PUT_AWAY.map((putAway) => ({ putAway, of: all.filter((one) => one.putAway === putAway) }));
      return ways
        .filter(({ of }) => of.length >= LEAST && of.length >= all.length * SHARE)
        .map(({ putAway, of }) => ({ key, putAway, ids: of.map(({ id }) => id) }));
    })
    .toSorted((a, b) => b.ids.length - a.ids.length);
}

function sourceOf({ from, list }: Passed): string | null {
  if (list !== null) return `list:${list}`;
  return from === null ? null : `from:${from}`;
}
