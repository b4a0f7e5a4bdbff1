import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { passes, setUpParts, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, type MemberId, type TimeOffId, type TrayId, trustedId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import { MINE, THEIRS } from "../../core/lists/filter";
import {
  comeBack,
  countsForFilter,
  everythingInList,
  listNotifications,
  ownTimes,
  planTimeOff,
  readSummary,
  setUpRecords,
  summaryOf,
  type TrayGrant,
} from "../index.server";

let desk: Desk;
let ids: ConversationId[];
let off: TimeOffId;
const view = { order: "date" as const, reversed: false, grouping: null };
const seenBy = async (member: typeof desk.mara, owner = MINE) => {
  const list = { scope: "open" as const, filter: { owner: [owner] }, view };
  return everythingInList(desk.tray.deps, await desk.grantNow(member), desk.mara, list, null, 1_000);
};
const days = (count: number) => passes(desk.tray, count * 24 * 60);

beforeAll(async () => {
  const tray = await testTray();
  desk = await setUpDesk(tray);
  await setUpParts(tray.deps);
  ids = [];
  for (let count = 0; count < 40; count += 1) ids.push(await desk.arrive());
  await desk.does(desk.lead, ids, { kind: "assign", ownerId: desk.tobias.id });
});
afterAll(() => desk.tray.close());

describe("a member with forty conversations who goes away for a week and comes back", () => {
  it("is covered: the substitute has all of hers among her own, and nobody else has", async () => {
    const now = desk.tray.clock.now;
    const covers = [{ trayId: desk.lead.tray.id, recordId: null, memberId: desk.mara.id }];
    const plan = { memberId: null, from: later(now, DAY), until: later(now, 8 * DAY), covers };
    off = done(await planTimeOff(desk.tray.deps, desk.tobiasGrant, plan));
    expect(await seenBy(desk.mara)).toEqual([]);
    days(2);
    expect((await seenBy(desk.mara)).toSorted()).toEqual(ids.toSorted());
    expect(await seenBy(desk.ines)).toEqual([]);
    expect(await seenBy(desk.mara, THEIRS)).toEqual([]);
    const request = { scope: "open" as const, filter: {}, view };
    const grant = await desk.grantNow(desk.mara);
    const [mine] = await countsForFilter(desk.tray.deps, grant, desk.mara, request, "owner");
    expect(inEnglish(mine)).toEqual({ key: MINE, name: "Mine, and what I cover", count: 40 });
  });

  it("a message in one of hers is told to the substitute, not to her", async () => {
    await desk.arrive({ into: ids[0] ?? trustedId("") });
    expect((await listNotifications(desk.tray.deps, desk.maraGrant))[0]).toMatchObject({
      event: "reply",
      conversationId: ids[0],
    });
    const hers = await listNotifications(desk.tray.deps, desk.tobiasGrant);
    expect(hers.filter(({ event }) => event === "reply")).toEqual([]);
  });

  it("a new message after it was settled comes to her again, and so to the substitute", async () => {
    const settled = ids[5] ?? trustedId<ConversationId>("");
    await desk.does(desk.maraGrant, settled, { kind: "settle" });
    await desk.arrive({ into: settled });
    expect(await desk.isNow(settled)).toMatchObject({ standing: "our-move", ownerId: desk.tobias.id });
    expect(await seenBy(desk.mara)).toContain(settled);
  });

  it("is told what happened: two answered, one settled, one given away; and has the rest back", async () => {
    const [first, second, third] = ids as [ConversationId, ConversationId, ConversationId];
    await desk.answers(desk.mara, first);
    await desk.answers(desk.mara, second);
    await desk.does(desk.maraGrant, third, { kind: "assign", ownerId: desk.ines.id });
    days(8);
    const summary = await summaryOf(desk.tray.deps, desk.tobiasGrant, off);
    const happened = new Map(summary?.happened.map((one) => [one.id, one]));
    expect([...happened.keys()].toSorted()).toEqual([first, second, third, ids[5]].toSorted());
    expect(happened.get(first)).toMatchObject({ received: 1, answered: 1, by: [desk.mara.id], standing: "settled" });
    expect(happened.get(second)).toMatchObject({ received: 0, answered: 1, by: [desk.mara.id] });
    expect(happened.get(third)).toMatchObject({ isOthers: true, ownerId: desk.ines.id });
    expect(await seenBy(desk.mara)).toEqual([]);
    expect(await seenBy(desk.tobias)).toHaveLength(37);
    expect(await summaryOf(desk.tray.deps, desk.maraGrant, off)).toBeNull();
    const offered = async () => (await ownTimes(desk.tray.deps, desk.tobiasGrant)).timesOff.map(({ id }) => id);
    expect(await offered()).toContain(off);
    await readSummary(desk.tray.deps, desk.tobiasGrant, off);
    expect(await offered()).not.toContain(off);
    // Whoever has it open still does not lose it.
    expect((await summaryOf(desk.tray.deps, desk.tobiasGrant, off))?.happened).toHaveLength(4);
  });
});

describe("cover by record", () => {
  it("takes what is filed to it, and leaves the rest to who covers the tray", async () => {
    const [record] = await setUpRecords(desk.tray.deps, [
      { code: "C-1", title: "A house", kind: "client", parentCode: null, closed: false },
    ]);
    const recordId = record?.id ?? trustedId("");
    const filed = ids[10] ?? trustedId<ConversationId>("");
    await desk.does(desk.lead, filed, { kind: "file", recordId, settle: false });
    const trayId = desk.lead.tray.id;
    const covers = [
      { trayId, recordId, memberId: desk.ines.id },
      { trayId, recordId: null, memberId: desk.mara.id },
    ];
    const now = desk.tray.clock.now;
    const plan = { memberId: null, from: now, until: later(now, 2 * DAY), covers };
    const second = done(await planTimeOff(desk.tray.deps, desk.tobiasGrant, plan));
    expect(await seenBy(desk.ines)).toEqual(expect.arrayContaining([filed]));
    const covered = await seenBy(desk.mara);
    expect([covered.includes(filed), covered.length]).toEqual([false, 36]);
    done(await comeBack(desk.tray.deps, desk.tobiasGrant, null, second));
    expect(await seenBy(desk.mara)).toEqual([]);
    expect(refusal(await comeBack(desk.tray.deps, desk.tobiasGrant, null, second))).toBe("no-such");
  });
});

describe("planning a time off", () => {
  const plan = async (who: TrayGrant, part: object) => {
    const now = desk.tray.clock.now;
    const usual = { memberId: null, from: later(now, DAY), until: later(now, 2 * DAY), covers: [] };
    return refusal(await planTimeOff(desk.tray.deps, who, { ...usual, ...part }));
  };
  const by = (memberId: MemberId, trayId?: TrayId) => ({
    covers: [{ trayId: trayId ?? desk.lead.tray.id, recordId: null, memberId }],
  });
  it("is refused where it cannot be", async () => {
    const now = desk.tray.clock.now;
    const elsewhere = trustedId<TrayId>("01900000-0000-7000-8000-000000000000");
    expect([
      await plan(desk.tobiasGrant, { until: later(now, DAY) }),
      await plan(desk.tobiasGrant, { from: later(now, -2 * DAY), until: later(now, -DAY) }),
      await plan(desk.tobiasGrant, { memberId: desk.mara.id }),
      await plan(desk.tobiasGrant, by(desk.tobias.id)),
      await plan(desk.tobiasGrant, by(desk.reader.memberId)),
      await plan(desk.tobiasGrant, by(desk.mara.id, elsewhere)),
    ]).toEqual(["date-is-past", "date-is-past", "leads-only", "no-such", "only-reads", "no-such"]);
  });
  it("is done for a colleague by who leads", async () => {
    expect(await plan(desk.lead, { memberId: desk.mara.id, ...by(desk.tobias.id) })).toBe("done");
  });
});
