import { Readable } from "node:stream";
import { buffer } from "node:stream/consumers";
import { type Desk, done, only, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { type TestTray, testTray } from "@tests/support/test-database";
import { filesInZip } from "@tests/support/zips";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { RecordId, ZipExportId } from "../../core/kernel/ids";
import { DAY, type Instant, later, MINUTE } from "../../core/kernel/instant";
import { readTable } from "../../mail/index";
import {
  addDocument,
  closeRecord,
  forgetZipExports,
  getZipExports,
  openZipExport,
  orderZipExport,
  putZipExportAway,
  resumeWork,
  runZipExport,
  stopZipExport,
  type ZipExportForm,
  type ZipExportOf,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let bellows: { readonly id: RecordId; readonly code: string };

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  bellows = await desk.opensRecord("Bellows");
  const file = { kind: "file", recordId: bellows.id, settle: false } as const;
  await desk.does(desk.lead, await desk.arrive({ subject: "Leather for the bellows", body: "Two hides." }), file);
  await desk.does(desk.lead, await desk.arrive({ subject: "The console", body: "New stops." }), file);
  await desk.arrive({ subject: "More leather", body: "Filed nowhere." });
  const drawing = { name: "leather, cut.txt", contentType: "text/plain", content: Buffer.from("Cut.") };
  done(await addDocument(tray.deps, desk.lead, desk.ines, bellows, drawing));
  done(await addDocument(tray.deps, desk.lead, desk.ines, bellows, { ...drawing, name: "stops.txt" }));
});
afterAll(() => tray.close());

const PLAIN: ZipExportForm = { format: "eml", withNotes: false };
const order = async (what: Partial<ZipExportOf>, who = desk.lead) =>
  orderZipExport(tray.deps, who, { recordId: null, text: "", everywhere: false, ...what }, PLAIN);
const now = async (id: ZipExportId) => (await getZipExports(tray.deps, desk.lead)).find((one) => one.id === id);
const zipOf = async (id: ZipExportId, who = desk.lead) => {
  const opened = await openZipExport(tray.deps, who, id);
  return opened === null ? null : filesInZip(await buffer(Readable.from(opened.content, { objectMode: false })));
};
const packed = async (what: Partial<ZipExportOf>) => {
  const id = done(await order(what));
  await runZipExport(tray.deps, id);
  return { id, files: (await zipOf(id)) ?? new Map<string, Buffer>() };
};
const namesIn = (files: ReadonlyMap<string, Buffer>, folder: string) =>
  [...files.keys()].filter((name) => name.startsWith(folder)).map((name) => name.slice(folder.length));

