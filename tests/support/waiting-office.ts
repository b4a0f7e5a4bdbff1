import type { Whom } from "~/core/deciding/decision";
import { type ConversationId, trustedId } from "~/core/kernel/ids";
import { DAY, dateOf, type Instant, later, readInstant } from "~/core/kernel/instant";
import { answerConversation, openConversation, receiveMessage } from "~/operations/index.server";
import { type Desk, done, setUpDesk } from "./desk";
import { aMessage } from "./mail";
import { address, passes, type TestTray } from "./test-database";

export const VANE = address("perpetua.vane@vanehouse.example");
export const MARL = address("workshop@marljoiners.example");
export const HALSE = address("policies@mutualhalse.example");

/** An office that asks and waits, from a Wednesday morning on. */
export async function setUpWaiting(tray: TestTray) {
  const desk: Desk = await setUpDesk(tray);
  tray.clock.now = readInstant("2026-11-25T09:00:00Z") ?? tray.clock.now;
  let count = 0;
  const now = () => tray.clock.now;
  const docketOf = async (id: ConversationId) => {
    const open = await openConversation(tray.deps, desk.lead, id);
    if (open === null) throw new Error("it is not there");
    return open.docket;
  };
  return {
    desk,
    now,
    docketOf,
    /** Lets time pass. */
    moves: (span: number) => {
      tray.clock.now = later(now(), span);
    },
    /** Where a conversation is, whose move it is, and what became of each expectation. */
    stateOf: async (id: ConversationId) => {
      const { standing, turn, expectations } = await docketOf(id);
      return [standing.kind, turn.kind, ...expectations.map(({ state }) => state)];
    },
    /** Asks some people in a conversation; gives the Message-ID of what went. */
    asks: async (
      id: ConversationId,
      to: readonly ReturnType<typeof address>[],
      given: { readonly whom?: Whom; readonly until?: Instant | null } = {},
    ) => {
      passes(tray, 1);
      const sent = await answerConversation(tray.deps, desk.lead, desk.ines, id, {
        to: to.map((one) => ({ name: "", address: one })),
        cc: [],
        subject: "Re: Tin",
        html: "<p>When?</p>",
        after: { kind: "expect", until: given.until ?? later(now(), DAY), whom: given.whom ?? "any" },
      });
      const [row] = await tray.ask("select message_id from message where id = $1", [done(sent)]);
      passes(tray, 1);
      return row.message_id as string;
    },
    /** Somebody writes, with whatever headers, in answer to a message of ours or anew. */
    comes: async (from: string, inReplyTo: string | null, given: Parameters<typeof aMessage>[0] = {}) => {
      passes(tray, 1);
      count += 1;
      const raw = aMessage({
        id: `w${count}@x.example`,
        from,
        subject: "Re: Tin",
        date: dateOf(now()).toUTCString(),
        ...(inReplyTo === null ? {} : { inReplyTo }),
        ...given,
      });
      const recipients = [address("office@ottermoor.example")];
      const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: from, recipients });
      return kept?.conversationId ?? trustedId<ConversationId>("");
    },
  };
}
