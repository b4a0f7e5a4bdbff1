import { inEnglish } from "@tests/support/english";
import { aMessage } from "@tests/support/mail";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type ConversationId, type MessageId, trustedId } from "../../core/kernel/ids";
import { DAY, dateOf, later, MINUTE, SECOND } from "../../core/kernel/instant";
import {
  answerConversation,
  type Deps,
  examine,
  getOutgoing,
  openConversation,
  recallMessage,
  receiveMessage,
  search,
  sendMessage,
} from "../index.server";

let tray: TestTray;
let office: Office;
let held: Deps;
let count = 0;
beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  held = { ...tray.deps, sending: { holdMs: 10 * SECOND, aMinute: 100, perDomainAMinute: 2 } };
});
afterAll(() => tray.close());
beforeEach(() => passes(tray, 60));

const once = { number: 1, last: false };
async function conversation(from: string): Promise<ConversationId> {
  count += 1;
  const raw = aMessage({
    id: `s-${count}@x.example`,
    from,
    subject: `Matter ${count}`,
    date: dateOf(tray.clock.now).toUTCString(),
  });
  const [kept] = await receiveMessage(tray.deps, {
    raw,
    envelopeSender: from,
    recipients: [address("office@ottermoor.example")],
  });
  return kept?.conversationId ?? trustedId("");
}
async function answer(id: ConversationId, to: string, asksReport = false): Promise<MessageId> {
  const sent = await answerConversation(held, office.grant, office.ines, id, {
    to: [{ name: "", address: address(to) }],
    cc: [],
    subject: "Re: Matter",
    html: "<p>Unrepeatable words.</p>",
    asksReport,
    after: { kind: "expect", until: later(tray.clock.now, 2 * DAY) },
  });
  if (!sent.ok) throw new Error(sent.error.kind);
  return sent.value;
}
const look = async (id: ConversationId) => {
  const open = await openConversation(tray.deps, office.grant, id);
  if (open === null) throw new Error("not there");
  return open;
};
const rowOf = async (id: MessageId) => (await getOutgoing(tray.deps, office.grant)).find((row) => row.id === id);

describe("taking a message back", () => {
  it("makes it a draft again and undoes what went with it", async () => {
    const id = await conversation("ann@a.example");
    const sent = await answer(id, "ann@a.example");
    expect((await look(id)).docket.standing.kind).toBe("waiting");
    const taken = await recallMessage(held, office.grant, sent);
    expect(inEnglish(taken)).toMatchObject({
      value: { subject: "Re: Matter", to: [{ address: "ann@a.example" }], conversationId: id },
    });
    expect(taken.ok && taken.value.html).toContain("Unrepeatable words.");
    const after = await look(id);
    expect([after.docket.standing.kind, after.messages.length, after.row.messageCount]).toEqual(["to-sort", 1, 1]);
    expect(await search(tray.deps, office.grant, "unrepeatable")).toEqual([]);
    expect((await examine(tray.deps)).differences).toEqual([]);
    await sendMessage(held, sent, once);
    expect(tray.handedOver).toHaveLength(0);
    expect(await rowOf(sent)).toBeUndefined();
  });

  it("is refused once it has gone", async () => {
    const id = await conversation("bob@b.example");
    const sent = await answer(id, "bob@b.example");
    await sendMessage(held, sent, once);
    expect(await recallMessage(held, office.grant, sent)).toMatchObject({
      error: { kind: "already-sent" },
    });
    expect((await look(id)).messages.at(-1)?.delivery?.state).toBe("sent");
  });

  it("discards what failed", async () => {
    const id = await conversation("cat@c.example");
    const sent = await answer(id, "cat@c.example");
    tray.outcomes.push({ kind: "refused", reason: "550 no" });
    await sendMessage(held, sent, once);
    expect(await rowOf(sent)).toMatchObject({ state: "failed", reason: "550 no" });
    expect((await recallMessage(held, office.grant, sent)).ok).toBe(true);
    expect((await look(id)).messages).toHaveLength(1);
    expect((await examine(tray.deps)).differences).toEqual([]);
  });
});

describe("sending", () => {
  it("starts when the time for taking it back is over", async () => {
    const enqueued: (number | undefined)[] = [];
    const noted = {
      ...held,
      jobs: { enqueue: async (_trx: unknown, _job: unknown, at?: number) => void enqueued.push(at) },
    };
    const id = await conversation("dee@d.example");
    await answerConversation(noted as Deps, office.grant, office.ines, id, {
      to: [{ name: "", address: address("dee@d.example") }],
      cc: [],
      subject: "Re",
      html: "<p>x</p>",
      after: { kind: "keep" },
    });
    expect(enqueued).toEqual([tray.clock.now + 10 * SECOND]);
  });

  it("asks for reports only when that was wanted", async () => {
    tray.handedOver.length = 0;
    const id = await conversation("eve@e.example");
    const plain = await answer(id, "eve@e.example");
    const reported = await answer(id, "eve@e.example", true);
    for (const sent of [plain, reported]) await sendMessage(held, sent, once);
    expect(tray.handedOver.map(({ reportId }) => reportId)).toEqual([null, reported]);
  });

  it("paces itself by domain, and goes on with others", async () => {
    tray.handedOver.length = 0;
    const id = await conversation("fay@slow.example");
    const three = [
      await answer(id, "fay@slow.example"),
      await answer(id, "gus@slow.example"),
      await answer(id, "hal@slow.example"),
    ];
    const other = await answer(id, "ida@quick.example");
    for (const sent of [...three, other]) await sendMessage(held, sent, once);
    expect(tray.handedOver.map(({ envelope }) => envelope.to[0])).toEqual([
      "fay@slow.example",
      "gus@slow.example",
      "ida@quick.example",
    ]);
    expect(inEnglish(await rowOf(three[2] ?? trustedId("")))).toMatchObject({
      state: "waiting",
      reason: "at most 2 messages a minute go to slow.example",
    });
    tray.clock.now = later(tray.clock.now, MINUTE + SECOND);
    await sendMessage(held, three[2] ?? trustedId(""), once);
    expect(tray.handedOver).toHaveLength(4);
  });

  it("paces itself in all", async () => {
    tray.handedOver.length = 0;
    const slow = { ...held, sending: { ...held.sending, aMinute: 1 } };
    const id = await conversation("jan@j.example");
    const two = [await answer(id, "jan@j.example"), await answer(id, "kit@k.example")];
    for (const sent of two) await sendMessage(slow, sent, once);
    expect(tray.handedOver).toHaveLength(1);
    expect(inEnglish(await rowOf(two[1] ?? trustedId("")))).toMatchObject({
      reason: "at most 1 messages a minute go out",
    });
  });
});
