import { aMessage } from "@tests/support/mail";
import { refusalOf, type Visitor, visitor } from "@tests/support/pages";
import { posted } from "@tests/support/posted";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type CategoryId, type ConversationId, type RecordId, trustedId } from "~/core/kernel/ids";
import { dateOf } from "~/core/kernel/instant";
import type { LaneChanges } from "~/core/lists/lanes";
import {
  FIRST_ROWS,
  learnDecisions,
  receiveMessage,
  runBulk,
  setUpCategories,
  setUpRecords,
} from "~/operations/index.server";
import { action as unreadFrom } from "~/web/routes/conversation/unread-from";
import { loader as dates } from "~/web/routes/deciding/dates";
import { action as decide } from "~/web/routes/deciding/decide";
import { action as undo } from "~/web/routes/deciding/undo";
import { loader as followUps } from "~/web/routes/list/follow-ups";
import { loader as listData } from "~/web/routes/list/list-data";
import { action as cameUp, loader as runConversation } from "~/web/routes/list/run-conversation";
import { loader as sortRun } from "~/web/routes/list/sort-run";
import { loader as standing } from "~/web/routes/list/standing";
import { loader as journal } from "~/web/routes/office/journal";
import { loader as news } from "~/web/routes/shell/news";
import { action as settings } from "~/web/routes/shell/settings";
import { action as shelf } from "~/web/routes/shell/shelf";
import { action as stopRun } from "~/web/routes/shell/stop-run";
import { loader as trayPage } from "~/web/routes/shell/tray";
import type { DateAnswer } from "~/web/server/deciding/date-view.server";
import type { ListedRowView } from "~/web/server/list/list-view.server";
import type { RunView } from "~/web/server/list/run-view.server";

let tray: TestTray;
let office: Office;
let ines: Visitor;
let reader: Visitor;
let tuning: CategoryId;
let sorrel: RecordId;
const ids: ConversationId[] = [];

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  ines = visitor(tray.deps, office.ines, office.grant);
  reader = visitor(tray.deps, office.tobias, office.reader);
  const [category] = await setUpCategories(tray.deps, [{ code: "TU", name: "Tuning", ink: "moss", parentCode: null }]);
  const [record] = await setUpRecords(tray.deps, [
    { code: "P-26-012", title: "Sorrel case", kind: "project", parentCode: null, closed: false },
  ]);
  tuning = category?.id ?? trustedId("");
  sorrel = record?.id ?? trustedId("");
  for (let at = 0; at < 60; at += 1) {
    passes(tray, 3);
    const date = dateOf(tray.clock.now).toUTCString();
    const raw = aMessage({
      id: `page-${at}@vanehouse.example`,
      subject: `Letter ${at}`,
      date,
      body: "Could you come on Friday?",
    });
    const recipients = [address("office@ottermoor.example")];
    const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
    ids.push(kept?.conversationId ?? trustedId(""));
  }
});
afterAll(() => tray.close());

const id = (at: number) => ids[at] ?? trustedId<ConversationId>("");
type About = Readonly<Record<string, string | readonly string[]>>;
const decides = (decision: object, about: About, who = ines) => {
  passes(tray, 1);
  return who.posts(decide, { ...posted(decision), ...about });
};
const part = async <T>(name: string, query: string, scope = "to-sort"): Promise<T> => {
  const response = await ines.looksAt(listData, { scope, part: name }, query);
  return (response as Response).json();
};

