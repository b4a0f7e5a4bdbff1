import { inEnglish } from "@tests/support/english";
import { aBounce, aMessage } from "@tests/support/mail";
import { onRecordOf } from "@tests/support/on-record";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import type { Decision } from "../../core/deciding/decision";
import {
  type CategoryId,
  type ConversationId,
  type ExpectationId,
  type MemberId,
  type MessageId,
  type RecordId,
  trustedId,
} from "../../core/kernel/ids";
import { DAY, dateOf, later, MINUTE } from "../../core/kernel/instant";
import {
  answerConversation,
  decide,
  examine,
  openConversation,
  receiveMessage,
  search,
  sendAgain,
  sendMessage,
  setUpCategories,
  setUpRecords,
  undoBatch,
  undoNewest,
  wakeRested,
} from "../index.server";

let tray: TestTray;
let office: Office;
let tuning: CategoryId;
let sorrel: RecordId;
let count = 0;

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  const [category] = await setUpCategories(tray.deps, [{ code: "TU", name: "Tuning", ink: "moss", parentCode: null }]);
  const [record] = await setUpRecords(tray.deps, [
    { code: "P-26-012", title: "Sorrel case", kind: "project", parentCode: null, closed: false },
  ]);
  tuning = category?.id ?? trustedId("");
  sorrel = record?.id ?? trustedId("");
});
afterAll(() => tray.close());
beforeEach(() => passes(tray, 60));

const arrive = async (
  fields: Parameters<typeof aMessage>[0] = {},
  envelopeSender: string | null = "vane@vanehouse.example",
) => {
  count += 1;
  const date = dateOf(tray.clock.now).toUTCString();
  const raw = aMessage({ id: `in-${count}@vanehouse.example`, date, ...fields });
  const [kept] = await receiveMessage(tray.deps, {
    raw,
    envelopeSender,
    recipients: [address("office@ottermoor.example")],
  });
  if (kept === undefined) throw new Error("no tray took it");
  return { id: kept.conversationId, messageId: fields.id ?? `in-${count}@vanehouse.example`, outcome: kept.outcome };
};
const does = (id: ConversationId, decision: Decision, seenVersion: number | null = null, grant = office.grant) =>
  decide(tray.deps, grant, { ids: [id], seenVersion }, decision);
const look = async (id: ConversationId) => {
  const open = await openConversation(tray.deps, office.grant, id);
  if (open === null) throw new Error("not there");
  return open;
};
const standing = async (id: ConversationId) => (await look(id)).docket.standing.kind;
const answer = async (id: ConversationId, after: "expect" | "keep" | "settle" = "expect") => {
  const sent = await answerConversation(tray.deps, office.grant, office.ines, id, {
    to: [{ name: "Perpetua Vane", address: address("perpetua.vane@vanehouse.example") }],
    cc: [],
    subject: "Re: Middle C sticks",
    html: "<p>A Tuesday <b>suits</b> us.</p><script>alert(1)</script>",
    after: after === "expect" ? { kind: "expect", until: later(tray.clock.now, 2 * DAY) } : { kind: after },
  });
  if (!sent.ok) throw new Error(sent.error.kind);
  return { messageId: sent.value, header: `${sent.value}@ottermoor.example` };
};
const once = { number: 1, last: false };

describe("mail that comes in", () => {
  it("starts a conversation in To sort, unread, and a reply joins it", async () => {
    const first = await arrive({ subject: "Swell box" });
    const reply = await arrive({ subject: "Re: Swell box", inReplyTo: first.messageId });
    expect([first.outcome, reply.outcome, reply.id]).toEqual(["started", "joined", first.id]);
    const open = await look(first.id);
    expect([open.row.standing, open.row.unread, open.row.messageCount]).toEqual(["to-sort", true, 2]);
    expect((await look(first.id)).row.unread).toBe(false);
  });

  it("changes nothing when it comes a second time", async () => {
    const first = await arrive({ subject: "Twice" });
    const again = await arrive({ subject: "Twice", id: first.messageId });
    expect([again.outcome, again.id, (await look(first.id)).messages.length]).toEqual(["known-already", first.id, 1]);
  });

  it("is kept when another sender uses the same id", async () => {
    const first = await arrive({ subject: "Scanner" });
    const other = await arrive({ subject: "Scanner", id: first.messageId, from: "scan@copier.example" });
    expect(other.outcome).toBe("joined");
    expect((await look(first.id)).messages).toHaveLength(2);
  });

  it("is one conversation when parent and reply arrive at the same moment", async () => {
    const replies = Array.from({ length: 6 }, (_, at) =>
      arrive({ id: `race-${at}@x.example`, references: "<race-root@x.example>" }),
    );
    const ids = new Set((await Promise.all(replies)).map(({ id }) => id));
    expect(ids.size).toBe(1);
    expect((await arrive({ id: "race-root@x.example" })).id).toBe([...ids][0]);
  });

  it("that is broken is kept and flagged", async () => {
    const raw = new Uint8Array([255, 0, 10, 13, 60]);
    const [kept] = await receiveMessage(tray.deps, {
      raw,
      envelopeSender: "",
      recipients: [address("office@ottermoor.example")],
    });
    const open = await look(kept?.conversationId ?? trustedId(""));
    expect(open.messages[0]?.warnings).toContain("it has no From");
  });
});

