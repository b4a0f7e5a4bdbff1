import { inEnglish } from "@tests/support/english";
import { aBounce, aMessage } from "@tests/support/mail";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type ConversationId, type MessageId, type RecordId, trustedId } from "../../core/kernel/ids";
import { DAY, dateOf, later } from "../../core/kernel/instant";
import {
  answerConversation,
  decide,
  examine,
  joinConversations,
  openConversation,
  receiveMessage,
  setUpRecords,
  splitOff,
  undoBatch,
} from "../index.server";

let tray: TestTray;
let office: Office;
let count = 0;
beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
});
afterAll(async () => {
  await tray.close();
});
beforeEach(() => passes(tray, 60));

type Fields = Parameters<typeof aMessage>[0];

async function arrive(
  fields: Fields = {},
  recipients = ["office@ottermoor.example"],
  sender = "vane@vanehouse.example",
) {
  count += 1;
  const id = fields.id ?? `t-${count}@vanehouse.example`;
  const raw = aMessage({ date: dateOf(tray.clock.now).toUTCString(), ...fields, id });
  const kept = await receiveMessage(tray.deps, { raw, envelopeSender: sender, recipients: recipients.map(address) });
  const [first] = kept;
  if (first === undefined) throw new Error("no tray took it");
  return { id: first.conversationId, messageId: id, outcome: first.outcome, kept };
}
async function report(raw: Uint8Array) {
  const [kept] = await receiveMessage(tray.deps, {
    raw,
    envelopeSender: "",
    recipients: [address("office@ottermoor.example")],
  });
  return kept;
}
const look = async (id: ConversationId) => {
  const open = await openConversation(tray.deps, office.grant, id);
  if (open === null) throw new Error("not there");
  return open;
};
const idsIn = async (id: ConversationId) => (await look(id)).messages.map(({ messageId }) => messageId);
async function answer(id: ConversationId, to: string) {
  const sent = await answerConversation(tray.deps, office.grant, office.ines, id, {
    to: [{ name: "", address: address(to) }],
    cc: [],
    subject: "Re: x",
    html: "<p>When?</p>",
    after: { kind: "expect", until: later(tray.clock.now, 2 * DAY) },
  });
  if (!sent.ok) throw new Error(sent.error.kind);
  return { messageId: sent.value, header: `${sent.value}@ottermoor.example` };
}
const rows = (sql: string, values: unknown[] = []) => tray.ask(sql, values);

describe("threads", () => {
  it("join their pieces when a late parent comes, and come apart again when that is undone", async () => {
    const root = await arrive({ subject: "Blower" });
    const piece = await arrive({
      subject: "Re: Blower (was: motor)",
      inReplyTo: "late@x.example",
      from: "col@c.example",
    });
    expect(piece.id).not.toBe(root.id);
    await decide(tray.deps, office.grant, { ids: [piece.id], seenVersion: null }, { kind: "note", text: "his own" });
    const late = await arrive({ id: "late@x.example", inReplyTo: root.messageId, from: "dee@d.example" });
    expect(late.id).toBe(root.id);
    expect(await idsIn(root.id)).toEqual([root.messageId, piece.messageId, "late@x.example"]);
    expect(await openConversation(tray.deps, office.grant, piece.id)).toMatchObject({ row: { id: root.id } });
    const joined = (await look(root.id)).journal.find(({ effect }) => effect.kind === "joined");
    await undoBatch(tray.deps, office.grant, joined?.batchId ?? trustedId(""));
    expect(await idsIn(root.id)).toEqual([root.messageId, "late@x.example"]);
    expect(await idsIn(piece.id)).toEqual([piece.messageId]);
    expect((await look(piece.id)).journal.map(({ effect }) => effect.kind)).toEqual(["noted"]);
    expect((await examine(tray.deps)).differences).toEqual([]);
    // An answer to what went back goes where it is now.
    const next = await arrive({ inReplyTo: piece.messageId, from: "col@c.example" });
    expect(next.id).toBe(piece.id);
  });

  it("are not tied together by somebody who names two of them", async () => {
    const one = await arrive({ subject: "One" });
    const two = await arrive({ subject: "Two" });
    const forged = await arrive({ references: `<${one.messageId}> <${two.messageId}>`, from: "x@harm.example" });
    expect(forged.id).toBe(two.id);
    expect(await idsIn(one.id)).toEqual([one.messageId]);
    expect((await look(two.id)).messages.map(({ isNewParticipant }) => isNewParticipant)).toEqual([false, true]);
  });

  it("take an answer without references by its subject, only from somebody who is in it", async () => {
    const first = await arrive({ subject: "Reed 4471" });
    expect((await arrive({ subject: "AW: Reed 4471" })).id).toBe(first.id);
    expect((await arrive({ subject: "Re: Reed 4471", from: "x@harm.example" })).id).not.toBe(first.id);
    expect((await arrive({ subject: "Reed 4471" })).id).not.toBe(first.id);
  });

  it("take an answer without references by the record that its subject names", async () => {
    const [record] = await setUpRecords(tray.deps, [
      { code: "P-26-077", title: "Case", kind: "project", parentCode: null, closed: false },
    ]);
    const first = await arrive({ subject: "Drawings", from: "ann@calder.example" });
    const recordId = record?.id ?? trustedId<RecordId>("");
    await decide(
      tray.deps,
      office.grant,
      { ids: [first.id], seenVersion: null },
      {
        kind: "file",
        recordId,
        settle: true,
      },
    );
    expect((await arrive({ subject: "Re: your P-26-077", from: "ann@calder.example" })).id).toBe(first.id);
    expect((await arrive({ subject: "Re: your P-26-077", from: "bob@calder.example" })).id).not.toBe(first.id);
  });
});