describe("the page of a list", () => {
  it("begins with as many rows as a screen has, the newest first, and all of its groups", async () => {
    const page = await ines.looksAt(standing, { standing: "to-sort" });
    expect([page.total, page.lanes.length, page.lanes[0]?.rows.length]).toEqual([60, 1, FIRST_ROWS]);
    expect(page.lanes[0]).toMatchObject({ name: "Today", count: 60 });
    expect(page.lanes[0]?.rows[0]).toMatchObject({ subject: "Letter 59", unread: true, urgency: "no-rush" });
  });
  it("goes on after its last row, also where the key comes back as text", async () => {
    const page = await ines.looksAt(standing, { standing: "to-sort" });
    const last = page.lanes[0]?.rows.at(-1);
    const query = new URLSearchParams({ lane: "d0", key: String(last?.sortKey), id: last?.id ?? "", limit: "200" });
    const more = await part<ListedRowView[]>("more", query.toString());
    const rest = 60 - FIRST_ROWS;
    expect(more.map(({ subject }) => subject)).toEqual(
      Array.from({ length: rest }, (_, at) => `Letter ${rest - 1 - at}`),
    );
    expect(await part<ListedRowView[]>("more", "lane=d1&limit=5")).toEqual([]);
    expect((await part<ListedRowView[]>("more", "lane=d0&limit=5")).length).toBe(5);
  });
  it("tells what became of some, counts to filter by, and begins anew", async () => {
    const changes = await part<LaneChanges<ListedRowView>>(
      "changes",
      `changed=${id(0)}&changed=${id(1)}&changed=nonsense`,
    );
    expect(changes.rows.map(({ laneKeys }) => laneKeys)).toEqual([["d0"], ["d0"]]);
    expect(await part("counts", "by=unread")).toEqual([{ key: "yes", name: "Unread", count: 60 }]);
    expect(await part("start", "person=nobody@x.example")).toMatchObject({ total: 0, lanes: [] });
  });
  it("has one answer for what became of some: its rows, and the counts around it, with one's own only where asked", async () => {
    const told = async (query: string) => ((await ines.looksAt(news, {}, query)) as Response).json();
    const answer = await told(`scope=to-sort&changed=${id(0)}`);
    expect(answer.list.rows.map(({ row }: { row: ListedRowView }) => row.id)).toEqual([id(0)]);
    expect(answer.list.total).toBe(60);
    expect(answer.now.flow.find(({ standing }: { standing: string }) => standing === "to-sort").count).toBe(60);
    expect(answer.looseEnds).toBe(0);
    expect([answer.now.shelf, (await told("own=1")).now.shelf]).toEqual([undefined, []]);
    expect((await told("changed=nonsense")).list).toBeNull();
    expect(await refusalOf(ines.looksAt(news, {}, "scope=lost"))).toBe(404);
  });
  it.each([
    ["to-sort", "more", "lane=d0&limit=0", 400],
    ["to-sort", "more", "lane=d0&limit=9999", 400],
    ["to-sort", "more", "lane=d0&limit=5&key=3", 400],
    ["to-sort", "counts", "by=colour", 400],
    ["to-sort", "colours", "", 404],
    ["lost", "more", "lane=&limit=5", 404],
  ])("refuses %s/%s?%s", async (scope, name, query, status) => {
    expect(await refusalOf(ines.looksAt(listData, { scope, part: name }, query))).toBe(status);
  });
  it("is none for a standing that there is not", async () => {
    expect(await refusalOf(ines.looksAt(standing, { standing: "lost" }))).toBe(404);
  });
  it("remembers how a member looks at it", async () => {
    const view = {
      order: "subject",
      reversed: false,
      grouping: null,
      columns: [{ key: "subject" }],
      density: "roomy",
      reading: "alone",
    };
    expect((await ines.posts(settings, { name: "view/to-sort", value: JSON.stringify(view) })).status).toBe(200);
    const page = await ines.looksAt(standing, { standing: "to-sort" });
    expect(page.view).toMatchObject({ order: "subject", density: "roomy", reading: "alone" });
    expect(page.lanes[0]?.rows.slice(0, 3).map(({ subject }) => subject)).toEqual([
      "Letter 0",
      "Letter 1",
      "Letter 10",
    ]);
    await ines.posts(settings, { name: "view/to-sort", value: "null" });
    expect((await ines.looksAt(standing, { standing: "to-sort" })).view.order).toBe("date");
  });
});

