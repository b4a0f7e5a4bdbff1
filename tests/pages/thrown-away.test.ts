import { aMessage } from "@tests/support/mail";
import { refusalOf, type Visitor, visitor } from "@tests/support/pages";
import { posted } from "@tests/support/posted";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, trustedId } from "~/core/kernel/ids";
import { DAY, dateOf, later } from "~/core/kernel/instant";
import { openConversation, receiveMessage, runBulk } from "~/operations/index.server";
import { loader as conversation } from "~/web/routes/conversation/conversation";
import { action as unsubscribeFromList } from "~/web/routes/conversation/unsubscribe";
import { action as decide } from "~/web/routes/deciding/decide";
import { loader as backlog } from "~/web/routes/list/backlog";
import { loader as search } from "~/web/routes/list/search";
import { loader as standing } from "~/web/routes/list/standing";
import { action as keepPuttingAway, loader as puttingAway } from "~/web/routes/office/bin-and-junk";
import { action as junkSender } from "~/web/routes/office/junk-sender";
import { action as keepSettings, loader as settings } from "~/web/routes/office/tray-settings";

let tray: TestTray;
let office: Office;
let ines: Visitor;
let lead: Visitor;
const ids: ConversationId[] = [];

const arrive = async (more: Parameters<typeof aMessage>[0]) => {
  passes(tray, 3);
  const date = dateOf(tray.clock.now).toUTCString();
  const raw = aMessage({ id: `thrown-${ids.length}@x.example`, subject: `Zimbel ${ids.length}`, date, ...more });
  const recipients = [address("office@ottermoor.example")];
  const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
  ids.push(kept?.conversationId ?? trustedId(""));
  return ids.at(-1) as ConversationId;
};

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  ines = visitor(tray.deps, office.ines, office.grant);
  lead = visitor(tray.deps, office.ines, { ...office.grant, role: "lead" } as typeof office.grant);
});
afterAll(() => tray.close());

describe("older mail", () => {
  const LIST = { "List-Id": "<rolling.tinguild.example>" };
  beforeAll(async () => {
    for (let at = 0; at < 3; at += 1) await arrive({ headers: LIST });
    for (let at = 0; at < 2; at += 1) await arrive({ from: "Otto Quayle <otto@quayle.example>" });
    tray.clock.now = later(tray.clock.now, 120 * DAY);
  });

  it("is proposed in words, and settled as the list that was shown", async () => {
    const page = await ines.looksAt(backlog);
    expect(page.age).toBe("quarter");
    expect(page.proposals.map(({ title, count, reason }) => [title, count, reason])).toEqual([
      ["Perpetua Vane", 3, "Mail of a list: nobody there waits for an answer."],
      ["Otto Quayle", 2, "Nobody here answered; look first."],
      [expect.stringMatching(/^Everything before \d+ [A-Z][a-z]+ 20\d\d$/), 5, "2 unanswered among it."],
    ]);
    const [list] = page.proposals;
    const done = await ines.posts(decide, {
      ...posted({ kind: "settle" }),
      scope: "to-sort",
      query: list?.query ?? "",
      said: "Settled: 3 older",
    });
    expect(done.data).toMatchObject({ ok: true, count: 3 });
    await runBulk(tray.deps, done.data.runId as never);
    expect((await ines.looksAt(backlog)).proposals.map(({ kind }) => kind)).toEqual(["person", "age"]);
    expect((await ines.looksAt(backlog, {}, "older=year")).proposals).toEqual([]);
    expect((await ines.looksAt(backlog, {}, "older=decade")).age).toBe("quarter");
  });
});

