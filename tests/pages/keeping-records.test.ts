import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { aMessageWithFiles } from "@tests/support/mail";
import { refusalOf, type Visitor, visitor } from "@tests/support/pages";
import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { trustedId, type ZipExportId } from "~/core/kernel/ids";
import { DAY, type Instant, later } from "~/core/kernel/instant";
import { closeRecord, openConversation, runZipExport } from "~/operations/index.server";
import { action as arrange, loader as arrangement } from "~/web/routes/records/arrangement";
import { loader as recordPage } from "~/web/routes/records/record";
import { loader as choices } from "~/web/routes/records/record-choices";
import { loader as document } from "~/web/routes/records/record-document";
import { action as documents } from "~/web/routes/records/record-documents";
import { action as keep, loader as retention } from "~/web/routes/records/retention";
import { loader as zipExport } from "~/web/routes/records/zip-export";
import { loader as ownZipExports, action as zipExports } from "~/web/routes/records/zip-exports";
import { action as answer } from "~/web/routes/writing/answer";
import { loader as documentChoices, action as enclosures } from "~/web/routes/writing/draft-attachments";

let tray: TestTray;
let desk: Desk;
let ines: Visitor;
let mara: Visitor;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  ines = visitor(tray.deps, desk.ines, desk.lead);
  mara = visitor(tray.deps, desk.mara, desk.maraGrant);
});
afterAll(() => tray.close());

const opens = (title: string) => desk.opensRecord(title);
const days = (count: number) => {
  tray.clock.now = later(tray.clock.now as Instant, count * DAY);
};

describe("the page of how long records are kept", () => {
  it("takes policies, says beside the field what is wrong, and gives them to records", async () => {
    const policy = { do: "policy", name: "Files", period: "P1M", countsFrom: "closing", endsIn: "review" };
    const wrong = await ines.posts(keep, { ...policy, name: "", period: "a month" });
    expect(wrong.data).toMatchObject({ ok: false, problems: { name: /name/ as never, period: /P10Y/ as never } });
    expect((await ines.posts(keep, policy)).data).toMatchObject({ ok: true, said: "Files saved" });
    expect((await ines.posts(keep, { ...policy, endsIn: "never" })).data).toMatchObject({ ok: false });
    expect((await ines.posts(keep, { do: "burn" })).data).toMatchObject({ ok: false });
    const shown = await ines.looksAt(retention, {});
    expect(shown.retention?.policies).toMatchObject([
      { name: "Files", words: "1 month after its closing", bearers: 0 },
    ]);
    expect(await mara.looksAt(retention, {})).toEqual({ retention: null });
  });

  it("shows what would go before it does, and then its certificate", async () => {
    const { id, code } = await opens("Old house");
    const policyId = (await ines.looksAt(retention, {})).retention?.policies[0]?.id ?? "";
    expect((await ines.posts(keep, { do: "bear", bearer: "record", id, policy: policyId })).data).toMatchObject({
      ok: true,
    });
    await desk.does(desk.lead, await desk.arrive({ subject: "The key" }), { kind: "file", recordId: id, settle: true });
    done(await closeRecord(tray.deps, desk.lead, id, true));
    expect((await ines.looksAt(recordPage, { code })).kept).toMatchObject({
      policyId,
      why: /1 month after its closing/ as never,
    });
    days(32);
    const { data } = await ines.posts(keep, { do: "preview", record: id });
    const preview = data.preview as { readonly previewId: string };
    expect(preview).toMatchObject({ conversations: 1, messages: 1, goes: [{ subject: "The key", count: 1 }] });
    expect((await ines.posts(keep, { do: "keep", record: id, until: "soon" })).data).toMatchObject({
      problems: { until: "Choose a day until which it is kept." },
    });
    expect((await ines.posts(keep, { do: "hold", record: id, reason: "Lawsuit" })).data).toMatchObject({ ok: true });
    const held = await ines.posts(keep, { do: "dispose", record: id, preview: preview.previewId });
    expect(held.data).toMatchObject({ ok: false, problem: expect.stringContaining("something holds it") });
    const { kept } = await ines.looksAt(recordPage, { code });
    expect(kept.holds).toMatchObject([{ reason: "Lawsuit", by: desk.ines.id }]);
    await ines.posts(keep, { do: "release", record: id, hold: kept.holds[0]?.id ?? "" });
    const gone = await ines.posts(keep, { do: "dispose", record: id, preview: preview.previewId });
    expect(gone.data).toMatchObject({ ok: true, said: `${code} disposed of: 1 conversation` });
    expect((await ines.looksAt(retention, {})).retention?.certificates).toMatchObject([{ code, conversations: 1 }]);
  });
});

