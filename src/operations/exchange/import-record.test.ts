import { buffer } from "node:stream/consumers";
import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { aMessage, aMessageWithFiles } from "@tests/support/mail";
import { onRecordOf, takeRecordIn, zipOfRecord } from "@tests/support/on-record";
import { address, type TestTray, testTray } from "@tests/support/test-database";
import { filesInZip } from "@tests/support/zips";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, type MessageId, type RecordId, trustedId } from "../../core/kernel/ids";
import { openZip, zipOf } from "../../mail/index";
import {
  addDocument,
  answerConversation,
  cancelImport,
  closeRecord,
  createRecord,
  editType,
  examine,
  getImports,
  getTypes,
  importRecord,
  openConversation,
  receiveImport,
  receiveMessage,
  runImport,
  splitOff,
} from "../index.server";

let there: TestTray;
let here: TestTray;
let desk: Desk;
let newDesk: Desk;
let code: string;

const arrives = async (raw: Uint8Array): Promise<{ id: ConversationId; messageId: MessageId }> => {
  const recipients = [address("office@ottermoor.example")];
  const [kept] = await receiveMessage(there.deps, { raw, envelopeSender: "a@x.example", recipients });
  const id = kept?.conversationId ?? trustedId<ConversationId>("");
  const messages = (await openConversation(there.deps, desk.lead, id, "ahead"))?.messages ?? [];
  return { id, messageId: messages.at(-1)?.id ?? trustedId<MessageId>("") };
};

beforeAll(async () => {
  there = await testTray();
  desk = await setUpDesk(there);
  const types = await getTypes(there.deps);
  const [client, project] = types;
  if (client === undefined || project === undefined) throw new Error("there are types from the start");
  const field = {
    key: "k",
    label: "Kind",
    kind: "text",
    required: false,
    choices: [],
    start: "",
    remembers: false,
  } as const;
  done(await editType(there.deps, desk.lead, { ...project, fields: [field] }));
  const open = async (typeId: typeof client.id, title: string, parentId: RecordId | null) => {
    const access = parentId === null ? null : { memberIds: [desk.ines.id, desk.mara.id], groupIds: [] };
    const draft = { typeId, title, parentId, responsibleId: desk.mara.id, note: "Ring first; “twice”." };
    return done(await createRecord(there.deps, desk.lead, { ...draft, addresses: "vane@vanehouse.example", access }));
  };
  const above = await open(client.id, "Vane House", null);
  const record = await open(project.id, "=SUM of the pipes, Größe", above.id);
  ({ code } = record);
  const filing = { kind: "file", recordId: record.id, settle: false, means: "shelf", fields: { k: "offer" } } as const;
  const first = await arrives(aMessageWithFiles({ id: "1@x.example", subject: "Papers" }, ["frame.txt", "bell.txt"]));
  await desk.does(desk.lead, first.id, filing, { kind: "note", text: "Ring her first." });
  done(
    await answerConversation(there.deps, desk.lead, desk.ines, first.id, {
      to: [{ name: "Perpetua Vane", address: address("perpetua.vane@vanehouse.example") }],
      cc: [],
      subject: "Re: Papers",
      html: "<p>On Tuesday.</p>",
      after: { kind: "keep" },
    }),
  );
  // What threading would put together was split by hand, and the other way round.
  const later = {
    subject: "Re: Papers",
    inReplyTo: "1@x.example",
    body: "Another matter.\r\n\r\nFrom here on it hums.",
  };
  const split = await arrives(aMessage({ ...later, id: "2@x.example", date: "Wed, 25 Nov 2026 08:00:00 +0000" }));
  const apart = done(await splitOff(there.deps, desk.lead, split.id, split.messageId));
  await desk.does(desk.maraGrant, apart.conversationId, { ...filing, fields: { k: "letter" } });
  // A message alone, an attachment alone, and a file that came by no mail.
  const alone = await arrives(aMessageWithFiles({ id: "3@x.example", subject: "Alone" }, ["one.txt", "two.txt"]));
  const part = { ...filing, part: { messageId: alone.messageId, attachment: null } };
  await desk.does(desk.lead, alone.id, part);
  const piece = await arrives(aMessageWithFiles({ id: "4@x.example", subject: "Piece" }, ["three.txt"]));
  await desk.does(desk.lead, piece.id, { ...filing, part: { messageId: piece.messageId, attachment: 0 } });
  const file = { name: "plan.txt", contentType: "text/plain", content: Buffer.from("The plan.") };
  done(await addDocument(there.deps, desk.lead, desk.ines, record, file));
  done(await closeRecord(there.deps, desk.lead, record.id, true));
  here = await testTray();
  newDesk = await setUpDesk(here);
  const [, sameType] = await getTypes(here.deps);
  if (sameType !== undefined) done(await editType(here.deps, newDesk.lead, { ...sameType, fields: [field] }));
});
afterAll(async () => {
  await there.close();
  await here.close();
});

const zipFrom = async (tray: TestTray, who: Desk, format: "eml" | "mbox") => {
  const zip = await zipOfRecord(tray.deps, who.lead, code, { format, withNotes: true });
  if (zip === null) throw new Error("there is no such record");
  return zip;
};
const textOf = (files: ReadonlyMap<string, Buffer>) =>
  Object.fromEntries([...files].map(([name, content]) => [name, content.toString("latin1")]));

