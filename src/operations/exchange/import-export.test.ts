import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable } from "node:stream";
import { buffer } from "node:stream/consumers";
import { aMessage } from "@tests/support/mail";
import { address, type Office, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type ConversationId, trustedId } from "../../core/kernel/ids";
import { instant } from "../../core/kernel/instant";
import { mboxOf, readMbox, zipOf } from "../../mail/index";
import { inspectThreads } from "../arriving/inspect";
import {
  cancelImport,
  decide,
  examine,
  exportConversation,
  exportSearch,
  exportTray,
  getImports,
  importMail,
  openConversation,
  receiveImport,
  reparse,
  runImport,
} from "../index.server";

const folder = mkdtempSync(join(tmpdir(), "common-tray-mail-"));
let tray: TestTray;
let office: Office;
beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await tray.close();
});
beforeEach(() => {
  tray.jobs.length = 0;
});

const OFFICE = address("office@ottermoor.example");
const ours = "Ottermoor Organ Works <office@ottermoor.example>";
const mbox = (messages: readonly Uint8Array[]) =>
  mboxOf(
    messages.map((raw) => ({
      raw,
      sentAt: instant(0),
      correspondent: "",
      subject: "",
      from: "",
      to: "",
      messageId: "",
    })),
  );
const correspondence = (name: string) => [
  aMessage({ id: `${name}-1@v.example`, subject: `${name}`, body: "From here on it hums.\r\n>From there too." }),
  aMessage({
    id: `${name}-2@o.example`,
    subject: `Re: ${name}`,
    inReplyTo: `${name}-1@v.example`,
    from: ours,
    to: "vane@v.example",
  }),
  aMessage({ id: `${name}-3@v.example`, subject: `Re: ${name}`, inReplyTo: `${name}-2@o.example` }),
];
const write = (name: string, content: Uint8Array) => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};
const bring = (path: string, asHistory = true, goesOn: () => boolean = () => true) =>
  importMail(tray.deps, path, OFFICE, { asHistory, goesOn });
const idOf = async (messageId: string): Promise<ConversationId> =>
  (await tray.ask("select conversation_id from message where message_id = $1", [messageId]))[0]?.conversation_id;
const look = async (id: ConversationId) => {
  const open = await openConversation(tray.deps, office.grant, id);
  if (open === null) throw new Error("not there");
  return open;
};
async function* bytes(...chunks: Uint8Array[]) {
  yield* chunks;
}
async function upload(name: string, content: Uint8Array, asHistory = true) {
  const received = await receiveImport(tray.deps, office.grant, {
    name,
    way: asHistory ? ("history" as const) : ("new" as const),
    content: bytes(content),
  });
  if (!received.ok) throw new Error(received.error.kind);
  return received.value.id;
}
const runOf = async (id: string) => (await getImports(tray.deps, office.grant)).find((run) => run.id === id);