describe("waiting for a reply", () => {
  it("goes round: answered, an automatic reply, the real one, with the same owner", async () => {
    const { id } = await arrive({ subject: "Round" });
    await does(id, { kind: "assign", ownerId: office.tobias.id });
    expect(await standing(id)).toBe("our-move");
    const { messageId, header } = await answer(id);
    expect((await look(id)).docket.standing.reason.kind).toBe("asked");
    expect(tray.jobs.at(-1)).toEqual({ kind: "send-message", messageId });
    await arrive({ inReplyTo: header, headers: { "Auto-Submitted": "auto-replied" } }, "");
    expect(await standing(id)).toBe("waiting");
    await arrive({ inReplyTo: header });
    const open = await look(id);
    expect([open.docket.standing.kind, open.docket.ownerId, open.docket.expectations[0]?.state]).toEqual([
      "our-move",
      office.tobias.id,
      "answered",
    ]);
    expect(open.messages.map(({ kind }) => kind)).toEqual(["person", "person", "automatic", "person"]);
  });

  it("ends at once when ours bounces, and says so", async () => {
    const { id } = await arrive({ subject: "Bounce" });
    const { header } = await answer(id);
    const raw = aBounce({ of: header, recipient: "perpetua.vane@vanehouse.example", id: "b1@x.example" });
    await receiveMessage(tray.deps, { raw, envelopeSender: "", recipients: [address("office@ottermoor.example")] });
    expect((await look(id)).docket.standing).toMatchObject({
      kind: "our-move",
      reason: { kind: "bounced", recipients: ["perpetua.vane@vanehouse.example"] },
    });
  });

  it("can be asked for by hand, and refused for a day that is over", async () => {
    const { id } = await arrive({ subject: "By hand" });
    const expectation = (until: number) =>
      ({
        kind: "expect",
        until: later(tray.clock.now, until),
        expectationId: trustedId<ExpectationId>(tray.deps.newId()),
      }) as const;
    expect(await does(id, expectation(-DAY))).toEqual({ ok: false, error: { kind: "date-is-past" } });
    await does(id, expectation(DAY));
    expect(await standing(id)).toBe("waiting");
    await does(id, { kind: "stop-expecting" });
    expect(await standing(id)).toBe("our-move");
  });
});

