import { inEnglish } from "@tests/support/english";
import { aMessage } from "@tests/support/mail";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import type { Decision } from "../../core/deciding/decision";
import { type CategoryId, type ConversationId, type FollowUpId, type RecordId, trustedId } from "../../core/kernel/ids";
import { DAY, dateOf, HOUR, later } from "../../core/kernel/instant";
import type { ListFilter } from "../../core/lists/filter";
import type { Scope } from "../../core/lists/scope";
import { GROUPINGS, type Grouping, ORDERS, type SheetView } from "../../core/lists/sheet-view";
import {
  changesInList,
  countsForFilter,
  decide,
  everythingInList,
  examine,
  getFollowUps,
  getJournal,
  learnDecisions,
  listConversations,
  markUnread,
  markUnreadFromMessage,
  moreOfList,
  openConversation,
  readyForRun,
  receiveMessage,
  redoNewest,
  setUpCategories,
  setUpRecords,
  sortRun,
  undoNewest,
  undoSteps,
  wakeRested,
} from "../index.server";

let tray: TestTray;
let office: Office;
let tuning: CategoryId;
let sorrel: RecordId;
const arrived: ConversationId[] = [];

const arrive = async (subject: string, from = "Perpetua Vane <vane@vanehouse.example>") => {
  passes(tray, 7);
  const date = dateOf(tray.clock.now).toUTCString();
  const raw = aMessage({ id: `sort-${arrived.length}@vanehouse.example`, subject, from, date });
  const recipients = [address("office@ottermoor.example")];
  const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
  const id = kept?.conversationId ?? trustedId<ConversationId>("");
  arrived.push(id);
  return id;
};
const does = async (id: ConversationId, decision: Decision, grant = office.grant) => {
  passes(tray, 1);
  const done = await decide(tray.deps, grant, { ids: [id], seenVersion: null }, decision);
  if (!done.ok) throw new Error(`${decision.kind} was refused: ${done.error.kind}`);
  return done.value;
};

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  const [category] = await setUpCategories(tray.deps, [{ code: "TU", name: "Tuning", ink: "moss", parentCode: null }]);
  const [record] = await setUpRecords(tray.deps, [
    { code: "P-26-012", title: "Sorrel case", kind: "project", parentCode: null, closed: false },
  ]);
  tuning = category?.id ?? trustedId("");
  sorrel = record?.id ?? trustedId("");
  for (let at = 0; at < 12; at += 1)
    await arrive(`Letter ${at}`, at % 3 === 0 ? "Otto Quayle <otto@quayle.example>" : undefined);
});
afterAll(() => tray.close());
beforeEach(() => passes(tray, 1));

type View = Pick<SheetView, "order" | "reversed" | "grouping">;
const BY_DATE: View = { order: "date", reversed: false, grouping: null };
const request = (scope: Scope, view: Partial<View> = {}, filter: ListFilter = {}) => ({
  scope,
  filter,
  view: { ...BY_DATE, ...view },
});
const listed = async (...asked: Parameters<typeof request>) => {
  const { total, lanes } = await listConversations(tray.deps, office.grant, office.ines, request(...asked));
  return {
    total,
    lanes: lanes.map(({ name, count, rows }) => [name, count, rows.map(({ subject }) => subject)] as const),
  };
};

