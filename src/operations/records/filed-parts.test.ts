import { type Desk, done, only, refusal, setUpDesk } from "@tests/support/desk";
import { aMessageWithFiles } from "@tests/support/mail";
import { onRecordOf } from "@tests/support/on-record";
import { address, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Decision } from "../../core/deciding/decision";
import { type ConversationId, type MessageId, trustedId } from "../../core/kernel/ids";
import {
  answerConversation,
  closeRecord,
  decide,
  documentsOf,
  emptyBins,
  examine,
  joinConversations,
  mergeRecords,
  openConversation,
  receiveMessage,
  setPuttingAway,
  splitOff,
  traySettings,
  undoBatch,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let record: Awaited<ReturnType<typeof opens>>;

const opens = ({ title, forInesOnly }: { readonly title: string; readonly forInesOnly?: true }) =>
  desk.opensRecord(title, forInesOnly === undefined ? {} : { access: only(desk.ines) });

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  record = await opens({ title: "Vane House" });
});
afterAll(() => tray.close());

let letters = 0;
/** A letter with two attachments. */
const arrives = async () => {
  letters += 1;
  const subject = `Papers ${letters}`;
  const raw = aMessageWithFiles({ id: `papers${letters}@vanehouse.example`, subject }, [
    `offer-${letters}.txt`,
    `plan-${letters}.txt`,
  ]);
  const recipients = [address("office@ottermoor.example")];
  const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "vane@vanehouse.example", recipients });
  const id = kept?.conversationId ?? trustedId<ConversationId>("");
  return { id, messageId: (await openOf(id)).messages[0]?.id ?? trustedId<MessageId>("") };
};
const openOf = async (id: ConversationId, who = desk.lead) => {
  const open = await openConversation(tray.deps, who, id, "ahead");
  if (open === null) throw new Error("it is gone");
  return open;
};
const files = (id: ConversationId, messageId: MessageId, attachment: number | null, recordId = record.id) =>
  decide(
    tray.deps,
    desk.lead,
    { ids: [id], seenVersion: null },
    { kind: "file", recordId, settle: false, means: "picker", part: { messageId, attachment } },
  );
const documents = async () => (await documentsOf(tray.deps, desk.lead, record)).map(({ name }) => name);
const onRecord = async () => (await onRecordOf(tray.deps, desk.lead, record.code)) ?? { conversations: [], parts: [] };

describe("what is filed by itself", () => {
  it("is one attachment, the rest of its conversation being on no record", async () => {
    const { id, messageId } = await arrives();
    const { batchId } = done(await files(id, messageId, 1));
    expect((await openOf(id)).row.recordCodes).toEqual([]);
    const { conversations, parts } = await onRecord();
    expect(conversations).toEqual([]);
    expect(parts).toMatchObject([{ messageId, attachment: 1, fileName: `plan-${letters}.txt`, filedBy: desk.ines.id }]);
    expect(await documents()).toEqual([`plan-${letters}.txt`]);
    // Filed again it is filed once.
    expect(done(await files(id, messageId, 1)).count).toBe(0);
    done(await undoBatch(tray.deps, desk.lead, batchId));
    expect(await onRecord()).toMatchObject({ conversations: [], parts: [] });
  });

  it("is a message with all that it carries, and is there once where its conversation comes to be filed as well", async () => {
    const { id, messageId } = await arrives();
    done(await files(id, messageId, null));
    expect(await documents()).toEqual([`offer-${letters}.txt`, `plan-${letters}.txt`]);
    await desk.does(desk.lead, id, { kind: "file", recordId: record.id, settle: false });
    expect(await documents()).toEqual([`offer-${letters}.txt`, `plan-${letters}.txt`]);
    await desk.does(desk.lead, id, { kind: "unfile", recordId: record.id });
    const part = { messageId, attachment: null };
    await desk.does(desk.lead, id, { kind: "unfile", recordId: record.id, part });
    expect((await onRecord()).parts).toEqual([]);
  });

  it("stays on its record when its conversation is joined to another or its message split off", async () => {
    const [first, second] = [await arrives(), await arrives()];
    done(await files(second.id, second.messageId, 0));
    done(await joinConversations(tray.deps, desk.lead, first.id, second.id));
    expect((await onRecord()).parts).toMatchObject([{ messageId: second.messageId, conversationId: first.id }]);
    done(await splitOff(tray.deps, desk.lead, first.id, second.messageId));
    expect((await onRecord()).parts).toMatchObject([{ messageId: second.messageId, attachment: 0 }]);
    expect((await examine(tray.deps)).differences).toEqual([]);
  });

  it("goes along when its record is merged into another, and its conversation only where that is on it", async () => {
    const [from, into] = [await opens({ title: "From" }), await opens({ title: "Into" })];
    const [part, both] = [await arrives(), await arrives()];
    for (const { id, messageId } of [part, both]) done(await files(id, messageId, 0, from.id));
    await desk.does(desk.lead, [part.id, both.id], { kind: "file", recordId: from.id, settle: false });
    await desk.does(desk.lead, part.id, { kind: "unfile", recordId: from.id });
    done(await mergeRecords(tray.deps, desk.lead, from.id, into.id));
    expect((await openOf(part.id)).row.recordCodes).toEqual([]);
    expect((await openOf(both.id)).row.recordCodes).toEqual([into.code]);
    const { parts } = (await onRecordOf(tray.deps, desk.lead, into.code)) ?? { parts: [] };
    expect(parts.map(({ messageId }) => messageId).toSorted()).toEqual([part.messageId, both.messageId].toSorted());
  });

  it("is of its own conversation, and on an open record", async () => {
    const [one, other] = [await arrives(), await arrives()];
    expect(done(await files(one.id, other.messageId, null)).count).toBe(0);
    const closed = await opens({ title: "Closed" });
    done(await closeRecord(tray.deps, desk.lead, closed.id, true));
    expect(refusal(await files(one.id, one.messageId, null, closed.id))).toBe("record-closed");
  });

  it("is told to nobody who may not know of its record", async () => {
    const secret = await opens({ title: "Secret", forInesOnly: true });
    const { id, messageId } = await arrives();
    done(await files(id, messageId, 0, secret.id));
    const { docket: _, ...hers } = await openOf(id, desk.maraGrant);
    expect(hers.records).toEqual([]);
    expect(hers.journal.filter(({ effect }) => effect.kind === "part-filed")).toEqual([]);
    expect(await onRecordOf(tray.deps, desk.maraGrant, secret.code)).toBeNull();
    expect((await openOf(id)).records.map(({ code }) => code)).toEqual([secret.code]);
  });

  it("keeps its message from going with the bin", async () => {
    const { id, messageId } = await arrives();
    done(await files(id, messageId, 0));
    await desk.does(desk.lead, id, { kind: "bin" });
    tray.clock.now = (tray.clock.now + 4_000 * 86_400_000) as typeof tray.clock.now;
    expect(await emptyBins(tray.deps)).toBe(0);
  });
});