describe("what is posted as a choice", () => {
  it.each([
    [{ name: "after-decision", value: '"list"' }, 200],
    [{ name: "after-decision", value: '"sideways"' }, 400],
    [{ name: "keys", value: '{"settle":"y"}' }, 200],
    [{ name: "keys", value: '{"settle":3}' }, 400],
    [{ name: "proposals", value: '"sure"' }, 200],
    [{ name: "proposals", value: '"never"' }, 400],
    [{ name: "proposals", value: "null" }, 200],
    [{ name: "colour", value: '"red"' }, 400],
    [{ name: "drop-on-record", value: "not json" }, 400],
    [{ name: "drop-on-record", value: "null" }, 200],
  ])("%j is answered with %d", async (fields, status) =>
    expect((await ines.posts(settings, fields)).status).toBe(status),
  );
  it("is there on every screen of the tray", async () => {
    const page = await ines.looksAt(trayPage);
    expect(page.preferences).toEqual({
      keys: { settle: "y" },
      afterDecision: "list",
      dropOnRecord: null,
      categoriesListed: {},
      proposals: "often",
    });
    await ines.posts(settings, { name: "keys", value: "null" });
    await ines.posts(settings, { name: "after-decision", value: "null" });
  });
});

describe("a decision that is posted", () => {
  it("is carried out, and undone and done again by the next", async () => {
    const done = await decides({ kind: "settle" }, { conversation: id(0), version: "1" });
    expect(done).toMatchObject({ status: 200, data: { ok: true, count: 1, runId: null } });
    expect((await ines.posts(undo, {})).data).toMatchObject({ ok: true, message: "Undone: settled it." });
    passes(tray, 1);
    expect((await ines.posts(undo, { redo: "true" })).data).toMatchObject({
      ok: true,
      message: "Redone: settled it.",
    });
    passes(tray, 1);
    expect((await ines.posts(undo, { batch: String(done.data.batchId) })).status).toBe(409);
    expect((await ines.posts(undo, {})).data).toMatchObject({ ok: true });
    expect((await ines.posts(undo, { batch: "nonsense" })).status).toBe(400);
  });
  it("about a list is a run, which is told on every screen and can be stopped", async () => {
    const about = { scope: "to-sort", query: "", said: "Tuning given" };
    const done = await decides({ kind: "categorise", categoryId: tuning, give: true }, about);
    expect(done).toMatchObject({ status: 200, data: { ok: true, count: 60 } });
    const runId = String(done.data.runId);
    expect((await ines.looksAt(trayPage)).runs[0]).toMatchObject({
      id: runId,
      state: "waiting",
      total: 60,
      words: "Tuning given",
    });
    await runBulk(tray.deps, trustedId(runId));
    expect((await ines.looksAt(trayPage)).runs[0]).toMatchObject({ state: "done", changed: 60 });
    expect((await ines.posts(stopRun, { run: runId })).status).toBe(409);
    expect(await refusalOf(ines.posts(stopRun, { run: "x" }))).toBe(404);
    expect((await ines.looksAt(standing, { standing: "to-sort" }, `category=${tuning}`)).total).toBe(60);
  });
  it("about more than can be done at once is a run as well", async () => {
    const many = Array.from({ length: 201 }, () => id(3) as string);
    expect((await decides({ kind: "urgency", urgency: "days" }, { conversation: many })).data).toMatchObject({
      ok: true,
      count: 201,
    });
  });
  it("is refused with the reason, or with what is wrong with it", async () => {
    expect(await decides({ kind: "settle" }, { conversation: id(5) }, reader)).toMatchObject({
      status: 409,
      data: { ok: false, stale: true },
    });
    expect((await decides({ kind: "settle" }, { conversation: [] })).data.problem).toContain("Nothing is selected");
    const past = await decides({ kind: "rest", until: Date.UTC(2020, 0, 1, 8) }, { conversation: id(5) });
    expect(past).toMatchObject({ status: 409, data: { ok: false } });
    expect(await refusalOf(decides({ kind: "settle" }, { scope: "lost", query: "" }))).toBe(404);
    const unknown = await decides(
      { kind: "file", recordId: tray.deps.newId(), settle: false },
      { conversation: id(5) },
    );
    expect(unknown.data.problem).toBe("There is no such record any more.");
  });
  it("to mark as unread is nobody's business but one's own", async () => {
    await ines.posts(cameUp, {}, { conversation: id(6) });
    expect((await ines.looksAt(standing, { standing: "to-sort" }, "unread=no")).total).toBe(1);
    expect(await ines.posts(decide, { do: "unread", conversation: id(6) })).toMatchObject({
      data: { ok: true, count: 0 },
    });
    expect((await ines.looksAt(standing, { standing: "to-sort" }, "unread=no")).total).toBe(0);
    expect((await ines.posts(unreadFrom, { list: "/office/to-sort" }, { message: tray.deps.newId() })).status).toBe(
      404,
    );
    const [message] = await tray.ask("select id from message where conversation_id = $1", [id(6)]);
    const elsewhere = { list: "https://elsewhere.example" };
    const led = await ines.posts(unreadFrom, elsewhere, { message: message.id });
    expect(led).toEqual({ status: 200, data: { to: "/office/to-sort" } });
  });
});