describe("a list", () => {
  it.each(ORDERS)("by %s goes on page by page without a gap or a repetition", async (order) => {
    for (const reversed of [false, true]) {
      const asked = request("to-sort", { order, reversed });
      const whole = await moreOfList(tray.deps, office.grant, office.ines, asked, { lane: "", after: null, limit: 50 });
      const paged = [];
      for (let after = null as null | { key: number | string; id: string }; ; ) {
        const page = await moreOfList(tray.deps, office.grant, office.ines, asked, { lane: "", after, limit: 5 });
        paged.push(...page);
        const last = page.at(-1);
        if (last === undefined) break;
        // As it comes back in a URL.
        after = { key: String(last.sortKey), id: last.id };
      }
      expect(paged.map(({ id }) => id)).toEqual(whole.map(({ id }) => id));
      expect(paged).toHaveLength(12);
    }
  });

  it.each(GROUPINGS)("by %s has every row in a group, as often as the group counts", async (grouping) => {
    const { lanes } = await listConversations(tray.deps, office.grant, office.ines, request("to-sort", { grouping }));
    expect(lanes.every(({ rows, count }) => rows.length === count)).toBe(true);
    expect(lanes.reduce((sum, { count }) => sum + count, 0)).toBe(12);
    const ids = lanes.flatMap(({ rows }) => rows.map(({ id }) => id));
    const changes = await changesInList(tray.deps, office.grant, office.ines, request("to-sort", { grouping }), ids);
    const told = new Map(changes.rows.map(({ row, laneKeys }) => [row.id, laneKeys]));
    for (const { key, rows } of lanes) for (const { id } of rows) expect(told.get(id)).toContain(key);
  });

  it("stands under each of its categories, its record and its owner, and under “without” where it has none", async () => {
    const [id = trustedId<ConversationId>("")] = arrived;
    await does(id, { kind: "categorise", categoryId: tuning, give: true });
    await does(id, { kind: "file", recordId: sorrel, settle: false });
    const groups = async (grouping: Grouping) =>
      (await listed("to-sort", { grouping })).lanes.map(([name, count]) => [name, count]);
    expect(inEnglish(await groups("category"))).toEqual([
      ["Tuning", 1],
      ["No category", 11],
    ]);
    expect(inEnglish(await groups("record"))).toEqual([
      ["P-26-012 Sorrel case", 1],
      ["Not filed", 11],
    ]);
    expect(inEnglish(await groups("owner"))).toEqual([["No owner", 12]]);
    expect(inEnglish(await groups("person"))).toEqual([
      ["Perpetua Vane", 8],
      ["Otto Quayle", 4],
    ]);
    await does(id, { kind: "categorise", categoryId: tuning, give: false });
    await does(id, { kind: "unfile", recordId: sorrel });
  });

  it("is filtered by each dimension, and counts what each would show", async () => {
    const [id = trustedId<ConversationId>("")] = arrived;
    await does(id, { kind: "urgency", urgency: "today" });
    const shown = async (filter: ListFilter) => (await listed("to-sort", {}, filter)).total;
    const counts: [ListFilter, number][] = [
      [{ urgency: ["today"] }, 1],
      [{ urgency: ["today", "no-rush"] }, 12],
      [{ person: ["otto@quayle.example"] }, 4],
      [{ owner: ["none"], category: ["none"], record: ["none"] }, 12],
      [{ owner: [office.ines.id] }, 0],
      [{ owner: ["nobody's id"] }, 0],
      [{ age: ["a0"] }, 12],
      [{ age: ["a3"] }, 0],
      [{ attachment: ["yes"] }, 0],
      [{ unread: ["yes"] }, 12],
      [{ unread: ["yes"], person: ["otto@quayle.example"] }, 4],
    ];
    for (const [filter, count] of counts) expect([filter, await shown(filter)]).toEqual([filter, count]);
    const asked = request("to-sort", {}, { person: ["otto@quayle.example"], urgency: ["today"] });
    const people = await countsForFilter(tray.deps, office.grant, office.ines, asked, "person");
    // What is chosen of the dimension itself is left out of account: it is what one might change.
    expect(inEnglish(people.map(({ name, count }) => [name, count]))).toEqual([["Otto Quayle", 1]]);
    const urgencies = await countsForFilter(tray.deps, office.grant, office.ines, asked, "urgency");
    expect(inEnglish(urgencies.map(({ name, count }) => [name, count]))).toEqual([
      ["Today", 1],
      ["No rush", 3],
    ]);
    for (const dimension of ["age", "attachment", "unread", "owner", "category", "record"] as const) {
      const found = await countsForFilter(tray.deps, office.grant, office.ines, request("to-sort"), dimension);
      expect([dimension, found.reduce((sum, { count }) => sum + count, 0)]).toEqual([dimension, 12]);
    }
    await does(id, { kind: "urgency", urgency: "no-rush" });
  });

  it("says of changes which rows it still shows", async () => {
    const [id = trustedId<ConversationId>(""), other = trustedId<ConversationId>("")] = arrived;
    await does(id, { kind: "settle" });
    const { rows, lanes } = await changesInList(tray.deps, office.grant, office.ines, request("to-sort"), [id, other]);
    expect(rows.map(({ row, laneKeys }) => [row.id, laneKeys])).toEqual([[other, [""]]]);
    expect(inEnglish(lanes)).toEqual([{ key: "", name: "", count: 11 }]);
    await undoNewest(tray.deps, office.grant);
    expect(await everythingInList(tray.deps, office.grant, office.ines, request("to-sort"), null, 99)).toHaveLength(12);
  });

  it("has everything that is open in one, whatever its standing", async () => {
    const [id = trustedId<ConversationId>("")] = arrived;
    await does(id, { kind: "assign", ownerId: office.ines.id });
    const { lanes } = await listed("open", { grouping: "standing" });
    expect(inEnglish(lanes.map(([name, count]) => [name, count]))).toEqual([
      ["To sort", 11],
      ["Our move", 1],
    ]);
    await undoNewest(tray.deps, office.grant);
  });

  it("shows unread again what somebody marked so, to her alone", async () => {
    const [id = trustedId<ConversationId>("")] = arrived;
    await openConversation(tray.deps, office.grant, id);
    expect((await listed("to-sort", {}, { unread: ["no"] })).total).toBe(1);
    await markUnread(tray.deps, office.grant, [id]);
    expect((await listed("to-sort", {}, { unread: ["no"] })).total).toBe(0);
    const open = await openConversation(tray.deps, office.grant, id);
    expect(await markUnreadFromMessage(tray.deps, office.tobiasGrant, open?.messages[0]?.id ?? trustedId(""))).toBe(
      true,
    );
    expect((await listed("to-sort", {}, { unread: ["no"] })).total).toBe(1);
    expect(await markUnreadFromMessage(tray.deps, office.grant, open?.messages[0]?.id ?? trustedId(""))).toBe(true);
    expect((await listed("to-sort", {}, { unread: ["no"] })).total).toBe(0);
    expect(await markUnreadFromMessage(tray.deps, office.grant, trustedId(tray.deps.newId()))).toBe(false);
  });
});

