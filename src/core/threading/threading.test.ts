import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { instant } from "../kernel/instant";
import { gatherThreads } from "./gather-threads";
import { independentGroups } from "./independent-groups";
import { placeMessage, threadIds } from "./place-message";

const message = (messageId: string | null, references: string[] = [], inReplyTo: string[] = [], date = 0) => ({
  messageId,
  references,
  inReplyTo,
  date: instant(date),
  subject: "",
  list: null as string | null,
  people: [] as EmailAddress[],
});

describe("placing a message", () => {
  const known = new Map([
    ["root", "A"],
    ["parent", "B"],
  ]);
  it("joins the conversation of what it answers before that of older references", () => {
    expect(placeMessage(message("m", ["root"], ["parent"]), known)).toMatchObject({
      kind: "joins",
      conversation: "B",
      by: "parent",
    });
  });
  it("takes the nearest reference when there is no In-Reply-To", () => {
    expect(placeMessage(message("m", ["root", "parent"]), known)).toMatchObject({ conversation: "B" });
    expect(placeMessage(message("m", ["root", "unknown"]), known)).toMatchObject({ conversation: "A" });
  });
  it("joins as a late parent what answered it already", () => {
    expect(placeMessage(message("parent"), known)).toMatchObject({ conversation: "B" });
  });
  it("starts one of its own otherwise", () => {
    expect(placeMessage(message("m", ["elsewhere"]), known)).toEqual({ kind: "starts" });
    expect(placeMessage(message(null), known)).toEqual({ kind: "starts" });
  });
});

describe("gathering a mailbox", () => {
  const thread = [
    message("a", [], [], 1),
    message("b", ["a"], [], 2),
    message("c", ["a", "b"], [], 3),
    message("d", ["x"], [], 4),
    message("e", ["x"], [], 5),
    message(null, [], [], 6),
  ];
  const ids = (threads: (typeof thread)[]) => threads.map((one) => one.map(({ messageId }) => messageId));

  it("puts together what names each other or the same missing parent", () => {
    expect(ids(gatherThreads(thread))).toEqual([["a", "b", "c"], ["d", "e"], [null]]);
  });

  it("gives the same in any order", () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(thread, { minLength: thread.length }), (shuffled) => {
        expect(ids(gatherThreads(shuffled))).toEqual(ids(gatherThreads(thread)));
      }),
    );
  });
});

describe("parting messages for storing at the same time", () => {
  const anyMessage = fc
    .record({ own: fc.nat(30), parents: fc.array(fc.nat(30), { maxLength: 3 }) })
    .map(({ own, parents }) => message(`${own}`, parents.map(String)));

  it("never tears ids apart, loses nothing and keeps the order", () => {
    fc.assert(
      fc.property(fc.array(anyMessage, { maxLength: 25 }), fc.integer({ min: 1, max: 4 }), (messages, count) => {
        const groups = independentGroups(messages, (one) => one, count);
        expect(groups).toHaveLength(count);
        expect(new Set(groups.flat())).toEqual(new Set(messages));
        expect(groups.flat()).toHaveLength(messages.length);
        for (const group of groups) expect(group).toEqual(messages.filter((one) => group.includes(one)));
        const owners = groups.map((group) => new Set(group.flatMap(threadIds)));
        owners.forEach((ids, at) => {
          for (const other of owners.slice(at + 1)) expect([...ids].filter((id) => other.has(id))).toEqual([]);
        });
      }),
    );
  });

  it("shares unrelated ones evenly", () => {
    const many = Array.from({ length: 40 }, (_, at) => message(`m${at}`));
    expect(independentGroups(many, (one) => one, 2).map(({ length }) => length)).toEqual([20, 20]);
  });
});