it("what is filed alone is what its journals come to, or the doctor says so", async () => {
  const { id, messageId } = await arrives();
  done(await files(id, messageId, 1));
  expect((await examine(tray.deps)).differences).toEqual([]);
  await tray.ask("delete from filed_part where message_id = $1", [messageId]);
  const { differences } = await examine(tray.deps);
  expect(differences.map(({ columns }) => Object.keys(columns))).toEqual([["filedParts"]]);
  await tray.ask("delete from journal where conversation_id = $1 and kind = 'part-filed'", [id]);
});

describe("an answer that is sent and filed", () => {
  const answers = (id: ConversationId, after: "settle" | "keep", recordId = record.id) =>
    answerConversation(tray.deps, desk.lead, desk.ines, id, {
      to: [{ name: "", address: address("vane@vanehouse.example") }],
      cc: [],
      subject: "Re: Papers",
      html: "<p>Filed.</p>",
      after: { kind: after },
      files: { recordId },
    });

  it("files its conversation, and carries the code of the record", async () => {
    const { id } = await arrives();
    const sent = done(await answers(id, "settle"));
    const { row, journal, messages } = await openOf(id);
    expect(row).toMatchObject({ standing: "settled", recordCodes: [record.code] });
    expect(journal.find(({ effect }) => effect.kind === "filed")?.effect).toMatchObject({ means: "sending" });
    expect(messages.some((message) => message.id === sent)).toBe(true);
    const [stored] = await tray.ask(
      "select convert_from(content, 'utf8') as raw from message join blob on sha256 = raw_sha256 where message.id = $1",
      [sent],
    );
    expect(String(stored?.raw)).toContain(`Record-Reference: ${record.code}`);
  });

  it("does not go where the record takes nothing more", async () => {
    const closed = await opens({ title: "Closed too" });
    done(await closeRecord(tray.deps, desk.lead, closed.id, true));
    const { id } = await arrives();
    expect(refusal(await answers(id, "keep", closed.id))).toBe("record-closed");
    expect((await openOf(id)).messages).toHaveLength(1);
  });
});

describe("a tray that settles only what is filed", () => {
  const settles = (id: ConversationId, decision: Decision = { kind: "settle" }) =>
    decide(tray.deps, desk.lead, { ids: [id], seenVersion: null }, decision);

  it("refuses to settle anything else, by hand or with an answer", async () => {
    const { binDays, junkDays } = await traySettings(tray.deps, desk.lead);
    done(await setPuttingAway(tray.deps, desk.lead, { binDays, junkDays, filesFirst: true }));
    const { id } = await arrives();
    expect(refusal(await settles(id))).toBe("file-first");
    expect(refusal(await settles(id, { kind: "no-answer" }))).toBe("file-first");
    const answer = {
      to: [{ name: "", address: address("vane@vanehouse.example") }],
      cc: [],
      subject: "Re",
      html: "<p>x</p>",
    };
    const sends = () =>
      answerConversation(tray.deps, desk.lead, desk.ines, id, { ...answer, after: { kind: "settle" } });
    expect(refusal(await sends())).toBe("file-first");
    // To throw away is another matter.
    done(await settles(id, { kind: "bin" }));
    done(await settles(id, { kind: "restore" }));
    done(await settles(id, { kind: "file", recordId: record.id, settle: true }));
    expect((await openOf(id)).row.standing).toBe("settled");
    done(await setPuttingAway(tray.deps, desk.lead, { binDays, junkDays, filesFirst: false }));
    const free = await arrives();
    done(await settles(free.id));
  });
});
