import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { passes, setUpParts, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type GroupId, type MemberId, trustedId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import {
  changeRole,
  comeBack,
  decide,
  dropGroup,
  editGroup,
  examine,
  getAssigneeSuggestions,
  listNotifications,
  openConversation,
  planTimeOff,
  runBulk,
  startBulkRun,
  undoBatch,
} from "../index.server";

let desk: Desk;
let colId: MemberId;
beforeAll(async () => {
  const tray = await testTray();
  desk = await setUpDesk(tray);
  colId = (await setUpParts(tray.deps)).col.id;
});
afterAll(() => desk.tray.close());

const assign = (ownerId: MemberId | null, more: object = {}) => ({ kind: "assign" as const, ownerId, ...more });
const about = (id: Awaited<ReturnType<Desk["arrive"]>>) => ({ ids: [id], seenVersion: null });

describe("assigning", () => {
  it("with a word leaves it as a note, tells the new owner once, and is undone with it", async () => {
    const id = await desk.arrive();
    const [batch] = await desk.does(desk.grant, id, assign(desk.tobias.id, { note: "The key is with the sexton." }));
    const [told] = await listNotifications(desk.tray.deps, desk.tobiasGrant);
    expect(told).toMatchObject({ event: "assigned", by: desk.ines.id, words: "The key is with the sexton.", count: 1 });
    expect(
      (await listNotifications(desk.tray.deps, desk.tobiasGrant)).filter(({ event }) => event === "mentioned"),
    ).toEqual([]);
    const open = await openConversation(desk.tray.deps, desk.lead, id);
    expect(open?.journal.map(({ effect }) => effect.kind)).toEqual(["assigned", "noted"]);
    done(await undoBatch(desk.tray.deps, desk.grant, batch ?? trustedId("")));
    expect((await desk.isNow(id)).ownerId).toBeNull();
  });

  it("of forty in one go is one thing to tell", async () => {
    const ids = [];
    for (let count = 0; count < 40; count += 1) ids.push(await desk.arrive());
    await desk.does(desk.grant, ids, assign(desk.mara.id));
    const told = await listNotifications(desk.tray.deps, desk.maraGrant);
    expect(told.map(({ event, count }) => [event, count])).toEqual([["assigned", 40]]);
    await desk.does(desk.grant, ids, assign(null), { kind: "bin" });
  });

  it("to somebody who is shut out, reads only, or is not in the tray is refused", async () => {
    const id = await desk.arrive();
    const tries = [desk.reader.memberId, colId, trustedId<MemberId>("01900000-0000-7000-8000-000000000000")];
    const refused = [];
    for (const who of tries) refused.push(refusal(await decide(desk.tray.deps, desk.grant, about(id), assign(who))));
    expect(refused).toEqual(["only-reads", "no-such", "no-such"]);
  });

  it("to somebody who is away is refused with who covers, and done when one insists", async () => {
    const id = await desk.arrive();
    const now = desk.tray.clock.now;
    const covers = [{ trayId: desk.grant.tray.id, recordId: null, memberId: desk.mara.id }];
    const off = done(
      await planTimeOff(desk.tray.deps, desk.tobiasGrant, {
        memberId: null,
        from: later(now, -DAY),
        until: later(now, 3 * DAY),
        covers,
      }),
    );
    const refused = await decide(desk.tray.deps, desk.grant, about(id), assign(desk.tobias.id));
    expect(inEnglish(refused)).toMatchObject({ error: { kind: "away", name: "Tobias Lund", cover: "Mara Quell" } });
    await desk.does(desk.grant, id, assign(desk.tobias.id, { evenIfAway: true }));
    expect((await desk.isNow(id)).ownerId).toBe(desk.tobias.id);
    done(await comeBack(desk.tray.deps, desk.tobiasGrant, null, off));
  });
});

describe("a group that takes turns", () => {
  const ofGroup = async (...memberIds: MemberId[]) =>
    done(
      await editGroup(desk.tray.deps, desk.lead, {
        id: null,
        name: `Workshop ${memberIds.length} ${Math.random()}`,
        memberIds,
      }),
    );
  const inTurn = (groupId: GroupId) => ({ kind: "assign-in-turn" as const, groupId });

  it("gives each conversation to whoever has least then, and leaves what one of them has", async () => {
    await desk.does(desk.grant, [await desk.arrive(), await desk.arrive(), await desk.arrive()], assign(desk.mara.id));
    const groupId = await ofGroup(desk.tobias.id, desk.mara.id);
    const ids = [await desk.arrive(), await desk.arrive()];
    const [batch] = await desk.does(desk.grant, ids, inTurn(groupId));
    const owners = await Promise.all(ids.map(async (id) => (await desk.isNow(id)).ownerId));
    expect(owners).toEqual([desk.tobias.id, desk.tobias.id]);
    await desk.does(desk.grant, ids[0] ?? trustedId(""), assign(desk.mara.id), inTurn(groupId));
    expect((await desk.isNow(ids[0] ?? trustedId(""))).ownerId).toBe(desk.mara.id);
    done(await undoBatch(desk.tray.deps, desk.grant, batch ?? trustedId("")));
    expect((await desk.isNow(ids[1] ?? trustedId(""))).ownerId).toBeNull();
  });

  it("takes turns in the background as well", async () => {
    const groupId = await ofGroup(desk.tobias.id, desk.ines.id);
    const ids = [];
    for (let count = 0; count < 6; count += 1) ids.push(await desk.arrive());
    const run = done(await startBulkRun(desk.tray.deps, desk.grant, ids, inTurn(groupId), "In turn"));
    await runBulk(desk.tray.deps, run);
    const owners = await Promise.all(ids.map(async (id) => (await desk.isNow(id)).ownerId));
    expect(owners.filter((owner) => owner === null)).toEqual([]);
    expect(new Set(owners).size).toBe(2);
  });

  it("of whom nobody is there is refused, and so is one that was removed", async () => {
    const groupId = await ofGroup(desk.tobias.id);
    const now = desk.tray.clock.now;
    const stretch = { memberId: null, from: later(now, -DAY), until: later(now, DAY), covers: [] };
    const off = done(await planTimeOff(desk.tray.deps, desk.tobiasGrant, stretch));
    const id = await desk.arrive();
    expect(refusal(await decide(desk.tray.deps, desk.grant, about(id), inTurn(groupId)))).toBe("nobody-there");
    done(await comeBack(desk.tray.deps, desk.tobiasGrant, null, off));
    done(await dropGroup(desk.tray.deps, desk.lead, groupId));
    expect(refusal(await decide(desk.tray.deps, desk.grant, about(id), inTurn(groupId)))).toBe("no-such");
  });

  it("has a name of its own and members who decide, and is made by who leads", async () => {
    const group = { id: null, name: "Workshop", memberIds: [desk.tobias.id] };
    const save = async (who: typeof desk.lead, part: object) =>
      refusal(await editGroup(desk.tray.deps, who, { ...group, ...part }));
    expect([
      await save(desk.grant, {}),
      await save(desk.lead, { memberIds: [desk.reader.memberId] }),
      await save(desk.lead, { memberIds: [colId] }),
      await save(desk.lead, {}),
      await save(desk.lead, { name: "workshop" }),
    ]).toEqual(["leads-only", "only-reads", "no-such", "done", "name-there"]);
  });
});

it("followers are told of what comes, and of having been named one; each stops for herself", async () => {
  const id = await desk.arrive({ subject: "Followed" });
  passes(desk.tray, 1);
  await desk.does(desk.grant, id, assign(desk.tobias.id), { kind: "follow", memberId: desk.mara.id, follows: true });
  await desk.arrive({ into: id });
  const [reply, named] = await listNotifications(desk.tray.deps, desk.maraGrant);
  expect([reply?.event, named?.event, named?.by]).toEqual(["reply", "mentioned", desk.ines.id]);
  await desk.does(desk.maraGrant, id, { kind: "follow", memberId: desk.mara.id, follows: false });
  await desk.arrive({ into: id });
  expect((await listNotifications(desk.tray.deps, desk.maraGrant))[0]?.id).toBe(reply?.id);
  expect((await listNotifications(desk.tray.deps, desk.tobiasGrant))[0]?.event).toBe("reply");
});

it("who could take it: who dealt with this person, those who are there before those who are not", async () => {
  const from = "Otto Quayle <otto@quayle.example>";
  for (let count = 0; count < 4; count += 1) {
    const id = await desk.arrive({ from });
    await desk.does(desk.grant, id, assign(desk.mara.id), { kind: "settle" });
  }
  const id = await desk.arrive({ from });
  const [first] = await getAssigneeSuggestions(desk.tray.deps, desk.lead, id);
  expect(first).toMatchObject({ memberId: desk.mara.id, withPerson: { hers: 4, all: 4 } });
  const now = desk.tray.clock.now;
  const stretch = { memberId: desk.mara.id, from: later(now, -DAY), until: later(now, DAY), covers: [] };
  done(await planTimeOff(desk.tray.deps, desk.lead, stretch));
  const all = await getAssigneeSuggestions(desk.tray.deps, desk.lead, id);
  expect(all.map(({ memberId }) => memberId).at(-1)).toBe(desk.mara.id);
  // Whoever only reads could take nothing.
  expect(all.map(({ memberId }) => memberId)).not.toContain(desk.reader.memberId);
});

it("a tray keeps somebody who leads it, and a reader owns nothing open", async () => {
  const { deps } = desk.tray;
  expect(refusal(await changeRole(deps, desk.grant, desk.tobias.id, "lead"))).toBe("leads-only");
  expect(refusal(await changeRole(deps, desk.lead, desk.ines.id, "member"))).toBe("last-lead");
  await desk.does(desk.grant, await desk.arrive(), assign(desk.tobias.id));
  expect(refusal(await changeRole(deps, desk.lead, desk.tobias.id, "reader"))).toBe("owns-open");
  expect(refusal(await changeRole(deps, desk.lead, desk.tobias.id, "lead"))).toBe("done");
  expect((await desk.grantNow(desk.tobias)).role).toBe("lead");
});

it("leaves no difference between what is stored and what the journal comes to", async () => {
  expect((await examine(desk.tray.deps)).differences).toEqual([]);
});
