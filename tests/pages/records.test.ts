import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { refusalOf, type Visitor, visitor } from "@tests/support/pages";
import { posted } from "@tests/support/posted";
import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { createRecord, getTypes } from "~/operations/index.server";
import { action as decide } from "~/web/routes/deciding/decide";
import { action as changeRecord, loader as recordPage } from "~/web/routes/records/record";
import { loader as choices } from "~/web/routes/records/record-choices";
import { action as keepType, loader as typesPage } from "~/web/routes/records/record-types";
import { action as openRecord, loader as register } from "~/web/routes/records/records";
import { loader as table } from "~/web/routes/records/records-csv";
import { action as takeIn } from "~/web/routes/records/records-import";
import { action as zipExports } from "~/web/routes/records/zip-exports";
import { action as write, loader as writePage } from "~/web/routes/writing/write";

let tray: TestTray;
let desk: Desk;
let ines: Visitor;
let mara: Visitor;
const types = { client: "", project: "" };

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  ines = visitor(tray.deps, desk.ines, desk.lead);
  mara = visitor(tray.deps, desk.mara, desk.maraGrant);
  for (const { id, name } of await getTypes(tray.deps)) types[name.toLowerCase() as keyof typeof types] = id;
});
afterAll(() => tray.close());

const opens = async (fields: Readonly<Record<string, string | readonly string[]>> = {}) => {
  const given = { do: "keep", type: types.client, title: "Vane House", ...fields };
  const { data } = await ines.posts(openRecord, given);
  if (data.ok !== true) throw new Error(JSON.stringify(data));
  return { id: String(data.id), code: String(data.code) };
};

describe("the register", () => {
  it("shows a tree, a flat list, or what is looked for", async () => {
    const { code } = await opens({ title: "Abbey of Sorrel" });
    await opens({ title: "Case of Sorrel", type: types.project, parent: code.toLowerCase() });
    const shown = async (query: string) =>
      (await ines.looksAt(register, {}, query)).records.map(({ title, depth }) => `${"-".repeat(depth)}${title}`);
    expect(await shown("")).toEqual(["Abbey of Sorrel", "-Case of Sorrel"]);
    expect(await shown("as=flat")).toEqual(["Abbey of Sorrel", "Case of Sorrel"]);
    expect(await shown("text=case")).toEqual(["Case of Sorrel"]);
    expect((await ines.looksAt(choices, {}, "text=sorrel")).records).toHaveLength(2);
  });

  it("says beside the field what is wrong, and keeps nothing then", async () => {
    const before = (await ines.looksAt(register, {}, "as=flat")).total;
    const refusals = [
      [{ title: " " }, { title: "Say what it is called." }],
      [{ parent: "X-9" }, { parentId: "There is no record X-9." }],
      [{ addresses: "nobody" }, { addresses: "“nobody” is not an address." }],
      [{ access: "some" }, { access: "Nobody would know of it; choose at least one colleague." }],
      [{ type: "planet" }, { title: "That is too much, or no record." }],
    ] as const;
    for (const [fields, problems] of refusals) {
      const { data } = await ines.posts(openRecord, { do: "keep", type: types.client, title: "New", ...fields });
      expect(data).toMatchObject({ ok: false, problems });
    }
    const hidden = { do: "keep", type: types.client, title: "New", access: "some", members: [desk.mara.id] };
    expect((await ines.posts(openRecord, hidden)).data.problem).toMatch(/You would not know of it/);
    expect((await ines.looksAt(register, {}, "as=flat")).total).toBe(before);
  });

  it("goes out as a table and comes in, a trial first", async () => {
    const out = await (await ines.looksAt(table)).text();
    expect(out).toContain("Abbey of Sorrel");
    const lines = "title,type\nTaken in,Client\nWrong,Planet";
    const report = async (how: string) =>
      (await ines.posts(takeIn, { do: how, table: lines })).data.report as {
        lines: { kind: string }[];
        isDone: boolean;
      };
    const tried = await report("try");
    expect([tried.isDone, ...tried.lines.map(({ kind }) => kind)]).toEqual([false, "new", "problem"]);
    expect((await ines.looksAt(register, {}, "text=taken")).records).toEqual([]);
    expect((await report("import")).isDone).toBe(true);
    expect((await ines.looksAt(register, {}, "text=taken")).records).toHaveLength(1);
    expect((await ines.posts(takeIn, { do: "try", table: "" })).data.problem).toMatch(/Choose a file/);
    expect((await ines.posts(takeIn, { do: "try", table: "code\nC-1" })).data.problem).toMatch(/“title”/);
  });
});

