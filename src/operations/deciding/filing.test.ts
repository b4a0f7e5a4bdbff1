import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, type RecordId, trustedId } from "../../core/kernel/ids";
import type { FieldValues, FilingField } from "../../core/records/filing-field";
import {
  createRecord,
  decide,
  editType,
  filingsOf,
  getTypes,
  openConversation,
  runBulk,
  startBulkRun,
  type TrayGrant,
  undoBatch,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let record: Parameters<typeof filingsOf>[2];
let recordId: RecordId;

const field = (key: string, given: Partial<FilingField>): FilingField => ({
  key,
  label: key,
  kind: "text",
  required: false,
  choices: [],
  start: "",
  remembers: false,
  ...given,
});
const FIELDS = [
  field("kind", { kind: "choice", choices: ["offer", "invoice"], required: true, start: "offer", remembers: true }),
  field("amount", { kind: "number" }),
];

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  const [client] = await getTypes(tray.deps);
  if (client === undefined) throw new Error("there are types from the start");
  done(await editType(tray.deps, desk.lead, { ...client, fields: FIELDS }));
  const draft = { typeId: client.id, title: "Vane House", parentId: null, responsibleId: null, note: "" };
  record = done(await createRecord(tray.deps, desk.lead, { ...draft, addresses: "", access: null }));
  recordId = record.id;
});
afterAll(() => tray.close());

const file = (ids: readonly ConversationId[], fields?: FieldValues, who: TrayGrant = desk.lead) => {
  const decision = { kind: "file", recordId, settle: false, means: "picker", ...(fields && { fields }) } as const;
  return decide(tray.deps, who, { ids, seenVersion: null }, decision);
};
const askedOf = (result: Awaited<ReturnType<typeof file>>) => {
  if (result.ok || result.error.kind !== "fields-asked") throw new Error("nothing was asked");
  const { fields, problems } = result.error.asked;
  return { values: fields.map(({ value }) => value), problems };
};
const filedWith = async (id: ConversationId) => {
  const open = await openConversation(tray.deps, desk.lead, id, "ahead");
  return open?.journal.flatMap(({ effect }) => (effect.kind === "filed" ? [effect.fields] : [])) ?? [];
};

describe("filing on a record that asks for particulars", () => {
  it("is asked once, for however many, and begins with what was given last", async () => {
    const ids = await Promise.all(Array.from({ length: 12 }, (_, at) => desk.arrive({ subject: `Invoice ${at}` })));
    expect(inEnglish(askedOf(await file(ids)))).toEqual({ values: ["offer", ""], problems: {} });
    expect(inEnglish(askedOf(await file(ids, { kind: "planet", amount: "much" })))).toMatchObject({
      values: ["planet", "much"],
      problems: { kind: /none of the choices/, amount: /number/ } as never,
    });
    expect(await filedWith(ids[0] ?? trustedId(""))).toEqual([]);
    const { batchId, count } = done(await file(ids, { kind: "invoice", amount: "12,50" }));
    expect(count).toBe(12);
    for (const id of ids) expect(await filedWith(id)).toEqual([{ kind: "invoice", amount: "12.50" }]);
    const next = await desk.arrive({ subject: "Next" });
    expect(askedOf(await file([next])).values).toEqual(["invoice", ""]);
    // What a colleague gave is no beginning of hers.
    expect(askedOf(await file([next], undefined, desk.maraGrant)).values).toEqual(["offer", ""]);
    done(await undoBatch(tray.deps, desk.lead, batchId));
    const open = await openConversation(tray.deps, desk.lead, ids[3] ?? trustedId(""), "ahead");
    expect(open?.row.recordCodes).toEqual([]);
  });

  it("has its particulars changed later, taken back, and asked for as when it was filed", async () => {
    const id = await desk.arrive({ subject: "Wrongly filed" });
    done(await file([id], { kind: "offer", amount: "5" }));
    const change = (fields: FieldValues, who = desk.lead) =>
      decide(tray.deps, who, { ids: [id], seenVersion: null }, { kind: "particulars", recordId, fields });
    const now = async () => {
      const { threads } = await filingsOf(tray.deps, desk.lead, record);
      return threads.find((thread) => thread.id === id);
    };
    expect((await now())?.fields).toEqual({ kind: "offer", amount: "5" });
    expect(askedOf(await change({ kind: "", amount: "much" })).values).toEqual(["", "much"]);
    const { batchId } = done(await change({ kind: "invoice", amount: "7" }, desk.maraGrant));
    // Whoever corrects it did not file it.
    expect(await now()).toMatchObject({ fields: { kind: "invoice", amount: "7" }, filedBy: desk.ines.id });
    expect(done(await change({ kind: "invoice", amount: "7.0" })).count).toBe(1);
    done(await change({ kind: "invoice", amount: "7" }));
    done(await undoBatch(tray.deps, desk.lead, batchId));
    done(await change({ kind: "invoice" }));
    expect((await now())?.fields).toEqual({ kind: "invoice" });
    expect(refusal(await change({ kind: "offer" }, desk.reader))).toBe("readers-only-read");
    await desk.does(desk.lead, id, { kind: "unfile", recordId });
    expect(done(await change({ kind: "offer" })).count).toBe(0);
    done(await file([id], { kind: "offer" }));
    expect((await now())?.fields).toEqual({ kind: "offer" });
  });

  it("is asked before a run begins, too", async () => {
    const ids = await Promise.all(Array.from({ length: 3 }, () => desk.arrive()));
    const decision = { kind: "file", recordId, settle: true } as const;
    expect(refusal(await startBulkRun(tray.deps, desk.lead, ids, decision, "Filed"))).toBe("fields-asked");
    const fields = { kind: "offer" };
    const run = done(await startBulkRun(tray.deps, desk.lead, ids, { ...decision, fields }, "Filed"));
    await runBulk(tray.deps, run);
    for (const id of ids) expect(await filedWith(id)).toEqual([fields]);
  });
});