describe("joining and splitting by hand", () => {
  it("joins two, with what was noted in either, and undoes it", async () => {
    const one = await arrive({ subject: "Harmonium" });
    const two = await arrive({ subject: "Harmonium again" });
    await decide(tray.deps, office.grant, { ids: [two.id], seenVersion: null }, { kind: "settle" });
    const done = await joinConversations(tray.deps, office.grant, one.id, two.id);
    expect(await idsIn(one.id)).toEqual([one.messageId, two.messageId]);
    expect((await look(one.id)).row.messageCount).toBe(2);
    expect((await examine(tray.deps)).differences).toEqual([]);
    await undoBatch(tray.deps, office.grant, done.ok ? done.value.batchId : trustedId(""));
    expect([await idsIn(one.id), await idsIn(two.id)]).toEqual([[one.messageId], [two.messageId]]);
    expect((await look(two.id)).docket.standing.kind).toBe("settled");
    expect((await examine(tray.deps)).differences).toEqual([]);
  });

  it("splits a message off with the answers that hang on it, and undoes it", async () => {
    const one = await arrive({ subject: "Visit" });
    const other = await arrive({ subject: "By the way: an invoice", inReplyTo: one.messageId });
    const reply = await arrive({ subject: "Re: invoice", inReplyTo: other.messageId });
    const stays = await arrive({ subject: "Re: Visit", inReplyTo: one.messageId });
    const message = (await look(one.id)).messages.find(({ messageId }) => messageId === other.messageId);
    const done = await splitOff(tray.deps, office.grant, one.id, message?.id ?? trustedId(""));
    if (!done.ok) throw new Error(done.error.kind);
    expect(await idsIn(one.id)).toEqual([one.messageId, stays.messageId]);
    expect(await idsIn(done.value.conversationId)).toEqual([other.messageId, reply.messageId]);
    expect((await look(done.value.conversationId)).row).toMatchObject({
      subject: "By the way: an invoice",
      standing: "to-sort",
    });
    expect((await arrive({ inReplyTo: reply.messageId })).id).toBe(done.value.conversationId);
    await undoBatch(tray.deps, office.grant, done.value.batchId);
    expect(await idsIn(one.id)).toEqual([one.messageId, other.messageId, reply.messageId, stays.messageId]);
    expect((await examine(tray.deps)).differences).toEqual([]);
  });

  it("refuses what makes no sense", async () => {
    const one = await arrive({ subject: "Alone" });
    const [message] = (await look(one.id)).messages;
    expect(await joinConversations(tray.deps, office.grant, one.id, one.id)).toMatchObject({
      error: { kind: "same-conversation" },
    });
    expect(
      inEnglish(await joinConversations(tray.deps, office.grant, one.id, trustedId(tray.deps.newId()))),
    ).toMatchObject({
      error: { kind: "no-such-conversation" },
    });
    expect(
      inEnglish(await splitOff(tray.deps, office.grant, one.id, message?.id ?? trustedId<MessageId>(""))),
    ).toMatchObject({
      error: { kind: "nothing-would-stay" },
    });
  });
});