describe("importing", () => {
  it("tells both sides apart and settles what is the past; a second time adds nothing", async () => {
    const path = write("past.mbox", mbox(correspondence("past")));
    expect(await bring(path)).toMatchObject({
      value: { read: 3, added: 3, knownAlready: 0, flagged: 0, problem: null },
    });
    const open = await look(await idOf("past-1@v.example"));
    expect(open.messages.map(({ direction }) => direction)).toEqual(["in", "out", "in"]);
    expect([open.docket.standing.kind, open.docket.turn.kind]).toEqual(["settled", "us"]);
    expect(tray.jobs).toEqual([]);
    expect(await bring(path)).toMatchObject({ value: { read: 3, added: 0, knownAlready: 3 } });
  });

  it("joins answers of the past that name no message by their subject, the two correspondents of one apart", async () => {
    const dated = (day: number) => `${day} Mar 2024 09:00:00 +0000`;
    const [vane, quayle] = ["Vane <vane@v.example>", "Quayle <quayle@q.example>"];
    const letter = (id: string, from: string, to: string, subject: string, day: number) =>
      aMessage({ id: `${id}@h.example`, from, to, subject, date: dated(day) });
    const path = write(
      "history.mbox",
      mbox([
        letter("h1", vane, ours, "Invoice 77", 1),
        letter("h2", quayle, ours, "Invoice 77", 2),
        letter("h3", ours, vane, "Re: Invoice 77", 3),
        letter("h4", quayle, ours, "AW: Invoice 77", 4),
        aMessage({
          id: "h5@h.example",
          from: vane,
          to: ours,
          subject: "Re: Invoice 77",
          date: "1 Nov 2024 09:00:00 +0000",
        }),
      ]),
    );
    await bring(path);
    const of = await Promise.all(["h1", "h2", "h3", "h4", "h5"].map((id) => idOf(`${id}@h.example`)));
    expect([of[2] === of[0], of[3] === of[1], of[0] === of[1]]).toEqual([true, true, false]);
    // Half a year later it is another matter.
    expect(of).toHaveLength(5);
    expect([of[4] === of[0], of[4] === of[1]]).toEqual([false, false]);
    expect(await inspectThreads(path, [OFFICE])).toEqual([
      ["h1@h.example", "h3@h.example"],
      ["h2@h.example", "h4@h.example"],
      ["h5@h.example"],
    ]);
  });

  it("gives what has no date the time of its neighbours, and what it passes over a name", async () => {
    const undated = (id: string) => aMessage({ id, date: "some day", subject: id });
    const zip = await zipOf([
      {
        name: "box.mbox",
        content: mbox([
          undated("u1@h.example"),
          aMessage({ id: "d1@h.example", subject: "dated", date: "1 Mar 2024 09:00:00 +0000" }),
          undated("u2@h.example"),
        ]),
      },
      { name: "holidays.ics", content: Buffer.from("BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n") },
    ]);
    expect(await bring(write("undated.zip", zip))).toMatchObject({ value: { added: 3, passedOver: ["holidays.ics"] } });
    const rows = await tray.ask("select sent_at from message where message_id in ('u1@h.example', 'u2@h.example')");
    expect(rows.map(({ sent_at }) => sent_at.toISOString())).toEqual(Array(2).fill("2024-03-01T09:00:00.000Z"));
  });

  it("brings a report together with what it is about, whichever comes first", async () => {
    const report = aMessage({
      id: "bounce@mx.example",
      from: "Mail Delivery System <mailer-daemon@mx.example>",
      to: ours,
      subject: "Undelivered mail returned to sender",
      body: "<sexton@oldwyke.example>: 550 5.1.1 user unknown\r\n\r\n--- Below this line is a copy of the message.\r\n\r\nMessage-ID: <told@o.example>\r\nTo: sexton@oldwyke.example\r\n",
    });
    const letter = aMessage({ id: "told@o.example", from: ours, to: "sexton@oldwyke.example", subject: "The key" });
    await bring(write("report.mbox", mbox([report, letter])));
    expect(await idOf("bounce@mx.example")).toBe(await idOf("told@o.example"));
  });

  it("brings new mail to To sort", async () => {
    await bring(write("new.eml", aMessage({ id: "new-1@v.example", subject: "New" })), false);
    expect((await look(await idOf("new-1@v.example"))).docket.standing.kind).toBe("to-sort");
  });

  it("reads a zip of files and folders, and says where a broken one ends", async () => {
    const zip = await zipOf([
      { name: "a.eml", content: aMessage({ id: "zip-1@v.example" }) },
      { name: "b.mbox", content: mbox(correspondence("zipped")) },
      { name: "index.csv", content: Buffer.from("file\r\n") },
    ]);
    expect(await bring(write("mail.zip", zip))).toMatchObject({ value: { read: 4, added: 4, problem: null } });
    const broken = Buffer.from(zip);
    broken.fill(7, broken.length - 60);
    expect(await bring(write("broken.zip", broken))).toMatchObject({
      value: {
        read: 0,
        problem: "after message 0 (byte 0): it looks like a zip, and its list of contents cannot be read",
      },
    });
  });

  it("stops in a consistent state and goes on from there", async () => {
    const many = Array.from({ length: 420 }, (_, at) =>
      aMessage({ id: `many-${at}@v.example`, subject: `Many ${at}` }),
    );
    const path = write("many.mbox", mbox(many));
    let batches = 0;
    const stopped = await bring(path, true, () => ++batches < 2);
    const added = stopped.ok ? stopped.value.added : 0;
    expect([added > 0, added < 420, added % 100]).toEqual([true, true, 0]);
    expect((await examine(tray.deps)).differences).toEqual([]);
    const rows = await tray.ask(
      "select standing, count(*)::int as count from conversation where subject like 'Many %' group by 1",
    );
    expect(rows).toEqual([{ standing: "settled", count: added }]);
    expect(await bring(path)).toMatchObject({ value: { read: 420, added: 420 - added, knownAlready: added } });
  });
});