describe("an answer", () => {
  it("is a correct message, harmless and sent once", async () => {
    const { id, messageId: parent } = await arrive({ subject: "Sent" });
    const { messageId, header } = await answer(id, "settle");
    const before = tray.handedOver.length;
    await sendMessage(tray.deps, messageId, once);
    await sendMessage(tray.deps, messageId, once);
    expect(tray.handedOver).toHaveLength(before + 1);
    const text = new TextDecoder().decode(tray.handedOver.at(-1)?.raw);
    for (const part of [
      `Message-ID: <${header}>`,
      `In-Reply-To: <${parent}>`,
      `References: <${parent}>`,
      'From: "Ines Varga, Ottermoor" <office@ottermoor.example>',
      "<b>suits</b>",
    ]) {
      expect(text).toContain(part);
    }
    expect(text).not.toContain("script");
    const message = (await look(id)).messages.at(-1);
    expect([message?.delivery?.state, message?.ownText]).toEqual(["sent", "A Tuesday suits us."]);
  });

  it("is tried again while the way out is closed, and fails visibly in the end", async () => {
    const { id } = await arrive({ subject: "Closed" });
    const { messageId } = await answer(id);
    tray.outcomes.push({ kind: "not-now", reason: "421 later" }, { kind: "refused", reason: "550 never" });
    await expect(sendMessage(tray.deps, messageId, once)).rejects.toThrow("421 later");
    expect((await look(id)).messages.at(-1)?.delivery).toMatchObject({ state: "waiting", reason: "421 later" });
    await sendMessage(tray.deps, messageId, { number: 2, last: false });
    const open = await look(id);
    expect([open.messages.at(-1)?.delivery?.state, open.docket.standing.reason]).toEqual([
      "failed",
      { kind: "not-sent", detail: "550 never" },
    ]);
    expect(await sendAgain(tray.deps, office.grant, messageId)).toEqual({ ok: true, value: null });
    await sendMessage(tray.deps, messageId, once);
    expect(await sendAgain(tray.deps, office.grant, messageId)).toEqual({ ok: false, error: { kind: "already-sent" } });
  });

  it("that was cut off in the middle is left to a person, not sent twice", async () => {
    const { id } = await arrive({ subject: "Cut off" });
    const { messageId } = await answer(id);
    const cutOff = { ...tray.deps, mail: { handOver: () => Promise.reject(new Error("power")) } };
    await expect(sendMessage(cutOff, messageId, once)).rejects.toThrow("power");
    const before = tray.handedOver.length;
    await sendMessage(tray.deps, messageId, once);
    expect(tray.handedOver).toHaveLength(before);
    expect(inEnglish((await look(id)).messages.at(-1)?.delivery?.reason)).toContain("may be out already");
  });

  it("to nobody is refused", async () => {
    const { id } = await arrive({ subject: "Nobody" });
    const nobody = { to: [], cc: [], subject: "x", html: "<p>x</p>", after: { kind: "keep" } } as const;
    expect(await answerConversation(tray.deps, office.grant, office.ines, id, nobody)).toEqual({
      ok: false,
      error: { kind: "no-recipient" },
    });
  });
});

describe("undoing", () => {
  it("takes back the last three steps, one after the other", async () => {
    const { id } = await arrive({ subject: "Undo" });
    for (const decision of [
      { kind: "assign", ownerId: office.tobias.id },
      { kind: "categorise", categoryId: tuning, give: true },
      { kind: "file", recordId: sorrel, settle: true },
    ] as const) {
      passes(tray, 1);
      await does(id, decision);
    }
    expect(await standing(id)).toBe("settled");
    const undone = await undoNewest(tray.deps, office.grant);
    expect(inEnglish(undone)).toMatchObject({
      ok: true,
      value: { count: 2, what: "filed it to P-26-012 and settled it", left: [] },
    });
    expect((await look(id)).docket).toMatchObject({
      standing: { kind: "our-move" },
      recordIds: [],
      categoryIds: [tuning],
    });
    await undoNewest(tray.deps, office.grant);
    await undoNewest(tray.deps, office.grant);
    expect((await look(id)).docket).toMatchObject({ standing: { kind: "to-sort" }, ownerId: null, categoryIds: [] });
  });

  it("leaves what a colleague decided anew, and says so", async () => {
    const { id } = await arrive({ subject: "Overtaken" });
    const done = await does(id, { kind: "assign", ownerId: office.ines.id });
    await does(id, { kind: "assign", ownerId: office.tobias.id }, null, office.tobiasGrant);
    const undone = await undoBatch(tray.deps, office.grant, done.ok ? done.value.batchId : trustedId(""));
    expect(inEnglish(undone)).toMatchObject({ ok: true, value: { count: 0, left: ["took it"] } });
    expect((await look(id)).docket.ownerId).toBe(office.tobias.id);
  });

  it("does not call back what has been sent", async () => {
    const { id } = await arrive({ subject: "Not called back" });
    await does(id, { kind: "settle" });
    await answer(id);
    await undoNewest(tray.deps, office.grant);
    expect(await standing(id)).toBe("waiting");
  });

  it("of the same step by two people at once happens once", async () => {
    const { id } = await arrive({ subject: "Both" });
    const done = await does(id, { kind: "settle" });
    const batch = done.ok ? done.value.batchId : trustedId<never>("");
    const both = await Promise.all([
      undoBatch(tray.deps, office.grant, batch),
      undoBatch(tray.deps, office.tobiasGrant, batch),
    ]);
    expect(both.map(({ ok }) => ok).toSorted()).toEqual([false, true]);
    expect(await standing(id)).toBe("to-sort");
  });
});