describe("a sort run's pages", () => {
  it("have the queue in its order, and each conversation with its proposals", async () => {
    const page = await ines.looksAt(sortRun, { scope: "to-sort" }, "order=oldest");
    expect(page.rows.slice(0, 2).map(({ subject }) => subject)).toEqual(["Letter 0", "Letter 1"]);
    expect((await ines.looksAt(sortRun, { scope: "to-sort" }, "order=sideways")).order).toBe("newest");
    expect(await refusalOf(ines.looksAt(sortRun, { scope: "lost" }))).toBe(404);
    const arrived: ConversationId[] = [];
    for (let at = 0; at < 25; at += 1) {
      passes(tray, 1);
      const from = "Otto Quayle <otto@quayle.example>";
      const raw = aMessage({ id: `otto${at}@quayle.example`, subject: "The blower hums", from });
      const recipients = [address("office@ottermoor.example")];
      const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
      if (kept !== undefined) arrived.push(kept.conversationId);
    }
    const [last = "", ...others] = arrived.toReversed();
    for (const conversation of others)
      await decides({ kind: "file", recordId: sorrel, settle: true }, { conversation });
    await learnDecisions(tray.deps);
    const response = (await ines.looksAt(runConversation, { conversation: last })) as Response;
    const view: RunView = await response.json();
    expect(view.proposals.map(({ title, decision }) => [title, decision.kind]).toSorted()).toEqual([
      ["P-26-012 Sorrel case", "file"],
      ["Settle", "settle"],
    ]);
    expect(view.proposals.find(({ decision }) => decision.kind === "file")?.reason).toBe(
      "all of 24 with “blower” and “hums”",
    );
    expect(await refusalOf(ines.looksAt(runConversation, { conversation: "x" }))).toBe(404);
    expect(await refusalOf(ines.looksAt(runConversation, { conversation: tray.deps.newId() }))).toBe(404);
  });
});

describe("the field for dates", () => {
  const asked = async (query: string): Promise<DateAnswer> =>
    ((await ines.looksAt(dates, {}, query)) as Response).json();
  it("offers what the hours give and what the thread names", async () => {
    const { offers, meant, problem } = await asked(`conversation=${id(1)}`);
    expect(offers.map(({ label }) => label)).toEqual(expect.arrayContaining(["next opening", "end of the month"]));
    expect(offers.some(({ label, words }) => label.startsWith("they name") || words.startsWith("Fri"))).toBe(true);
    expect([meant, problem]).toEqual([null, null]);
  });
  it("says what a text means, or why it means nothing", async () => {
    expect((await asked("text=fri 10&edge=opens")).meant).toEqual({
      at: "2026-11-27T10:00:00.000Z",
      words: "Fri 27 Nov, 10:00",
    });
    expect((await asked("text=12 Dec&edge=closes")).meant?.words).toBe("Sat 12 Dec, 17:00");
    expect((await asked("text=some day")).problem).toContain("no date I know");
  });
});