describe("an import from the interface", () => {
  it("is received, run by a job and reported; its file is not kept", async () => {
    const odd = Buffer.from("Subject: odd\r\n\r\nno sender\r\n");
    const id = await upload("../up.mbox", mbox([...correspondence("up"), odd]));
    expect(await runOf(id)).toMatchObject({ state: "waiting", fileName: "up.mbox" });
    expect(tray.jobs).toEqual([{ kind: "run-import", importId: id }]);
    await runImport(tray.deps, id);
    expect(await runOf(id)).toMatchObject({
      state: "done",
      messages: 4,
      added: 4,
      knownAlready: 0,
      flagged: 1,
      problem: null,
    });
    const ics = await upload("holidays.ics", Buffer.from("BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n"));
    await runImport(tray.deps, ics);
    expect(await runOf(ics)).toMatchObject({
      state: "failed",
      problem: "after message 0 (byte 0): it is no mail: neither a message, nor an mbox, nor a zip of them",
    });
    // Run again after a crash that came too late to matter.
    await runImport(tray.deps, id);
    expect(await runOf(id)).toMatchObject({ added: 4 });
    expect((await tray.ask("select count(*)::int as count from import_chunk"))[0].count).toBe(0);
  });

  it("can be stopped, once", async () => {
    const id = await upload("stop.mbox", mbox(correspondence("stop")));
    expect((await cancelImport(tray.deps, office.grant, id)).ok).toBe(true);
    await runImport(tray.deps, id);
    expect(await runOf(id)).toMatchObject({ state: "cancelled", added: 0 });
    expect(await cancelImport(tray.deps, office.grant, id)).toMatchObject({
      error: { kind: "nothing-to-undo" },
    });
    expect(await cancelImport(tray.deps, office.grant, trustedId(tray.deps.newId()))).toMatchObject({
      error: { kind: "no-such" },
    });
  });

  it("says what is wrong with the file", async () => {
    expect(await runOf(await upload("empty.mbox", Buffer.alloc(0)))).toMatchObject({
      state: "failed",
      problem: "The file is empty.",
    });
    const zip = await upload("bad.zip", Buffer.from("PK\u0003\u0004 and nothing more"));
    await runImport(tray.deps, zip);
    expect(await runOf(zip)).toMatchObject({ state: "failed", added: 0 });
  });
});

describe("exporting", () => {
  it("gives a conversation as an mbox that reads back byte for byte", async () => {
    const sent = correspondence("exported");
    await bring(write("exported.mbox", mbox(sent)));
    const file = await exportConversation(tray.deps, office.grant, await idOf("exported-1@v.example"), "mbox");
    const read: Uint8Array[] = [];
    for await (const raw of readMbox(file?.content ?? bytes(new Uint8Array()))) read.push(raw);
    expect(read.map((raw) => Buffer.from(raw).toString())).toEqual(sent.map((raw) => Buffer.from(raw).toString()));
  });

  it("gives .eml files in a zip, and what a search finds", async () => {
    await bring(write("words.mbox", mbox([aMessage({ id: "words@v.example", subject: "Zymbelstern" })])));
    const zip = await exportSearch(tray.deps, office.grant, "zymbelstern", "eml");
    expect(zip?.extension).toBe("zip");
    expect(await bring(write("again.zip", await buffer(zip?.content ?? Readable.from([]))))).toMatchObject({
      value: { read: 1, added: 0, knownAlready: 1 },
    });
    expect(await exportSearch(tray.deps, office.grant, "nothing has this", "eml")).toBeNull();
    expect(await exportConversation(tray.deps, office.grant, trustedId(tray.deps.newId()), "eml")).toBeNull();
  });

  it("gives a whole tray from which the same conversations come back", async () => {
    const pieces: Uint8Array[] = [];
    const exported = await exportTray(tray.deps, OFFICE, async (piece) => void pieces.push(piece));
    const path = write("tray.mbox", Buffer.concat(pieces));
    const other = await testTray();
    try {
      await setUpOffice(other.deps);
      const back = await importMail(other.deps, path, OFFICE, { asHistory: true, goesOn: () => true });
      expect(back).toMatchObject({ value: { read: exported.ok ? exported.value.messages : -1, knownAlready: 0 } });
      const asked = `select array_agg(encode(raw_sha256, 'hex') order by sent_at, encode(raw_sha256, 'hex')) as raws from message group by conversation_id order by 1`;
      const there = await other.ask(asked);
      expect(there).toEqual(await tray.ask(asked));
      expect(there.length).toBeGreaterThan(200);
    } finally {
      await other.close();
    }
  });
});

describe("reading everything again", () => {
  it("changes nothing where nothing changed, and mends what was understood wrongly; decisions stay", async () => {
    const [one] = correspondence("reparsed");
    await bring(write("reparsed.eml", one ?? new Uint8Array()), false);
    const id = await idOf("reparsed-1@v.example");
    await decide(tray.deps, office.grant, { ids: [id], seenVersion: null }, { kind: "note", text: "kept" });
    expect(await reparse(tray.deps, () => {})).toMatchObject({ changed: 0 });
    await tray.ask(
      "update message set kind = 'list', kind_reason = 'wrongly', subject = 'wrong' where conversation_id = $1",
      [id],
    );
    await tray.ask(
      "update message_text set own_text = 'wrong' where message_id in (select id from message where conversation_id = $1)",
      [id],
    );
    expect(await reparse(tray.deps, () => {})).toMatchObject({
      changed: 1,
      fields: { kind: 1, kind_reason: 1, subject: 1, own_text: 1 },
    });
    const open = await look(id);
    expect([open.messages[0]?.kind, open.row.subject, open.journal.at(-1)?.effect.kind]).toEqual([
      "person",
      "reparsed",
      "noted",
    ]);
    expect((await examine(tray.deps)).differences).toEqual([]);
  });
});