describe("what was thrown away", () => {
  it("says above the bin when it goes, and is not searched unless asked for", async () => {
    const id = await arrive({ subject: "Zimbelstern" });
    await ines.posts(decide, { ...posted({ kind: "bin" }), conversation: [id] });
    const { bin } = await ines.looksAt(standing, { standing: "bin" });
    expect(bin).toEqual({
      term: "What has lain here for 30 days is deleted permanently.",
      stays: "",
      warning: null,
      next: expect.stringMatching(/^The next goes \d+ [A-Z][a-z]{2}\.$/),
    });
    expect((await ines.looksAt(standing, { standing: "to-sort" })).bin).toBeNull();
    const found = async (query: string) => (await ines.looksAt(search, {}, query)).results.map((one) => one.id);
    expect(await found("q=zimbelstern")).toEqual([]);
    expect(await found("q=zimbelstern&in=everywhere")).toEqual([id]);
  });

  it("warns where the bin is used to keep things", async () => {
    for (let at = 0; at < 3; at += 1) {
      const id = await arrive({});
      await ines.posts(decide, { ...posted({ kind: "bin" }), conversation: [id] });
      await ines.posts(decide, { ...posted({ kind: "restore" }), conversation: [id] });
    }
    const { bin } = await ines.looksAt(standing, { standing: "bin" });
    expect(bin?.warning).toMatch(/^3 conversations were brought back from here.* safe under Settled\.$/);
  });

  it("offers the rest of a junk sender's mail where that is junk", async () => {
    const from = "Prize Office <winner@luckypost.example>";
    const [first] = [await arrive({ from }), await arrive({ from })];
    expect((await ines.looksAt(conversation, { conversation: first })).otherMail).toBeNull();
    await ines.posts(decide, { ...posted({ kind: "junk" }), conversation: [first] });
    expect((await ines.looksAt(conversation, { conversation: first })).otherMail).toMatchObject({ open: 1 });
    const fields = { address: "winner@luckypost.example", junk: "true" };
    expect(await ines.posts(junkSender, fields)).toMatchObject({ status: 200, data: { problem: null } });
    expect((await ines.looksAt(puttingAway)).junkSenders).toEqual([
      { address: "winner@luckypost.example", by: office.ines.id },
    ]);
    expect(await ines.posts(junkSender, { address: "nobody", junk: "true" })).toMatchObject({
      status: 409,
      data: { problem: "There is no such sender any more." },
    });
  });
});

describe("leaving a list", () => {
  it("says why it could not", async () => {
    const id = await arrive({
      headers: {
        "List-Unsubscribe": "<https://tinguild.example/leave>",
        "List-Unsubscribe-Post": "List-Unsubscribe=One-Click",
      },
    });
    const message = (await openConversation(tray.deps, office.grant, id))?.messages[0]?.id ?? "";
    const shown = await ines.looksAt(conversation, { conversation: id });
    expect(shown.correspondence[0]).toMatchObject({
      leaving: {
        how: "One request to tinguild.example does it at once; nothing but that is sent.",
        page: null,
        isImitation: false,
      },
    });
    expect(await ines.posts(unsubscribeFromList, {}, { message })).toMatchObject({
      status: 409,
      data: { problem: "Not left: this process asks nobody outside. Try again later." },
    });
    expect(await refusalOf(ines.posts(unsubscribeFromList, {}, { message: "none" }))).toBe(404);
  });
});

describe("the settings of a tray", () => {
  const week = { "open-1": "on", "from-1": "09:00", "to-1": "12:30", "answer-within": "12" };
  it("are kept for those who lead, and shown to all", async () => {
    expect(await ines.posts(keepSettings, week)).toMatchObject({
      status: 403,
      data: { problem: "That is for those who lead the tray." },
    });
    expect(await ines.posts(keepPuttingAway, { "bin-days": "7" })).toMatchObject({
      status: 403,
      data: { problem: "That is for those who lead the tray." },
    });
    const kept = await lead.posts(keepSettings, { ...week, holidays: "2026-12-25" });
    expect(kept).toMatchObject({ status: 200, data: { ok: true, said: "Hours and holidays saved" } });
    expect(await ines.looksAt(settings)).toMatchObject({
      week: [null, { from: "09:00", to: "12:30" }, null, null, null, null, null],
      zone: "UTC",
      holidays: ["2026-12-25"],
    });
    expect(await lead.posts(keepPuttingAway, { "bin-days": "7" })).toMatchObject({
      status: 200,
      data: { ok: true, said: "Bin, junk and settling saved" },
    });
    expect(await ines.looksAt(puttingAway)).toMatchObject({ binDays: 7, junkDays: null, filesFirst: false });
  });

  it("stay as they are where something is wrong", async () => {
    const wrong = await lead.posts(keepSettings, { ...week, "to-1": "08:00" });
    expect(wrong).toMatchObject({ status: 400, data: { ok: false, problems: { "day-1": expect.any(String) } } });
    expect((await ines.looksAt(settings)).week[1]).toEqual({ from: "09:00", to: "12:30", pause: null });
    const term = await lead.posts(keepPuttingAway, { "bin-days": "soon" });
    expect(term).toMatchObject({ status: 400, data: { ok: false, problems: { "bin-days": expect.any(String) } } });
    expect((await ines.looksAt(puttingAway)).binDays).toBe(7);
  });
});
