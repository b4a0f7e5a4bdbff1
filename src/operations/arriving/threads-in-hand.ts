import type { EmailAddress } from "../../core/kernel/email-address";
import type { ConversationId } from "../../core/kernel/ids";
import { type ConversationFacts, NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import type { Tray } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import {
  factsOf,
  lockConversations,
  type NewMessage,
  type Placed,
  peopleIn,
  storeMessages,
} from "../../storage/facts/index";
import { factOf } from "../base/message-fact";

/** A conversation that is held, as it stands with what was placed in it. */
export type ThreadInHand = {
  readonly version: number;
  readonly facts: ConversationFacts;
  /** Who has written in it, or was written to. */
  readonly people: ReadonlySet<EmailAddress>;
};

/**
 * The conversations that a batch of messages goes to. They are held and looked up at once, and what is placed in them is
 * stored at once: a round trip each would cost more than all the rest.
 */
export type ThreadsInHand = {
  readonly take: (ids: readonly ConversationId[]) => Promise<void>;
  /** One of them; it is looked up where it was not taken, or let go of. */
  readonly thread: (id: ConversationId) => Promise<ThreadInHand>;
  /** Places a message; it is stored with the next `put`. */
  readonly place: (placed: Placed) => void;
  /** Stores what was placed, so that a question to the database finds it. */
  readonly put: () => Promise<void>;
  /** Something else changes a conversation: what is known of it holds no longer. */
  readonly letGo: (id: ConversationId) => void;
};

export function threadsInHand(trx: Transaction, tray: Tray): ThreadsInHand {
  const inHand = new Map<ConversationId, ThreadInHand>();
  let placed: Placed[] = [];
  const put = async () => {
    const some = placed;
    placed = [];
    await storeMessages(trx, some);
  };
  const take = async (ids: readonly ConversationId[]) => {
    if (ids.length === 0) return;
    const held = await lockConversations(trx, tray.id, ids);
    const facts = await factsOf(trx, ids);
    const people = await peopleIn(trx, ids);
    for (const { id, version } of held) {
      inHand.set(id, { version, facts: facts.get(id) ?? NOTHING_HAPPENED, people: people.get(id) ?? new Set() });
    }
  };
  return {
    take,
    async thread(id) {
      if (!inHand.has(id)) {
        await put();
        await take([id]);
      }
      const thread = inHand.get(id);
      if (thread === undefined) throw new Error(`conversation ${id} is linked from tray ${tray.slug} and not in it`);
      return thread;
    },
    place(one) {
      placed.push(one);
      const { conversationId, version } = one.place;
      const { facts, people } = inHand.get(conversationId) ?? { facts: NOTHING_HAPPENED, people: [] };
      const messages = [...facts.messages, factOf(one.message, version)];
      inHand.set(conversationId, {
        version,
        facts: { ...facts, messages },
        people: new Set([...people, ...peopleOf(one.message)]),
      });
    },
    put,
    letGo: (id) => void inHand.delete(id),
  };
}

function peopleOf({ from, recipients }: NewMessage): EmailAddress[] {
  return [from, ...recipients.to, ...recipients.cc].map(({ address }) => address);
}