describe("resting", () => {
  it("comes back to where it was, on top of everything, saying why", async () => {
    const [id = trustedId<ConversationId>("")] = arrived;
    await does(id, { kind: "rest", until: later(tray.clock.now, 2 * HOUR) });
    expect((await listed("resting")).total).toBe(1);
    passes(tray, 119);
    expect(await wakeRested(tray.deps)).toBe(1);
    const { lanes } = await listed("to-sort");
    expect(lanes[0]?.[2][0]).toBe("Letter 0");
    const open = await openConversation(tray.deps, office.grant, id);
    expect(open?.docket.standing.reason).toMatchObject({ kind: "rest-ended", by: office.ines.id });
    expect(await examine(tray.deps)).toMatchObject({ differences: [] });
  });
  it("until somebody writes has no end of its own", async () => {
    const [, id = trustedId<ConversationId>("")] = arrived;
    const { batchId } = await does(id, { kind: "rest", until: null });
    passes(tray, 60 * 24 * 30);
    expect(await wakeRested(tray.deps)).toBe(0);
    expect((await listed("resting")).total).toBe(1);
    await undoSteps(tray.deps, office.grant, { batchIds: [batchId] });
    expect((await listed("to-sort")).total).toBe(12);
  });
});

describe("follow-ups", () => {
  const followUp = (id: string, dueAt: number | null, forMember = office.ines.id): Decision => ({
    kind: "follow-up",
    followUpId: trustedId<FollowUpId>(id),
    forMember,
    dueAt: dueAt === null ? null : later(tray.clock.now, dueAt),
    text: "ring the verger",
  });
  const groups = async (whose = office.ines.id as typeof office.ines.id | null, isDone = false) =>
    (await getFollowUps(tray.deps, office.grant, { whose, isDone })).map(({ group, followUps }) => [
      group,
      followUps.length,
    ]);

  it("set on several conversations at once are one on each", async () => {
    const ids = arrived.slice(0, 2);
    const given = tray.deps.newId();
    const decided = await decide(tray.deps, office.grant, { ids, seenVersion: null }, followUp(given, DAY));
    expect(decided).toMatchObject({ ok: true, value: { count: 2 } });
    const kept = await tray.ask("select id from follow_up where conversation_id = any($1)", [ids]);
    expect(new Set(kept.map(({ id }) => id)).size).toBe(2);
    await undoNewest(tray.deps, office.grant);
  });

  it("stand by when they are due until they are done, and undoing brings them back", async () => {
    const [, , id = trustedId<ConversationId>("")] = arrived;
    const [one, two, three] = [tray.deps.newId(), tray.deps.newId(), tray.deps.newId()];
    await does(id, followUp(one, 40 * DAY));
    await does(id, followUp(two, null));
    await does(id, followUp(three, HOUR, office.tobias.id));
    expect(await groups()).toEqual([
      ["further", 1],
      ["undated", 1],
    ]);
    expect((await groups(null)).reduce((sum, [, count]) => sum + Number(count), 0)).toBe(3);
    expect((await listed("open", { order: "due" })).lanes[0]?.[2][0]).toBe("Letter 2");
    await does(id, { kind: "follow-up-done", followUpId: trustedId<FollowUpId>(one) });
    await does(id, { kind: "follow-up-clear", followUpId: trustedId<FollowUpId>(two) });
    expect([await groups(), await groups(office.ines.id, true)]).toEqual([[], [["done", 1]]]);
    await undoNewest(tray.deps, office.grant);
    await undoNewest(tray.deps, office.grant);
    expect(await groups()).toEqual([
      ["further", 1],
      ["undated", 1],
    ]);
    expect(await examine(tray.deps)).toMatchObject({ differences: [] });
  });
  it("are not set for the past, nor for somebody from elsewhere", async () => {
    const [id = trustedId<ConversationId>("")] = arrived;
    const refused = async (decision: Decision) => {
      const done = await decide(tray.deps, office.grant, { ids: [id], seenVersion: null }, decision);
      return done.ok ? null : done.error.kind;
    };
    expect(await refused(followUp(tray.deps.newId(), -HOUR))).toBe("date-is-past");
    expect(await refused(followUp(tray.deps.newId(), null, trustedId(tray.deps.newId())))).toBe("no-such");
  });
});