describe("follow-ups and the journal", () => {
  it("are listed by day, mine or everybody's, open or done", async () => {
    const followUp = { kind: "follow-up", forMember: office.tobias.id, dueAt: null, text: "Ring the verger" };
    await decides(followUp, { conversation: id(30) });
    expect((await ines.looksAt(followUps)).groups).toEqual([]);
    const all = await ines.looksAt(followUps, {}, "whose=everybody");
    expect(all.groups).toMatchObject([{ name: "Without a date", followUps: [{ text: "Ring the verger", due: "" }] }]);
    const followUpId = all.groups[0]?.followUps[0]?.id ?? "";
    await decides({ kind: "follow-up-done", followUpId }, { conversation: id(30) });
    expect((await ines.looksAt(followUps, {}, "whose=everybody&done=yes")).groups[0]?.name).toBe("Done");
  });
  it("tells the steps of a tray, of one, of a kind, and goes on before a moment", async () => {
    const whole = await ines.looksAt(journal);
    expect(whole.steps[0]).toMatchObject({ words: "did the follow-up", count: 1, mayUndo: true });
    const run = whole.steps.find(({ count }) => count === 60);
    expect(run?.words).toBe("added Tuning");
    const filed = await ines.looksAt(journal, {}, "kind=filed");
    expect(filed.steps.every(({ words }) => words.includes("filed it to P-26-012"))).toBe(true);
    expect((await ines.looksAt(journal, {}, `by=${office.tobias.id}`)).steps).toEqual([]);
    const before = whole.steps.at(-1)?.at ?? 0;
    expect((await ines.looksAt(journal, {}, `before=${before}`)).steps.every(({ at }) => at < before)).toBe(true);
    expect((await reader.looksAt(journal)).steps.some(({ mayUndo }) => mayUndo)).toBe(false);
  });
});

describe("the shelf", () => {
  const shelved = async () =>
    (await ines.looksAt(trayPage)).shelf.map(({ title, name, folder }) => `${folder}/${name || title}`);
  it("takes places, names and an order, and says what is wrong", async () => {
    expect((await ines.posts(shelf, { do: "pin", kind: "record", target: sorrel })).data).toEqual({ problem: null });
    expect((await ines.posts(shelf, { do: "pin", kind: "category", target: tuning })).status).toBe(200);
    expect(await shelved()).toEqual(["/Sorrel case", "/Tuning"]);
    const [first, second] = (await ines.looksAt(trayPage)).shelf.map((place) => place.id);
    await ines.posts(shelf, { do: "arrange", ids: `${second} ${first}` });
    await ines.posts(shelf, { do: "name", id: first ?? "", name: "The abbey", folder: "Big" });
    expect(await shelved()).toEqual(["/Tuning", "Big/The abbey"]);
    const tooLong = await ines.posts(shelf, { do: "name", id: first ?? "", name: "x".repeat(61) });
    expect(tooLong).toEqual({ status: 400, data: { problem: "A name has at most 60 letters." } });
    expect((await ines.posts(shelf, { do: "pin", kind: "category", target: tuning, forAll: "true" })).status).toBe(409);
    expect((await ines.posts(shelf, { do: "unpin", id: tray.deps.newId() })).status).toBe(409);
    await ines.posts(shelf, { do: "unpin", id: first ?? "" });
    expect(await shelved()).toEqual(["/Tuning"]);
  });
  it("keeps a view under a name", async () => {
    expect((await ines.posts(shelf, { do: "save-view", name: " ", scope: "open", query: "" })).data.problem).toBe(
      "Give it a name first.",
    );
    expect(await refusalOf(ines.posts(shelf, { do: "save-view", name: "x", scope: "lost", query: "" }))).toBe(400);
    await ines.posts(shelf, { do: "save-view", name: "Tuned", scope: "open", query: `category=${tuning}` });
    const page = await ines.looksAt(trayPage);
    expect(page.savedViews).toMatchObject([{ name: "Tuned", scope: "open" }]);
    expect(page.shelf.at(-1)).toMatchObject({ title: "Tuned", count: 60 });
    expect(await refusalOf(ines.posts(shelf, { do: "dance" }))).toBe(400);
  });
});