describe("deciding on a page that is no longer true", () => {
  it("does not overwrite a colleague's decision", async () => {
    const { id } = await arrive({ subject: "Stale" });
    const seen = (await look(id)).row.version;
    await does(id, { kind: "assign", ownerId: office.tobias.id }, seen, office.tobiasGrant);
    expect(inEnglish(await does(id, { kind: "assign", ownerId: office.ines.id }, seen))).toEqual({
      ok: false,
      error: { kind: "overtaken", who: "Tobias Lund", did: "took it" },
    });
    expect((await does(id, { kind: "categorise", categoryId: tuning, give: true }, seen)).ok).toBe(true);
  });

  it("does not put away a message that nobody read", async () => {
    const first = await arrive({ subject: "Unread" });
    const seen = (await look(first.id)).row.version;
    await arrive({ inReplyTo: first.messageId });
    expect(inEnglish(await does(first.id, { kind: "settle" }, seen))).toEqual({
      ok: false,
      error: { kind: "new-message", who: "Perpetua Vane" },
    });
    expect((await does(first.id, { kind: "assign", ownerId: office.ines.id }, seen)).ok).toBe(true);
  });
});

describe("who may do what", () => {
  it("lets readers read", async () => {
    const { id } = await arrive({ subject: "Reader" });
    expect(await does(id, { kind: "settle" }, null, office.reader)).toEqual({
      ok: false,
      error: { kind: "readers-only-read" },
    });
    expect((await undoNewest(tray.deps, office.reader)).ok).toBe(false);
    expect(await openConversation(tray.deps, office.reader, id)).not.toBeNull();
  });

  it.each<[string, (nobody: never) => Decision]>([
    ["member", (nobody) => ({ kind: "assign", ownerId: nobody as MemberId })],
    ["category", (nobody) => ({ kind: "categorise", categoryId: nobody as CategoryId, give: true })],
    ["record", (nobody) => ({ kind: "file", recordId: nobody as RecordId, settle: false })],
  ])("refuses a %s that is not there", async (what, decision) => {
    const { id } = await arrive();
    expect(await does(id, decision(tray.deps.newId() as never))).toEqual({
      ok: false,
      error: { kind: "no-such", what },
    });
  });

  it("refuses conversations that are not in the tray", async () => {
    const elsewhere = trustedId<ConversationId>(tray.deps.newId());
    expect(await does(elsewhere, { kind: "settle" })).toEqual({ ok: false, error: { kind: "no-such-conversation" } });
    expect(await sendAgain(tray.deps, office.grant, tray.deps.newId() as MessageId)).toMatchObject({ ok: false });
  });
});

describe("resting", () => {
  it("ends on its day", async () => {
    const { id } = await arrive({ subject: "Rest" });
    await does(id, { kind: "rest", until: later(tray.clock.now, 30 * MINUTE) });
    expect([await wakeRested(tray.deps), await standing(id)]).toEqual([0, "resting"]);
    passes(tray, 31);
    expect([await wakeRested(tray.deps), await standing(id)]).toEqual([1, "to-sort"]);
  });
});

describe("finding again", () => {
  it("by subject, people and words, in quotes and as one types", async () => {
    const { id } = await arrive({
      subject: "Bellows of Längenfeld",
      from: "Hester Quill <wardens@stbrannoc.example>",
      body: "The chamois is torn in two places.",
    });
    const found = async (text: string) => (await search(tray.deps, office.grant, text)).map(({ row }) => row.id);
    for (const text of ["längenf", "langenfeld ", "quill", "stbrannoc ", "chamois torn", '"torn in two"'])
      expect(await found(text)).toEqual([id]);
    for (const text of ['"two in torn"', "chamois xylophone ", "' | !", ""]) expect(await found(text)).toEqual([]);
    const [hit] = await search(tray.deps, office.grant, "chamois");
    expect(hit?.excerpt.filter((piece) => piece.hit).map(({ text }) => text)).toEqual(["chamois"]);
  });

  it("on the record, with the messages of both sides", async () => {
    const { id } = await arrive({ subject: "On record" });
    await answer(id, "settle");
    await does(id, { kind: "file", recordId: sorrel, settle: false });
    const page = await onRecordOf(tray.deps, office.grant, "P-26-012");
    const filed = page?.conversations.find((conversation) => conversation.id === id);
    expect(filed?.messages.map(({ direction }) => direction)).toEqual(["in", "out"]);
    await does(id, { kind: "unfile", recordId: sorrel });
    expect(
      (await onRecordOf(tray.deps, office.grant, "P-26-012"))?.conversations.some(
        (conversation) => conversation.id === id,
      ),
    ).toBe(false);
  });
});

it("after all this, everything derived is what is stored", async () => {
  const diagnosis = await examine(tray.deps);
  expect(diagnosis.differences).toEqual([]);
  expect(diagnosis).toMatchObject({ healthy: true, messagesWithoutRaw: 0, restsNotEnded: 0 });
  expect(diagnosis.conversations).toBeGreaterThan(15);
});