describe("undoing and doing again", () => {
  it("goes back and forth, step by step", async () => {
    const [, , , id = trustedId<ConversationId>("")] = arrived;
    const standing = async () => (await openConversation(tray.deps, office.grant, id))?.docket.standing.kind;
    const categories = async () => (await openConversation(tray.deps, office.grant, id))?.docket.categoryIds.length;
    await does(id, { kind: "categorise", categoryId: tuning, give: true });
    await does(id, { kind: "settle" });
    passes(tray, 1);
    await undoNewest(tray.deps, office.grant);
    passes(tray, 1);
    await undoNewest(tray.deps, office.grant);
    expect([await standing(), await categories()]).toEqual(["to-sort", 0]);
    passes(tray, 1);
    expect(inEnglish(await redoNewest(tray.deps, office.grant))).toMatchObject({
      ok: true,
      value: { what: "added Tuning" },
    });
    passes(tray, 1);
    expect(inEnglish(await redoNewest(tray.deps, office.grant))).toMatchObject({
      ok: true,
      value: { what: "settled it" },
    });
    expect([await standing(), await categories()]).toEqual(["settled", 1]);
    expect(await redoNewest(tray.deps, office.grant)).toMatchObject({
      ok: false,
      error: { kind: "nothing-to-redo" },
    });
    passes(tray, 1);
    await undoNewest(tray.deps, office.grant);
    passes(tray, 1);
    await undoNewest(tray.deps, office.grant);
    expect([await standing(), await categories()]).toEqual(["to-sort", 0]);
    expect(await examine(tray.deps)).toMatchObject({ differences: [] });
  });
  it("does not do again what somebody decided anew since, nor after a decision of one's own", async () => {
    const [, , , , id = trustedId<ConversationId>("")] = arrived;
    await does(id, { kind: "assign", ownerId: office.ines.id });
    passes(tray, 1);
    await undoNewest(tray.deps, office.grant);
    await does(id, { kind: "assign", ownerId: office.tobias.id }, office.tobiasGrant);
    expect(inEnglish(await redoNewest(tray.deps, office.grant))).toMatchObject({
      ok: true,
      value: { count: 0, left: ["took it"] },
    });
    await does(id, { kind: "settle" });
    expect(await redoNewest(tray.deps, office.grant)).toMatchObject({ ok: false });
  });
  it("is told in the journal of the tray, filtered, and undone from there in one go", async () => {
    const [, , , , , one = trustedId<ConversationId>(""), two = trustedId<ConversationId>("")] = arrived;
    const batches = [
      await does(one, { kind: "settle" }),
      await does(two, { kind: "bin" }),
      await does(two, { kind: "urgency", urgency: "days" }),
    ];
    const page = await getJournal(tray.deps, office.grant, { by: office.ines.id, kind: null, before: null });
    expect(inEnglish(page.steps.slice(0, 3).map(({ words, mayUndo, count }) => [words, mayUndo, count]))).toEqual([
      ["set the urgency to Within days", true, 1],
      ["put it in the bin", true, 1],
      ["settled it", true, 1],
    ]);
    const away = await getJournal(tray.deps, office.grant, { by: null, kind: "away", before: null });
    expect(inEnglish(away.steps[0]?.words)).toBe("put it in the bin");
    expect(
      (await getJournal(tray.deps, office.grant, { by: "tray", kind: null, before: null })).steps.length,
    ).toBeGreaterThan(0);
    passes(tray, 1);
    const undone = await undoSteps(tray.deps, office.grant, { batchIds: batches.map(({ batchId }) => batchId) });
    expect(undone).toMatchObject({ ok: true, value: { count: 3, left: [] } });
    const after = await getJournal(tray.deps, office.grant, { by: office.ines.id, kind: null, before: null });
    expect(inEnglish(after.steps[0]?.words)).toContain("took back");
    expect(after.steps.slice(1, 4).every(({ isUndone, mayUndo }) => isUndone && !mayUndo)).toBe(true);
  });
});

