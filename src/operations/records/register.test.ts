import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { onRecordOf } from "@tests/support/on-record";
import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, type GroupId, type RecordId, trustedId } from "../../core/kernel/ids";
import { instant } from "../../core/kernel/instant";
import { readFilter, WITHOUT } from "../../core/lists/filter";
import type { EntryDraft } from "../../core/records/register-entry";
import {
  changeRecord,
  closeRecord,
  createRecord,
  decide,
  dropGroup,
  editGroup,
  editType,
  examine,
  exportRecords,
  filingsOf,
  getTypes,
  importRecords,
  listConversations,
  mergeRecords,
  openConversation,
  pinPlace,
  recordPage,
  register,
  setUpRecords,
  shelfOf,
  type TrayGrant,
  whereMerged,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let draft: EntryDraft;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  await setUpRecords(tray.deps, [
    { code: "C-033", title: "Vane House", kind: "client", parentCode: null, closed: false },
    { code: "P-26-012", title: "Sorrel case", kind: "project", parentCode: "C-033", closed: false },
  ]);
  const project = (await getTypes(tray.deps)).find(({ name }) => name === "Project");
  draft = {
    typeId: project?.id ?? trustedId(""),
    title: "New case",
    parentId: null,
    responsibleId: null,
    note: "",
    addresses: "",
    access: null,
  };
});
afterAll(() => tray.close());

const opens = async (given: Partial<EntryDraft> = {}, who: TrayGrant = desk.lead) =>
  done(await createRecord(tray.deps, who, { ...draft, ...given }));
const only = (...members: { readonly id: string }[]) => ({
  memberIds: members.map(({ id }) => trustedId<Desk["mara"]["id"]>(id)),
  groupIds: [],
});
const seenBy = async (who: TrayGrant) => (await register(tray.deps, who, "", true)).lines.map(({ code }) => code);

describe("a record", () => {
  it("gets the next code of its type, gapless, however many open one at the same time", async () => {
    const made = await Promise.all(Array.from({ length: 200 }, (_, at) => opens({ title: `Case ${at}` })));
    const numbers = made.map(({ code }) => Number(/^P-26-(\d+)$/.exec(code)?.[1])).toSorted((a, b) => a - b);
    expect(numbers).toEqual(Array.from({ length: 200 }, (_, at) => 13 + at));
    expect(refusal(await createRecord(tray.deps, desk.lead, { ...draft, title: "" }))).toBe("problems");
    expect((await opens()).code).toBe("P-26-213");
  }, 60_000);

  it("passes over a code that was given by hand, and counts each year anew", async () => {
    await setUpRecords(tray.deps, [
      { code: "P-26-214", title: "By hand", kind: "project", parentCode: null, closed: false },
    ]);
    expect((await opens()).code).toBe("P-26-215");
    const before = tray.clock.now;
    tray.clock.now = instant(Date.UTC(2027, 0, 4, 9));
    expect((await opens()).code).toBe("P-27-001");
    tray.clock.now = before;
  });

  it("is changed by one who has seen how it stands", async () => {
    const record = await opens({ title: "Before" });
    const next = { ...draft, title: "After", addresses: "casework@calder.example", version: record.version };
    expect(done(await changeRecord(tray.deps, desk.maraGrant, record.id, next)).title).toBe("After");
    expect(refusal(await changeRecord(tray.deps, desk.lead, record.id, next))).toBe("record-changed");
    expect(refusal(await changeRecord(tray.deps, desk.reader, record.id, next))).toBe("readers-only-read");
    const under = await opens({ title: "Under", parentId: record.id });
    const round = await changeRecord(tray.deps, desk.lead, record.id, { ...next, version: 1, parentId: under.id });
    expect(inEnglish(round)).toMatchObject({
      ok: false,
      error: { kind: "problems", problems: { parentId: /itself/ } },
    } as never);
  });

  it("takes nothing more once it is closed, until it is reopened", async () => {
    const record = await opens({ title: "To close" });
    const id = await desk.arrive({ subject: "Late" });
    const file = () =>
      decide(
        tray.deps,
        desk.lead,
        { ids: [id], seenVersion: null },
        { kind: "file", recordId: record.id, settle: false },
      );
    done(await closeRecord(tray.deps, desk.lead, record.id, true));
    expect(refusal(await file())).toBe("record-closed");
    done(await closeRecord(tray.deps, desk.lead, record.id, false));
    // Of one who files and one who closes at the same time, either comes first.
    const [filed] = await Promise.all([file(), closeRecord(tray.deps, desk.lead, record.id, true)]);
    const onIt = (await onRecordOf(tray.deps, desk.lead, record.code))?.conversations ?? [];
    expect(onIt).toHaveLength(filed.ok ? 1 : 0);
  });
});