describe("files on a record", () => {
  const put = async (code: string, file: File) => (await ines.posts(documents, { file }, { code })).data;

  it("are added, looked at and taken off; a message is filed as what it is", async () => {
    const { code } = await opens("With files");
    const drawing = new File(["A drawing."], "../drawing.txt", { type: "text/plain" });
    expect(await put(code, drawing)).toMatchObject({ ok: true });
    expect(await put(code, drawing)).toMatchObject({ ok: true, said: expect.stringContaining("here already") });
    expect(await put(code, new File([], "empty.txt"))).toMatchObject({ ok: false });
    const raw = aMessageWithFiles({ id: "kept@x.example", subject: "Kept elsewhere" }, []);
    expect(await put(code, new File([Buffer.from(raw)], "kept.eml"))).toMatchObject({ ok: true });
    const { mail } = await ines.looksAt(recordPage, { code });
    expect(mail?.conversations.map(({ row }) => [row.subject, row.standing])).toEqual([["Kept elsewhere", "settled"]]);
    const shown = await ines.looksAt(recordPage, { code }, "part=documents");
    const [version] = shown.documents?.[0]?.versions ?? [];
    expect(shown.documents).toMatchObject([{ name: "drawing.txt", versions: [{ who: "Ines Varga", isShown: true }] }]);
    const id = version?.id ?? "";
    const got = await ines.looksAt(document, { code, document: id });
    expect(await (got as unknown as Response).text()).toBe("A drawing.");
    expect(await refusalOf(ines.looksAt(document, { code, document: "no-id" }))).toBe(404);
    expect((await ines.posts(documents, { do: "remove", document: "no-id" }, { code })).status).toBe(404);
    expect((await ines.posts(documents, { do: "remove", document: id }, { code })).data).toMatchObject({ ok: true });
    expect(await refusalOf(ines.looksAt(document, { code, document: id }))).toBe(404);
    expect((await ines.looksAt(recordPage, { code }, "part=documents")).documents).toEqual([]);
  });

  it("are found by their words inside the record, and its months are counted", async () => {
    const { id, code } = await opens("To look into");
    for (const subject of ["Bellows leather", "Console stops"])
      await desk.does(desk.lead, await desk.arrive({ subject, body: subject }), {
        kind: "file",
        recordId: id,
        settle: false,
      });
    const found = async (query: string) =>
      (await ines.looksAt(recordPage, { code }, query)).mail?.conversations.map(({ row }) => row.subject);
    expect(await found("text=leather")).toEqual(["Bellows leather"]);
    expect(await found("text=nothing")).toEqual([]);
    expect(await found("")).toHaveLength(2);
    const { activity } = await ines.looksAt(recordPage, { code }, "part=activity");
    expect(activity?.map(({ came, went }) => [came, went])).toEqual([[2, 0]]);
  });
});

describe("a record's zip", () => {
  it("is packed, got from its own address, and put away", async () => {
    const { code } = await opens("To take out");
    expect((await ines.posts(zipExports, { do: "order", code, notes: "on" })).data).toEqual({ ok: true });
    const [ordered] = (await ines.looksAt(ownZipExports)).zipExports;
    const id = ordered?.id ?? trustedId<ZipExportId>("");
    expect(ordered).toMatchObject({ name: code, state: "waiting" });
    expect(await refusalOf(ines.looksAt(zipExport, { zipExport: id }))).toBe(404);
    await runZipExport(tray.deps, id);
    const response = (await ines.looksAt(zipExport, { zipExport: id })) as unknown as Response;
    const bytes = await response.arrayBuffer();
    expect(response.headers.get("Content-Length")).toBe(String(bytes.byteLength));
    expect((await ines.posts(zipExports, { do: "stop", zipExport: id })).status).toBe(409);
    await ines.posts(zipExports, { do: "put-away", zipExport: id });
    expect((await ines.looksAt(ownZipExports)).zipExports).toEqual([]);
    expect((await ines.posts(zipExports, { do: "put-away", zipExport: "no-id" })).status).toBe(404);
    expect((await ines.posts(zipExports, { do: "order", code: "X".repeat(200) })).status).toBe(400);
  });
});