describe("the page of a record", () => {
  it("changes it for one who saw how it stands, closes and reopens it", async () => {
    const { code } = await opens({ title: "Before", addresses: "vane@vanehouse.example" });
    const page = async () => ines.looksAt(recordPage, { code });
    const { edited } = (await page()).card;
    expect(edited).toMatchObject({ title: "Before", addresses: ["vane@vanehouse.example"], access: null, version: 0 });
    const keep = { do: "keep", type: types.client, title: "After", version: "0", responsible: desk.mara.id };
    expect((await ines.posts(changeRecord, keep, { code })).data).toMatchObject({ ok: true, code });
    expect((await ines.posts(changeRecord, keep, { code })).data.problem).toMatch(/changed this record meanwhile/);
    expect((await ines.posts(changeRecord, { do: "close" }, { code })).data.said).toBe(`${code} is closed`);
    expect((await page()).card).toMatchObject({ closed: "today", edited: { responsibleId: desk.mara.id } });
    expect(await refusalOf(ines.looksAt(writePage, {}, `record=${code}&draft=${tray.deps.newId()}`))).toBe(404);
    expect((await ines.posts(changeRecord, { do: "reopen" }, { code })).data.said).toBe(`${code} is open again`);
    expect((await page()).card.steps.map(({ words }) => words)).toEqual([
      "reopened it",
      "closed it",
      "called it “After”, changed who is responsible, changed its people",
      "opened it",
    ]);
  });

  it("shows what is filed as a table, and its documents, only where that is asked for", async () => {
    const { id, code } = await opens({ title: "Filed" });
    const conversation = await desk.arrive({ subject: "The key" });
    const filing = posted({ kind: "file", recordId: id, settle: false, means: "shelf" });
    expect((await ines.posts(decide, { ...filing, conversation })).data).toMatchObject({ ok: true, count: 1 });
    const mail = await ines.looksAt(recordPage, { code });
    expect([mail.filings, mail.documents, mail.mail?.conversations.length]).toEqual([null, null, 1]);
    const { filings } = await ines.looksAt(recordPage, { code }, "part=filings");
    expect(filings?.rows).toMatchObject([
      { subject: "The key", means: "onto the shelf", filedBy: desk.ines.id, count: 1 },
    ]);
    expect((await ines.looksAt(recordPage, { code }, "part=documents")).documents).toEqual([]);
  });

  it("is no page to one who may not know of it, nor anything that belongs to it", async () => {
    const { id, code } = await opens({ access: "some", members: [desk.ines.id] });
    expect(await refusalOf(ines.looksAt(recordPage, { code }))).toBe(200);
    const looks: readonly (() => Promise<unknown>)[] = [
      () => mara.looksAt(recordPage, { code }),
      () => mara.looksAt(writePage, {}, `record=${code}&draft=${tray.deps.newId()}`),
      () => mara.posts(changeRecord, { do: "close" }, { code }),
    ];
    for (const look of looks) expect(await refusalOf(look())).toBe(404);
    const letter = { record: id, to: "a@x.example", subject: "New", html: "<p>Yes.</p>", after: "keep" };
    expect((await mara.posts(write, letter)).data.problem).toBe("There is no such record any more.");
    expect((await mara.posts(zipExports, { do: "order", code })).data.problem).toBe("There is no record of this code.");
  });
});

describe("merging from the page of a record", () => {
  it("leads to the other one, by the old code, too", async () => {
    const [from, into] = [await opens({ title: "Old" }), await opens({ title: "Good" })];
    const merge = (code: string) => ines.posts(changeRecord, { do: "merge", into: code }, { code: from.code });
    expect((await merge("X-9")).data).toMatchObject({ problems: { code: "There is no record X-9." } });
    expect((await merge(into.code.toLowerCase())).data).toMatchObject({ ok: true, code: into.code });
    expect(await refusalOf(ines.looksAt(recordPage, { code: from.code }))).toBe(302);
  });
});

