import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { refusalOf, type Visitor, visitor } from "@tests/support/pages";
import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { createRecord, editType } from "~/operations/index.server";
import { action as ownDraft } from "~/web/routes/writing/own-draft";
import { loader as drafts } from "~/web/routes/writing/own-drafts";
import { action as write, loader as writePage } from "~/web/routes/writing/write";

let tray: TestTray;
let desk: Desk;
let ines: Visitor;
let record: { id: string; code: string };

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  ines = visitor(tray.deps, desk.ines, desk.lead);
  const kind = { key: "kind", label: "Kind", kind: "choice", required: true, choices: ["offer"], start: "" } as const;
  const fields = [{ ...kind, remembers: false }];
  const typeId = done(await editType(tray.deps, desk.lead, { id: null, name: "Job", codePattern: "J-{nnn}", fields }));
  const draft = { typeId, title: "Sorrel case", parentId: null, responsibleId: null, note: "", access: null };
  record = done(await createRecord(tray.deps, desk.lead, { ...draft, addresses: "casework@calder.example" }));
});
afterAll(() => tray.close());

const DRAFT = "01900000-0000-7000-8000-00000000d001";
const begun = (asks: Readonly<Record<string, string>>) =>
  ines.looksAt(writePage, {}, new URLSearchParams({ draft: DRAFT, ...asks }).toString());

describe("the page that begins a message", () => {
  it("begins with nothing, with somebody, or about a record", async () => {
    const blank = { to: "", cc: "", subject: "", html: "" };
    expect(await begun({})).toEqual({ id: DRAFT, there: null, record: null, people: [], start: blank });
    expect(await refusalOf(ines.looksAt(writePage))).toBe(302);
    expect((await begun({ to: "vane@vanehouse.example" })).start).toEqual({ ...blank, to: "vane@vanehouse.example" });
    expect(await begun({ record: record.code })).toMatchObject({
      record: { code: record.code, title: "Sorrel case" },
      people: [{ address: "casework@calder.example" }],
      start: { ...blank, subject: ` [${record.code}]` },
    });
    expect(await refusalOf(begun({ record: "J-999" }))).toBe(404);
  });

  it("begins as a link to an address asks, whose text is a text", async () => {
    const mailto =
      "mailto:a@x.example?cc=b@y.example&subject=Two%20%3Cb%3E&body=%3Cscript%3Ealert(1)%3C/script%3E%0D%0AYes";
    expect((await begun({ mailto })).start).toEqual({
      to: "a@x.example",
      cc: "b@y.example",
      subject: "Two <b>",
      html: "<p>&lt;script&gt;alert(1)&lt;/script&gt;<br>Yes</p>",
    });
    expect((await begun({ mailto: "javascript:alert(1)", to: "c@z.example" })).start.to).toBe("c@z.example");
  });
});

describe("a draft of one's own", () => {
  const draft = { to: "petra@new.example", cc: "", subject: "", html: "<p>Good", after: "keep", day: "" };
  const posts = (who: Visitor, version: number, part: object = {}) =>
    who.posts(
      ownDraft,
      { do: "keep", version: String(version), conversation: "", draft: JSON.stringify({ ...draft, ...part }) },
      { draft: DRAFT },
    );
  const does = (what: string) => ines.posts(ownDraft, { do: what }, { draft: DRAFT });

  it("is kept half done, goes on where it is opened, and says what else was written on it", async () => {
    expect((await posts(ines, 0)).data).toEqual({ ok: true, saved: { kind: "kept", version: 1 } });
    expect((await begun({})).there).toEqual({ id: DRAFT, version: 1, draft });
    expect((await posts(ines, 1, { html: "<p>Good morning" })).data).toMatchObject({ saved: { version: 2 } });
    const there = { id: DRAFT, version: 2, draft: { ...draft, html: "<p>Good morning" } };
    expect((await posts(ines, 1, { html: "<p>Good day" })).data).toEqual({
      ok: true,
      saved: { kind: "differs", there },
    });
  });

  it("is in the list of its writer, thrown away and brought back, and in nobody else's", async () => {
    const mara = visitor(tray.deps, desk.mara, desk.maraGrant);
    const listed = async (who: Visitor) =>
      (await who.looksAt(drafts)).map(({ kind, text, place }) => [kind, text, place]);
    const place = `write?draft=${DRAFT}`;
    expect(await listed(ines)).toEqual([["own", "Good morning", place]]);
    expect((await does("throw-away")).data).toEqual({ ok: true });
    expect(await listed(ines)).toEqual([["discarded", "Good morning", place]]);
    expect((await does("throw-away")).data).toEqual({ ok: false, problem: "There is no such draft any more." });
    expect((await does("bring-back")).data).toEqual({ ok: true });
    expect(await listed(mara)).toEqual([]);
    expect((await posts(mara, 3)).data).toEqual({ ok: true, saved: { kind: "differs", there: null } });
  });

  it("that is an answer is written in its conversation", async () => {
    const [conversation, id] = [await desk.arrive(), tray.deps.newId()];
    const fields = { do: "keep", version: "0", conversation, draft: JSON.stringify(draft) };
    expect((await ines.posts(ownDraft, fields, { draft: id })).data.ok).toBe(true);
    const open = await begun({ draft: id }).catch((answer: Response) => answer.headers.get("location"));
    expect(open).toBe(`/office/open/${conversation}`);
  });

  it.each([
    { html: 7 },
    { after: "later" },
    { html: "x".repeat(1_000_001) },
    { enclosures: [{ id: "no" }] },
    { files: { id: DRAFT } },
  ])("is not kept with %o", async (wrong) => {
    const { status, data } = await posts(ines, 0, wrong);
    expect([status, data.ok]).toEqual([400, false]);
  });
});

describe("a first message", () => {
  const letter = { to: "Petra Neu <petra@new.example>", subject: "First", html: "<p>Good morning.</p>", after: "keep" };

  it("goes to somebody nobody wrote to before, filed nowhere", async () => {
    const { data } = await ines.posts(write, letter);
    expect(data.ok).toBe(true);
    const [row] = await tray.ask("select who, record_ids from conversation where id = $1", [data.conversationId]);
    expect(row).toEqual({ who: "Petra Neu", record_ids: [] });
  });

  it("asks for what its record asks for first, and goes with it", async () => {
    const filed = { ...letter, record: record.id };
    expect((await ines.posts(write, filed)).data).toMatchObject({
      ok: false,
      problem: null,
      asked: { code: record.code },
    });
    const { data } = await ines.posts(write, { ...filed, fields: JSON.stringify({ kind: "offer" }) });
    expect(data.ok).toBe(true);
  });

  it.each([
    [{ to: "" }, "to"],
    [{ to: "nobody" }, "to"],
    [{ subject: "" }, "subject"],
    [{ subject: "One\r\nBcc: b@y.example" }, "subject"],
    [{ html: "<p> </p>" }, "html"],
  ])("is not sent with %j", async (wrong, field) => {
    const { data } = await ines.posts(write, { ...letter, ...wrong });
    expect(Object.keys(data.problems as object)).toEqual([field]);
  });
});