describe("the files of a message", () => {
  const bring = async (fields: Readonly<Record<string, string | File>>) => ines.posts(enclosures, fields);

  it("are brought from a device or taken from a record, and are none where there is nothing to take", async () => {
    const { code } = await opens("With a plan");
    const file = new File(["A plan."], "plan.txt", { type: "text/plain" });
    const kept = await bring({ file });
    expect(kept.data).toMatchObject({ ok: true, enclosure: { name: "plan.txt", size: 7 } });
    await ines.posts(documents, { file }, { code });
    const { documents: offered } = await ines.looksAt(documentChoices, {}, `record=${code}&record=none`);
    expect(offered).toMatchObject([{ code, name: "plan.txt", words: expect.stringContaining("Ines Varga") }]);
    const { sha256 = "" } = offered[0] ?? {};
    expect((await bring({ code, name: "plan.txt", sha256 })).data).toMatchObject({ ok: true });
    expect((await bring({ code, name: "other.txt", sha256 })).data).toMatchObject({ ok: false });
    expect((await bring({})).data).toMatchObject({ ok: false, problem: "Choose a file first." });
    const large = new File([new Uint8Array(20_000_001)], "large.bin");
    expect(await bring({ file: large })).toMatchObject({ status: 413, data: { ok: false } });
  });

  it("go with the answer that names them; a list that is none, or of what is kept no more, sends nothing", async () => {
    const { data } = await bring({ file: new File(["A plan."], "plan.txt") });
    const conversation = await desk.arrive({ subject: "Send me the plan" });
    const letter = { to: "a@x.example", subject: "Re", html: "<p>Here.</p>", after: "keep" };
    const send = (given: string) => ines.posts(answer, { ...letter, enclosures: given }, { conversation });
    expect((await send("no list")).data).toMatchObject({ problems: { enclosures: /no list of files/ as never } });
    const gone = [{ id: conversation, name: "gone.txt", size: 1 }];
    expect((await send(JSON.stringify(gone))).data).toMatchObject({ problem: /not kept any more/ as never });
    expect((await send(JSON.stringify([data.enclosure]))).data).toMatchObject({ ok: true });
    const open = await openConversation(tray.deps, desk.lead, conversation);
    expect(open?.messages.at(-1)?.attachments.map(({ fileName }) => fileName)).toEqual(["plan.txt"]);
  });
});

describe("my arrangement", () => {
  it("is kept, refused when it is none, and stands first in the picker", async () => {
    const { id, code } = await opens("Arranged");
    const tree = [
      { kind: "folder", key: "f", name: "Mine", items: [{ kind: "record", recordId: id, name: "My own" }] },
    ];
    const keeps = (given: unknown, version: string) =>
      mara.posts(arrange, { do: "keep", tree: JSON.stringify(given), version });
    expect((await keeps(tree, "0")).data).toMatchObject({ ok: true });
    for (const wrong of [null, [{ kind: "folder", key: "f", name: "", items: [] }], [{ kind: "planet" }], { a: 1 }])
      expect((await keeps(wrong, "1")).data).toMatchObject({ ok: false });
    expect((await keeps(tree, "0")).data).toMatchObject({ ok: false });
    const shown = await mara.looksAt(arrangement, {});
    expect(shown).toMatchObject({ version: 1, tree, records: [{ code }] });
    expect((await mara.looksAt(choices, {}, "text=my own")).mine).toMatchObject([{ code, name: "My own" }]);
    const handed = await ines.posts(arrange, { do: "hand-out", role: "planet" });
    expect(handed.data).toMatchObject({ ok: false });
  });
});