describe("a record that is merged into another", () => {
  const merges = (from: { id: RecordId }, into: { id: RecordId }, who = desk.lead) =>
    mergeRecords(tray.deps, who, from.id, into.id);

  it("has everything on it there, with its particulars, and its code leads there", async () => {
    const [from, into] = [await opens({ title: "From", addresses: "a@x.example" }), await opens({ title: "Into" })];
    const child = await opens({ title: "Child", parentId: from.id });
    const ids = [await desk.arrive(), await desk.arrive()];
    const filing = { kind: "file", settle: false, means: "shelf" } as const;
    await desk.does(desk.lead, ids, { ...filing, recordId: from.id });
    await desk.does(desk.lead, ids[1] ?? trustedId(""), { ...filing, recordId: into.id, means: "proposal" });
    done(await pinPlace(tray.deps, desk.lead, { kind: "record", target: from.id, isForAll: false }));
    expect(done(await merges(from, into)).conversations).toBe(2);
    const page = await recordPage(tray.deps, desk.lead, into.code);
    const onIt = await onRecordOf(tray.deps, desk.lead, into.code);
    expect(onIt?.conversations.map(({ id }) => id).toSorted()).toEqual(ids.toSorted());
    expect(page?.count).toEqual({ filed: 2, open: 2 });
    expect(page?.under.map(({ code }) => code)).toEqual([child.code]);
    expect(page?.entry.addresses).toEqual(["a@x.example"]);
    const threads = await filingsOf(tray.deps, desk.lead, page?.entry ?? from);
    expect(threads.threads.map(({ means }) => means).toSorted()).toEqual(["proposal", "shelf"]);
    expect(await recordPage(tray.deps, desk.lead, from.code)).toBeNull();
    expect(await whereMerged(tray.deps, desk.lead, from.code)).toBe(into.code);
    expect((await shelfOf(tray.deps, desk.lead)).places.some(({ target }) => target === into.id)).toBe(true);
    const further = await opens({ title: "Further" });
    done(await merges(into, further));
    expect(await whereMerged(tray.deps, desk.lead, from.code)).toBe(further.code);
    expect((await examine(tray.deps)).differences).toEqual([]);
  });

  it("is refused to whoever does not lead, into itself, into what is closed, or what others may know of", async () => {
    const [from, into] = [await opens({ title: "From" }), await opens({ title: "Into" })];
    const under = await opens({ title: "Under", parentId: from.id });
    const narrow = await opens({ title: "Narrow", access: only(desk.ines) });
    expect(refusal(await merges(from, into, desk.maraGrant))).toBe("leads-only");
    expect(refusal(await merges(from, from))).toBe("problems");
    expect(refusal(await merges(from, under))).toBe("problems");
    expect(refusal(await merges(narrow, into))).toBe("other-access");
    expect(refusal(await merges(from, { id: trustedId(desk.ines.id) }))).toBe("no-such");
    done(await closeRecord(tray.deps, desk.lead, into.id, true));
    expect(refusal(await merges(from, into))).toBe("record-closed");
  });
});

describe("the register as a table", () => {
  it("takes in what is right line by line, reports the rest, and gives it out again", async () => {
    const table = [
      "title,code,type,under,responsible",
      "Valve case,P-26-700,Project,C-033,Ines Varga",
      "Nowhere,,Project,C-999,",
      "Sorrel case anew,P-26-012,,C-033,",
      "Next of its type,,Project,P-26-700,",
      ",,Project,,",
    ].join("\n");
    const before = await seenBy(desk.lead);
    const tried = await importRecords(tray.deps, desk.maraGrant, table, true);
    expect(inEnglish(tried)).toMatchObject({
      ok: true,
      value: ["new", "problem", "changed", "new", "problem"].map((kind) => ({ kind })),
    });
    expect(await seenBy(desk.lead)).toEqual(before);
    const taken = await importRecords(tray.deps, desk.maraGrant, table, false);
    expect(taken.ok && taken.value.map(({ line, kind }) => [line, kind])).toEqual([
      [2, "new"],
      [3, "problem"],
      [4, "changed"],
      [5, "new"],
      [6, "problem"],
    ]);
    const out = await exportRecords(tray.deps, desk.lead);
    expect(out).toContain("Valve case,P-26-700,Project,C-033,open,Ines Varga,,");
    expect(out).toContain("Sorrel case anew,P-26-012,Project,C-033,open,,,");
    const again = await importRecords(tray.deps, desk.lead, out, true);
    expect(again.ok && new Set(again.value.map(({ kind }) => kind))).toEqual(new Set(["same"]));
    expect(await importRecords(tray.deps, desk.lead, "code\nC-1", true)).toMatchObject({ ok: false });
    expect(await importRecords(tray.deps, desk.reader, table, false)).toMatchObject({ ok: false });
  });
});

describe("a type of records", () => {
  it("is a lead's, and its codes are its own", async () => {
    const type = { id: null, name: "Case", codePattern: "K-{nn}", fields: [] };
    expect(refusal(await editType(tray.deps, desk.maraGrant, type))).toBe("leads-only");
    expect(refusal(await editType(tray.deps, desk.lead, { ...type, codePattern: "P-{nnnn}" }))).toBe("problems");
    const typeId = done(await editType(tray.deps, desk.lead, type));
    expect((await opens({ typeId })).code).toBe("K-01");
    done(await editType(tray.deps, desk.lead, { ...type, id: typeId, codePattern: "K-{yy}-{nn}" }));
    expect((await opens({ typeId })).code).toBe("K-26-01");
  });
});