describe("ways in", () => {
  it("remembers every way on which a message came, and takes subaddresses", async () => {
    const first = await arrive({ subject: "Twice" }, ["office+quotes@ottermoor.example"]);
    await arrive(
      { subject: "[list] Twice", id: first.messageId, date: dateOf(tray.clock.now).toUTCString() },
      ["office@ottermoor.example"],
      "list@l.example",
    );
    const found = await rows(
      "select address, sender from arrival_route as route join message on message.id = route.message_id where conversation_id = $1 order by address",
      [first.id],
    );
    expect(found).toEqual([
      { address: "office+quotes@ottermoor.example", sender: "vane@vanehouse.example" },
      { address: "office@ottermoor.example", sender: "list@l.example" },
    ]);
    expect(await idsIn(first.id)).toHaveLength(1);
  });

  it("takes the copy of a list that rewrote the sender for the same message", async () => {
    const date = dateOf(tray.clock.now).toUTCString();
    const direct = await arrive({ id: "munged@x.example", date, from: "Otto Quayle <otto@quayle.example>" });
    const headers = { "List-Id": "<rolling.tinguild.example>", "Reply-To": "otto@quayle.example" };
    const viaList = await arrive({
      id: "munged@x.example",
      date,
      from: "Otto Quayle via Rolling <rolling@tinguild.example>",
      headers,
    });
    expect([viaList.outcome, viaList.id]).toEqual(["known-already", direct.id]);
  });

  it("keeps an attachment once however many messages carry it", async () => {
    const plan = Buffer.from(Array.from({ length: 60_000 }, (_, at) => (at * 17) % 253))
      .toString("base64")
      .replace(/.{76}/g, "$&\r\n");
    const headers = {
      "MIME-Version": "1.0",
      "Content-Type": "application/pdf; name=plan.pdf",
      "Content-Transfer-Encoding": "base64",
    };
    const [before] = await rows("select count(*)::int as count, sum(length(content))::int as bytes from blob");
    for (const subject of ["Plan", "Plan again", "Plan once more"]) await arrive({ subject, headers, body: plan });
    const [after] = await rows("select count(*)::int as count, sum(length(content))::int as bytes from blob");
    expect(after.count - before.count).toBe(4);
    expect(after.bytes - before.bytes).toBeLessThan(65_000);
  });
});

describe("reports about what we sent", () => {
  const stateOf = async (id: MessageId) =>
    await rows("select address, state from outgoing_recipient where message_id = $1", [id]);

  it("find it by the header they return, and mark the recipient", async () => {
    const first = await arrive({ subject: "Store", from: "sexton@oldwyke.example" });
    const sent = await answer(first.id, "sexton@oldwyke.example");
    const raw = Buffer.from(aBounce({ of: "unknown@x.example", recipient: "sexton@oldwyke.example" })).toString();
    const withHeader = raw
      .replace("References: <unknown@x.example>\r\n", "")
      .replace("--r--", `--r\r\nContent-Type: text/rfc822-headers\r\n\r\nMessage-ID: <${sent.header}>\r\n\r\n--r--`);
    expect(await report(Buffer.from(withHeader))).toMatchObject({ conversationId: first.id });
    expect(await stateOf(sent.messageId)).toEqual([{ address: "sexton@oldwyke.example", state: "failed" }]);
    expect((await look(first.id)).docket.standing).toMatchObject({ kind: "our-move", reason: { kind: "bounced" } });
  });

  it("find it by the recipient alone", async () => {
    const first = await arrive({ subject: "Tin", from: "smelter@tin.example" });
    const sent = await answer(first.id, "smelter@tin.example");
    const raw = aMessage({
      from: "MAILER-DAEMON@mx.tin.example",
      subject: "Returned mail: User unknown",
      id: "b2@tin.example",
      body: "Your message could not be delivered:\r\n\r\n<smelter@tin.example>: 550 user unknown\r\n",
    });
    expect(await report(raw)).toMatchObject({ conversationId: first.id });
    expect(await stateOf(sent.messageId)).toEqual([{ address: "smelter@tin.example", state: "failed" }]);
  });

  it("of a delay or a delivery change no standing", async () => {
    const first = await arrive({ subject: "Leather", from: "hide@leather.example" });
    const sent = await answer(first.id, "hide@leather.example");
    const told = (action: string, status: string, id: string) =>
      report(aBounce({ of: sent.header, recipient: "hide@leather.example", action, status, id }));
    await told("delayed", "4.4.1", "d1@l.example");
    expect(await stateOf(sent.messageId)).toMatchObject([{ state: "delayed" }]);
    await told("delivered", "2.0.0", "d2@l.example");
    expect(await stateOf(sent.messageId)).toMatchObject([{ state: "delivered" }]);
    expect((await look(first.id)).docket.standing.kind).toBe("waiting");
  });

  it("our own message coming back changes nothing", async () => {
    const first = await arrive({ subject: "Loop", from: "loop@l.example" });
    await answer(first.id, "loop@l.example");
    const [sent] = await rows(
      "select content from blob join message on raw_sha256 = sha256 where conversation_id = $1 and direction = 'out'",
      [first.id],
    );
    expect(await report(sent.content)).toMatchObject({ outcome: "known-already", conversationId: first.id });
    expect((await look(first.id)).messages).toHaveLength(2);
  });
});