describe("what is taken out", () => {
  it("is packed by a worker, is kept until it is got, and says how far it is", async () => {
    const id = done(await order({ recordId: bellows.id }));
    expect(tray.jobs).toContainEqual({ kind: "pack-parcel", parcelId: id });
    expect(await now(id)).toMatchObject({ name: bellows.code, state: "waiting", done: 0 });
    expect(await zipOf(id)).toBeNull();
    await runZipExport(tray.deps, id);
    const zipExport = await now(id);
    expect(zipExport).toMatchObject({ state: "done", done: 8, total: 8, problem: null });
    const files = (await zipOf(id)) ?? new Map<string, Buffer>();
    expect(files.size).toBe(8);
    expect([namesIn(files, "messages/").length, namesIn(files, "conversations/").length]).toEqual([2, 2]);
    expect(zipExport?.bytes).toBe((await tray.ask("select sum(length(content))::int as n from parcel_piece"))[0].n);
    await putZipExportAway(tray.deps, desk.lead, id);
    expect(await now(id)).toBeUndefined();
    expect(await tray.ask("select 1 from parcel_piece")).toEqual([]);
  });

  it("may be a part of a record: what has some words, with the documents called so", async () => {
    const { id, files } = await packed({ recordId: bellows.id, text: "leather" });
    expect((await now(id))?.name).toBe(`${bellows.code}: what has “leather”`);
    expect(namesIn(files, "conversations/")).toEqual([expect.stringContaining("Leather for the bellows")]);
    expect(namesIn(files, "documents/")).toEqual([expect.stringContaining("leather, cut.txt")]);
    expect([...files.keys()]).toContain("record.csv");
  });

  it("may be what a search finds, with the records that each conversation is on", async () => {
    const { files } = await packed({ text: "leather" });
    expect(namesIn(files, "messages/")).toHaveLength(2);
    expect([...files.keys()].filter((name) => !name.includes("/"))).toEqual(["index.csv"]);
    const read = readTable(files.get("index.csv")?.toString() ?? "", ["kind", "subject", "records", "filedby"]);
    if (!read.ok) throw new Error(inEnglish(read.error));
    const messages = read.value.map(({ cells }) => cells).filter(({ kind }) => kind === "message");
    expect(messages.map(({ subject, records, filedby }) => [subject, records, filedby])).toEqual([
      ["Leather for the bellows", bellows.code, "Ines Varga"],
      ["More leather", "", ""],
    ]);
    expect(refusal(await order({ text: "  " }))).toBe("no-such");
    expect((await packed({ text: "nothing has this" })).files.size).toBe(1);
  });

  it("is stopped, and there is no zip; what ended is not stopped, and what goes on is not put away", async () => {
    const id = done(await order({ recordId: bellows.id }));
    await putZipExportAway(tray.deps, desk.lead, id);
    done(await stopZipExport(tray.deps, desk.lead, id));
    await runZipExport(tray.deps, id);
    expect([(await now(id))?.state, await zipOf(id)]).toEqual(["cancelled", null]);
    expect(refusal(await stopZipExport(tray.deps, desk.lead, id))).toBe("ended-already");
  });

  it("is taken up again when a process was killed, from the start", async () => {
    const id = done(await order({ recordId: bellows.id }));
    await tray.ask("update parcel set state = 'running', done = 3 where id = $1", [id]);
    await tray.ask("insert into parcel_piece (parcel_id, position, content) values ($1, 0, 'half')", [id]);
    tray.clock.now = later(tray.clock.now as Instant, 3 * MINUTE);
    tray.jobs.length = 0;
    await resumeWork(tray.deps);
    expect(tray.jobs).toContainEqual({ kind: "pack-parcel", parcelId: id });
    await runZipExport(tray.deps, id);
    expect((await zipOf(id))?.size).toBe(8);
  });

  it("is hers alone, and nobody's once she may not know of the record, or its time is over", async () => {
    const secret = await desk.opensRecord("Secret", { access: only(desk.ines) });
    expect(refusal(await order({ recordId: secret.id }, desk.maraGrant))).toBe("no-such");
    const { id } = await packed({ recordId: secret.id });
    expect(await zipOf(id, desk.maraGrant)).toBeNull();
    expect(refusal(await stopZipExport(tray.deps, desk.maraGrant, id))).toBe("no-such");
    expect(await getZipExports(tray.deps, desk.maraGrant)).toEqual([]);
    expect(await now(id)).toBeDefined();
    await tray.ask("update record set viewers = '{}' where id = $1", [secret.id]);
    expect([await zipOf(id), await now(id)]).toEqual([null, undefined]);
    const late = done(await order({ recordId: bellows.id }));
    tray.clock.now = later(tray.clock.now as Instant, DAY + MINUTE);
    await forgetZipExports(tray.deps);
    expect(await getZipExports(tray.deps, desk.lead)).toEqual([]);
    await runZipExport(tray.deps, late);
    expect(await getZipExports(tray.deps, desk.lead)).toEqual([]);
  });

  it("fails with a word where somebody may not know of the record when its turn comes", async () => {
    const secret = await desk.opensRecord("Secret later");
    const id = done(await order({ recordId: secret.id }));
    await tray.ask("update record set viewers = '{}' where id = $1", [secret.id]);
    await runZipExport(tray.deps, id);
    expect(await tray.ask("select state, problem from parcel where id = $1", [id])).toEqual([
      { state: "failed", problem: "Whoever asked may not know of it any more." },
    ]);
    done(await closeRecord(tray.deps, desk.lead, bellows.id, true));
    expect((await packed({ recordId: bellows.id })).files.size).toBe(8);
  });
});