describe("what a member may not know of", () => {
  let secret: { id: RecordId; code: string };
  let filed: ConversationId;
  beforeAll(async () => {
    secret = await opens({ title: "Secret matter", access: only(desk.ines) });
    filed = await desk.arrive({ subject: `About ${secret.code}`, from: "client@secret.example" });
    await desk.does(desk.lead, filed, { kind: "file", recordId: secret.id, settle: false }, { kind: "keep" });
    await desk.does(desk.lead, filed, { kind: "note", text: `See ${secret.code}.` });
    done(await pinPlace(tray.deps, desk.lead, { kind: "record", target: secret.id, isForAll: true }));
  });

  it("is there for whoever may", async () => {
    expect(await seenBy(desk.lead)).toContain(secret.code);
    const open = await openConversation(tray.deps, desk.lead, filed, "ahead");
    expect(open?.row.recordCodes).toEqual([secret.code]);
    expect(open?.journal.some(({ effect }) => effect.kind === "filed")).toBe(true);
  });

  it("is not filed to, taken off, or found by filtering", async () => {
    const target = { ids: [filed], seenVersion: null };
    const decisions = [
      { kind: "file", recordId: secret.id, settle: false },
      { kind: "unfile", recordId: secret.id },
    ] as const;
    for (const decision of decisions)
      expect(inEnglish(await decide(tray.deps, desk.maraGrant, target, decision))).toMatchObject({
        error: { kind: "no-such", what: "record" },
      });
    const found = async (grant: TrayGrant, member: Desk["mara"], record: string, grouping: "record" | null = null) => {
      const filter = readFilter(new URLSearchParams({ record }));
      const view = { order: "date", reversed: false, grouping } as const;
      return listConversations(tray.deps, grant, member, { scope: "our-move", filter, view });
    };
    expect((await found(desk.maraGrant, desk.mara, secret.id)).total).toBe(0);
    expect((await found(desk.lead, desk.ines, secret.id)).total).toBe(1);
    // For her it is filed nowhere.
    const unfiled = await found(desk.maraGrant, desk.mara, WITHOUT, "record");
    expect(unfiled.lanes.map(({ key, count }) => [key, count])).toEqual([[WITHOUT, 1]]);
    expect((await found(desk.lead, desk.ines, WITHOUT)).total).toBe(0);
  });

  it("reaches what stands under it, which can narrow it further and never widen it", async () => {
    const parent = await opens({ title: "Parent", access: only(desk.ines, desk.mara) });
    const inherits = await opens({ title: "Inherits", parentId: parent.id });
    const narrower = await opens({ title: "Narrower", parentId: parent.id, access: only(desk.ines) });
    const wider = await opens({ title: "Wider", parentId: parent.id, access: only(desk.ines, desk.tobias) });
    const ofThese = async (who: TrayGrant) => {
      const codes = await seenBy(who);
      return [parent, inherits, narrower, wider].map(({ code }) => codes.includes(code));
    };
    expect(await ofThese(desk.lead)).toEqual([true, true, true, true]);
    expect(await ofThese(desk.maraGrant)).toEqual([true, true, false, false]);
    expect(await ofThese(desk.tobiasGrant)).toEqual([false, false, false, false]);
    // Without its own list the parent is everybody's, and what stands under it as it says.
    done(await changeRecord(tray.deps, desk.lead, parent.id, { ...draft, title: "Parent", version: 0 }));
    expect(await ofThese(desk.tobiasGrant)).toEqual([true, true, false, true]);
  });

  it("follows the group that may", async () => {
    const group = { id: null, name: "Voicers", memberIds: [desk.mara.id, desk.ines.id] };
    const groupId: GroupId = done(await editGroup(tray.deps, desk.lead, group));
    const { code } = await opens({ title: "Voicing", access: { memberIds: [], groupIds: [groupId] } });
    expect(await seenBy(desk.maraGrant)).toContain(code);
    done(await editGroup(tray.deps, desk.lead, { ...group, id: groupId, memberIds: [desk.ines.id] }));
    expect(await seenBy(desk.maraGrant)).not.toContain(code);
    expect(await seenBy(desk.lead)).toContain(code);
    done(await dropGroup(tray.deps, desk.lead, groupId));
    expect(await seenBy(desk.lead)).not.toContain(code);
  });

  it("is nothing that one hides from oneself, or opens to others without the right", async () => {
    expect(refusal(await createRecord(tray.deps, desk.lead, { ...draft, access: only(desk.mara) }))).toBe(
      "shut-out-yourself",
    );
    const record = await opens({ access: only(desk.ines, desk.mara) });
    const changed = { ...draft, version: 0, access: null };
    expect(refusal(await changeRecord(tray.deps, desk.maraGrant, record.id, changed))).toBe("leads-only");
  });
});
