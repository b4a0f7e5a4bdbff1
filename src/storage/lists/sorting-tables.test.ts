import { aMessage } from "@tests/support/mail";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type BatchId, type ConversationId, type FollowUpId, type RunId, trustedId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import { decide, receiveMessage, setUpTray } from "../../operations/index.server";
import { grantOfMember, saveSetting, settingsOf } from "../access/index";
import { inTransaction } from "../base/index";
import { trayJournal } from "../conversation/index";
import {
  addBulkRun,
  bulkRunsOf,
  cancelBulkRun,
  followUpsOf,
  lockBulkRun,
  noteBulkProgress,
  strandedBulkRuns,
} from "../lists/index";

let tray: TestTray;
let office: Office;
const ids: ConversationId[] = [];

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  for (let at = 0; at < 4; at += 1) {
    passes(tray, 5);
    const raw = aMessage({ id: `table-${at}@vanehouse.example`, subject: `Letter ${at}` });
    const recipients = [address("office@ottermoor.example")];
    const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
    ids.push(kept?.conversationId ?? trustedId(""));
  }
});
afterAll(() => tray.close());

const id = (at: number) => ids[at] ?? trustedId<ConversationId>("");
const does = async (at: number, decision: Parameters<typeof decide>[3], grant = office.grant) => {
  passes(tray, 1);
  const done = await decide(tray.deps, grant, { ids: [id(at)], seenVersion: null }, decision);
  if (!done.ok) throw new Error(done.error.kind);
  return done.value.batchId;
};

describe("settings", () => {
  it("are kept by key, replaced, and forgotten", async () => {
    const { db } = tray.deps;
    const [ines, tobias] = [office.ines.id, office.tobias.id];
    await saveSetting(db, ines, "colour", { ink: "moss" });
    await saveSetting(db, ines, "colour", { ink: "slate" });
    await saveSetting(db, tobias, "colour", "plum");
    expect([...(await settingsOf(db, ines, ["colour", "shape"]))]).toEqual([["colour", { ink: "slate" }]]);
    await saveSetting(db, ines, "colour", null);
    expect((await settingsOf(db, ines, ["colour"])).size).toBe(0);
    expect((await settingsOf(db, tobias, ["colour"])).get("colour")).toBe("plum");
  });
});

describe("runs", () => {
  const add = async (about: ConversationId[]) => {
    const run = trustedId<RunId>(tray.deps.newId());
    const batchId = trustedId<BatchId>(tray.deps.newId());
    const work = { kind: "decide", decision: { kind: "settle" } } as const;
    const of = { trayId: office.grant.tray.id, byMemberId: office.ines.id };
    await inTransaction(tray.deps.db, (trx) =>
      addBulkRun(trx, { id: run, ...of, batchId, work, words: "Settled", createdAt: tray.clock.now }, about),
    );
    return run;
  };
  const hold = (run: RunId, most: number) => inTransaction(tray.deps.db, (trx) => lockBulkRun(trx, run, most));

  it("give their next conversations, in order, from where they are", async () => {
    const run = await add(ids);
    expect((await hold(run, 3))?.next).toEqual(ids.slice(0, 3));
    await noteBulkProgress(tray.deps.db, run, { state: "running", position: 3, changed: 2 }, tray.clock.now);
    const held = await hold(run, 3);
    expect(held?.next).toEqual(ids.slice(3));
    expect(held?.run).toMatchObject({ state: "running", position: 3, changed: 2, total: 4 });
    expect(await hold(trustedId(tray.deps.newId()), 3)).toBeNull();
  });
  it("are shown to whoever decided them, until a while after their end", async () => {
    const run = await add([id(0)]);
    const shown = async (grant = office.grant, since = later(tray.clock.now, -DAY)) =>
      (await bulkRunsOf(tray.deps.db, grant, since)).some((one) => one.id === run);
    expect([await shown(), await shown(office.tobiasGrant)]).toEqual([true, false]);
    expect(await cancelBulkRun(tray.deps.db, office.grant, run, tray.clock.now)).toBe(true);
    expect(await cancelBulkRun(tray.deps.db, office.grant, run, tray.clock.now)).toBe(false);
    expect([await shown(), await shown(office.grant, later(tray.clock.now, DAY))]).toEqual([true, false]);
  });
  it("that nobody works on any more are found", async () => {
    const run = await add([id(0)]);
    expect(await strandedBulkRuns(tray.deps.db, later(tray.clock.now, -DAY))).not.toContain(run);
    expect(await strandedBulkRuns(tray.deps.db, later(tray.clock.now, DAY))).toContain(run);
    await noteBulkProgress(tray.deps.db, run, { state: "done", endedAt: tray.clock.now }, tray.clock.now);
    expect(await strandedBulkRuns(tray.deps.db, later(tray.clock.now, DAY))).not.toContain(run);
  });
});

describe("follow-ups", () => {
  it("come with their conversation, by date, those without one last", async () => {
    const set = async (at: number, days: number | null, forMember = office.ines.id) => {
      const followUpId = trustedId<FollowUpId>(tray.deps.newId());
      const dueAt = days === null ? null : later(tray.clock.now, days * DAY);
      await does(at, { kind: "follow-up", followUpId, forMember, dueAt, text: `on ${at}` });
      return followUpId;
    };
    await set(0, null);
    await set(1, 9);
    const soonest = await set(2, 2);
    await set(3, 1, office.tobias.id);
    const listed = async (whose: typeof office.ines.id | null, isDone = false) =>
      (await followUpsOf(tray.deps.db, office.grant, { whose, isDone })).map(
        ({ text, subject }) => `${text}: ${subject}`,
      );
    expect(await listed(office.ines.id)).toEqual(["on 2: Letter 2", "on 1: Letter 1", "on 0: Letter 0"]);
    expect((await listed(null))[0]).toBe("on 3: Letter 3");
    await does(2, { kind: "follow-up-done", followUpId: soonest });
    expect(await listed(office.ines.id, true)).toEqual(["on 2: Letter 2"]);
  });
});

describe("the journal of a tray", () => {
  it("has one line for a step, with what became of it", async () => {
    const batchId = await does(0, { kind: "settle" });
    const newest = async (filter: Partial<Parameters<typeof trayJournal>[2]> = {}) =>
      (await trayJournal(tray.deps.db, office.grant, { by: null, kinds: null, before: null, ...filter }, 5))[0];
    expect(await newest()).toMatchObject({ batchId, count: 1, subject: "Letter 0", isUndo: false, isUndone: false });
    expect(await newest({ by: office.tobias.id })).toBeUndefined();
    expect(await newest({ kinds: ["binned"] })).toBeUndefined();
    expect(await newest({ kinds: ["settled"] })).toMatchObject({ batchId });
    expect((await newest({ before: tray.clock.now }))?.batchId).not.toBe(batchId);
  });
});

describe("the right to a tray", () => {
  it("is a member's own", async () => {
    await setUpTray(tray.deps, {
      slug: "parts",
      name: "Parts",
      timeZone: "UTC",
      addresses: [address("parts@ottermoor.example")],
    });
    const [parts] = await tray.ask("select id from tray where slug = 'parts'");
    expect(await grantOfMember(tray.deps.db, office.ines.id, office.grant.tray.id, tray.deps.now())).toMatchObject({
      role: "member",
    });
    expect(await grantOfMember(tray.deps.db, office.ines.id, parts.id, tray.deps.now())).toBeNull();
  });
});
