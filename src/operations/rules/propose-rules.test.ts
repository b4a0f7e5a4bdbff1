import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { addressed } from "@tests/support/ruled-messages";
import { passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, expect, it } from "vitest";
import type { ConversationId } from "../../core/kernel/ids";
import { notificationsOf } from "../../storage/conversation/index";
import { editRule, endRuleProposal, getRuleProposals, openConversation, proposeRules } from "../index.server";

let tray: TestTray;
let desk: Desk;
const DAY_MINUTES = 24 * 60;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
});
afterAll(() => tray.close());

async function comes(from: string, count: number): Promise<ConversationId[]> {
  const ids: ConversationId[] = [];
  for (let at = 0; at < count; at += 1) ids.push(await desk.arrive({ from, subject: `Humidity ${at}` }));
  return ids;
}
const proposed = async () =>
  (await getRuleProposals(tray.deps, desk.lead)).map(({ id, source, putAway, count }) => ({
    id,
    source,
    putAway,
    count,
  }));

it("proposes the most of what was put away unread, one a week, and never again what was declined", async () => {
  const humid = await comes("watch@bellows.example", 12);
  await desk.does(desk.lead, humid, { kind: "settle" });
  const dusty = await comes("dust@bellows.example", 10);
  await desk.does(desk.lead, dusty, { kind: "bin" });
  // Somebody opens these now and then.
  const read = await comes("news@bellows.example", 20);
  for (const id of read.slice(0, 3)) await openConversation(tray.deps, desk.lead, id);
  await desk.does(desk.lead, read, { kind: "settle" });
  // These a rule puts away already.
  done(
    await editRule(tray.deps, desk.lead, {
      ...{ id: null, name: "Heat", isOn: true, isLast: false, exception: null, actions: [{ kind: "settle" as const }] },
      condition: addressed("from", "heat@bellows.example"),
    }),
  );
  const hot = await comes("heat@bellows.example", 15);
  await desk.does(desk.lead, hot, { kind: "settle" });
  await proposeRules(tray.deps);
  const [first, ...more] = await proposed();
  expect([first, more]).toMatchObject([{ source: "watch@bellows.example", putAway: "settle", count: 12 }, []]);
  const told = await notificationsOf(tray.deps.db, desk.lead.memberId, desk.lead.tray.id, ["proposal"], 9);
  expect(told).toMatchObject([{ event: "proposal", count: 12, conversationId: null, isRead: false }]);
  expect(await notificationsOf(tray.deps.db, desk.maraGrant.memberId, desk.maraGrant.tray.id, ["proposal"], 9)).toEqual(
    [],
  );
  if (first === undefined) throw new Error("nothing is proposed");
  expect(await getRuleProposals(tray.deps, { ...desk.lead, role: "member" })).toEqual([]);
  expect(refusal(await endRuleProposal(tray.deps, { ...desk.lead, role: "member" }, first.id))).toBe("leads-only");

  done(await endRuleProposal(tray.deps, desk.lead, first.id));
  passes(tray, 2 * DAY_MINUTES);
  await proposeRules(tray.deps);
  expect(await proposed()).toEqual([]);
  passes(tray, 6 * DAY_MINUTES);
  await proposeRules(tray.deps);
  const [second, ...others] = await proposed();
  expect([second, others]).toMatchObject([{ source: "dust@bellows.example", putAway: "bin", count: 10 }, []]);

  // As long as one is not answered there is no other; and declining is taken back.
  passes(tray, 8 * DAY_MINUTES);
  await proposeRules(tray.deps);
  expect(await proposed()).toHaveLength(1);
  done(await endRuleProposal(tray.deps, desk.lead, first.id, false));
  expect((await proposed()).map(({ source }) => source)).toEqual(["dust@bellows.example", "watch@bellows.example"]);
});