describe("a type of records", () => {
  const kind = {
    key: "k",
    label: "Kind",
    kind: "choice",
    required: true,
    choices: ["offer", "bill"],
    start: "",
    remembers: true,
  };

  it("is kept with its fields, which are then asked for whatever way something is filed", async () => {
    const fields = { name: "Case", codePattern: "K-{nn}", fields: JSON.stringify([kind]) };
    expect((await ines.posts(keepType, fields)).data).toMatchObject({ ok: true, said: "Case saved" });
    const type = (await ines.looksAt(typesPage)).types.find(({ name }) => name === "Case");
    expect(type).toMatchObject({ example: "K-01", fields: [kind] });
    const { id } = await opens({ type: type?.id ?? "" });
    const conversation = await desk.arrive();
    const files = (more: object = {}) =>
      ines.posts(decide, { ...posted({ kind: "file", recordId: id, settle: true, ...more }), conversation });
    const asked = await files();
    expect(asked).toMatchObject({
      status: 409,
      data: { ok: false, stale: false, asked: { code: "K-01", problems: {} } },
    });
    const wrong = await files({ fields: { k: "planet" } });
    expect(wrong.data).toMatchObject({ asked: { problems: { k: expect.stringContaining("none of the choices") } } });
    for (const broken of ["{", [1], { k: "x".repeat(3_000) }])
      expect((await files({ fields: broken })).data).toMatchObject({ ok: false });
    expect((await files({ fields: { k: "bill" } })).data.ok).toBe(true);
    const { filings } = await ines.looksAt(recordPage, { code: "K-01" }, "part=filings");
    expect(filings).toMatchObject({ fields: [{ key: "k", label: "Kind" }], rows: [{ fields: { k: "bill" } }] });
  });

  it.each([
    [{ name: "", codePattern: "Z-{n}" }, { name: "Give it a name." }],
    [{ name: "Z", codePattern: "Z" }, { codePattern: expect.stringContaining("same code") }],
    [{ name: "Z", codePattern: "C-{yy}-{n}" }, { codePattern: expect.stringContaining("begin with C") }],
    [
      { name: "Z", codePattern: "Z-{n}", fields: JSON.stringify([{ ...kind, start: "gone" }]) },
      { fields: expect.stringContaining("cannot begin with “gone”") },
    ],
  ])("is refused beside its field: %j", async (fields, problems) => {
    expect((await ines.posts(keepType, { fields: "[]", ...fields })).data).toMatchObject({ ok: false, problems });
  });

  it("is refused whole where it is none", async () => {
    const { data } = await ines.posts(keepType, { name: "Z", codePattern: "Z-{n}", fields: "no list" });
    expect(data).toMatchObject({ ok: false, problems: {}, problem: "That is too much, or no type of records." });
  });
});

describe("a message about a record", () => {
  it("goes, or says what is wrong beside its fields", async () => {
    const { id, code } = await opens({ title: "To write about", addresses: "casework@calder.example" });
    const page = await ines.looksAt(writePage, {}, `record=${code}&draft=${tray.deps.newId()}`);
    expect(page).toMatchObject({ record: { code }, people: [{ address: "casework@calder.example", name: "" }] });
    const letter = { record: id, to: "casework@calder.example", subject: `Drawings [${code}]`, after: "settle" };
    const { data } = await ines.posts(write, { ...letter, html: "" });
    expect(data).toMatchObject({ ok: false, problems: { html: "Write something first." } });
    const sent = await ines.posts(write, { ...letter, html: "<p>Here.</p>" });
    expect(sent.data).toMatchObject({ ok: true, conversationId: expect.any(String) });
    const { mail } = await ines.looksAt(recordPage, { code });
    expect(mail?.conversations.map(({ row }) => [row.id, row.standing])).toEqual([
      [sent.data.conversationId, "settled"],
    ]);
  });
});

it("a record that two open at once is two records", async () => {
  const draft = { typeId: types.client as never, title: "Twice", parentId: null, responsibleId: null, note: "" };
  const both = [1, 2].map(() => createRecord(tray.deps, desk.lead, { ...draft, addresses: "", access: null }));
  const codes = (await Promise.all(both)).map((made) => done(made).code);
  expect(new Set(codes).size).toBe(2);
});