describe("a sort run", () => {
  it("has what is to be sorted in its order, each with what is proposed and not yet read", async () => {
    const hester = "Hester Quill <treasurer@stbrannoc.example>";
    for (let at = 1; at <= 20; at += 1) {
      const id = await arrive(`Invoice ${at}`, hester);
      await does(id, { kind: "categorise", categoryId: tuning, give: true });
      await does(id, { kind: "file", recordId: sorrel, settle: true });
    }
    await arrive("Invoice 21", hester);
    await learnDecisions(tray.deps);
    const asked = { scope: "to-sort", filter: {}, order: "oldest" } as const;
    const { rows: run, total } = await sortRun(tray.deps, office.grant, office.ines, asked);
    expect(total).toBe(run.length);
    expect(run.map(({ listedAt }) => listedAt)).toEqual(run.map(({ listedAt }) => listedAt).toSorted((a, b) => a - b));
    const last = run.findLast(({ who }) => who === "Hester Quill");
    const ready = await readyForRun(tray.deps, office.grant, last?.id ?? trustedId(""));
    expect(ready?.proposals.map(({ kind }) => kind)).toEqual(expect.arrayContaining(["file", "categorise"]));
    expect(ready?.records.map(({ code }) => code)).toEqual(["P-26-012"]);
    expect((await listed("to-sort", {}, { unread: ["yes"] })).total).toBe(run.filter(({ unread }) => unread).length);
    expect(await readyForRun(tray.deps, office.grant, trustedId(tray.deps.newId()))).toBeNull();
  });
});