describe("a record that is taken out of one tray and into another", () => {
  it.each(["eml", "mbox"] as const)("is the same when it is taken out there, as %s", async (format) => {
    const before = await zipFrom(there, desk, format);
    const restored = await takeRecordIn(here.deps, newDesk.lead, before);
    const messages = format === "eml" ? [4, 0] : [0, 4];
    expect(restored).toMatchObject({
      ok: true,
      value: {
        code,
        conversations: 3,
        remarks: [],
        messages: messages[0],
        knownAlready: messages[1],
        documents: format === "eml" ? 2 : 0,
      },
    });
    const after = await zipFrom(here, newDesk, format);
    expect(textOf(await filesInZip(after))).toEqual(textOf(await filesInZip(before)));
    expect((await examine(here.deps)).differences).toEqual([]);
  });

  it("is known there to those alone who knew of it here, and settled, as it is the past", async () => {
    const rook = await newDesk.grantNow(newDesk.tobias);
    expect(await onRecordOf(here.deps, rook, code)).toBeNull();
    const { conversations = [], parts = [] } = (await onRecordOf(here.deps, newDesk.lead, code)) ?? {};
    expect(conversations.map(({ standing }) => standing)).toEqual(["settled", "settled"]);
    expect(parts).toHaveLength(1);
  });
});

describe("what is no record, or not as it was", () => {
  const refused = async (content: Uint8Array, who = newDesk.lead) => {
    const restored = await takeRecordIn(here.deps, who, content);
    return restored.ok ? "taken in" : restored.error;
  };

  it("is refused, and nothing of it is taken in", async () => {
    expect(await refused(Buffer.from("PK nothing"))).toBe("That is no zip.");
    expect(await refused(await zipOf([{ name: "a.eml", content: Buffer.from("x") }]))).toMatch(/no index.csv/);
    expect(await refused(await zipFrom(there, desk, "eml"), newDesk.maraGrant)).toMatch(/lead/i);
    const files = await filesInZip(await zipFrom(there, desk, "eml"));
    const [letter = ""] = [...files.keys()].filter((name) => name.startsWith("messages/"));
    const changed = [...files].map(([name, content]) => ({
      folder: "",
      name,
      load: async () => (name === letter ? Buffer.from(`${content}!`) : content),
    }));
    const { zipStream } = await import("../../mail/index");
    const empty = await testTray();
    const emptyDesk = await setUpDesk(empty);
    const restored = await takeRecordIn(empty.deps, emptyDesk.lead, await buffer(zipStream(changed, new Date(0))));
    expect(restored).toMatchObject({
      ok: false,
      error: expect.stringContaining("is not what the index says"),
    });
    expect(await empty.ask("select count(*)::int as count from message")).toEqual([{ count: 0 }]);
    expect(await empty.ask("select count(*)::int as count from record")).toEqual([{ count: 0 }]);
    await empty.close();
  });
});

describe("the zip of a record that is uploaded", () => {
  async function* bytes(content: Uint8Array) {
    yield content;
  }
  const uploads = (content: Uint8Array, who = newDesk.lead) =>
    receiveImport(here.deps, who, { name: "record.zip", way: "record", content: bytes(content) });
  const runOf = async (id: string, who = newDesk.lead) =>
    (await getImports(here.deps, who)).find((run) => run.id === id);

  it("is taken in by a worker, and what came of it is said to those who may know of the record", async () => {
    const { id } = done(await uploads(await zipFrom(there, desk, "eml")));
    expect(here.jobs).toContainEqual({ kind: "run-import", importId: id });
    await runImport(here.deps, id);
    expect(await runOf(id)).toMatchObject({
      state: "done",
      way: "record",
      problem: null,
      messages: 4,
      added: 0,
      knownAlready: 4,
      record: { code },
      said: "3 conversations, and 0 documents besides.",
    });
    expect((await runOf(id))?.bytesRead).toBe((await runOf(id))?.bytes);
    expect(await runOf(id, await newDesk.grantNow(newDesk.tobias))).toMatchObject({ record: null });
  });

  it("says why it was not, is not for those who do not lead, and is stopped where it is", async () => {
    const broken = done(await uploads(Buffer.from("PK nothing")));
    await runImport(here.deps, broken.id);
    expect(await runOf(broken.id)).toMatchObject({ state: "failed", problem: expect.stringContaining("no zip") });
    expect(refusal(await uploads(Buffer.from("PK"), newDesk.maraGrant))).toBe("leads-only");
    const stopped = done(await uploads(await zipFrom(there, desk, "eml")));
    done(await cancelImport(here.deps, newDesk.lead, stopped.id));
    await runImport(here.deps, stopped.id);
    expect(await runOf(stopped.id)).toMatchObject({ state: "cancelled", messages: 0, record: null });
  });

  it("goes on no further once somebody has stopped it", async () => {
    const zip = await openZip(await zipFrom(there, desk, "eml"));
    if (zip === null) throw new Error("it is one");
    const read: number[] = [];
    const restored = await importRecord(here.deps, newDesk.lead, zip, async (sofar) => {
      read.push(sofar.read);
      return false;
    });
    zip.close();
    expect([restored.ok, read.length]).toEqual([false, 1]);
  });
});
