import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { aMessage } from "@tests/support/mail";
import { addressed } from "@tests/support/ruled-messages";
import { address, passes, testTray } from "@tests/support/test-database";
import { doneWhileKilled } from "@tests/support/while-killed";
import { afterAll, beforeAll, expect, it } from "vitest";
import { editRound, editRule, receiveMessage, setUpCategories, startRuleRun } from "~/operations/index.server";

const MESSAGES = 1_100;
const AT_ONCE = 8;
const KILLS = 2;

const tray = await testTray();
let desk: Desk;

beforeAll(async () => {
  desk = await setUpDesk(tray);
  const round = done(await editRound(tray.deps, desk.lead, null, { name: "Lists", times: "11:00" }));
  const ping = { isOn: true, isLast: false, exception: null, condition: addressed("from", "@ping.example") };
  const hold = [{ kind: "hold" as const, roundId: round }];
  done(await editRule(tray.deps, desk.lead, { ...ping, id: null, name: "Ping", actions: hold }));
  passes(tray, 1);
  let next = 0;
  const sender = async () => {
    for (let at = next++; at < MESSAGES; at = next++) {
      const raw = aMessage({ from: "list@ping.example", id: `p${at}@ping.example`, subject: `Ping ${at}` });
      await receiveMessage(tray.deps, {
        raw,
        envelopeSender: "a@x.example",
        recipients: [address("office@ottermoor.example")],
      });
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, sender));
});
afterAll(() => tray.close());

const countOf = async (sql: string): Promise<number> =>
  (await tray.ask(`select count(*)::int as count ${sql}`))[0].count;

it("a rule that is run over what is there does nothing twice and leaves nothing out while it is killed", async () => {
  const [category] = await setUpCategories(tray.deps, [{ code: "PI", name: "Pings", ink: "moss", parentCode: null }]);
  if (category === undefined) throw new Error("no category");
  const rule = done(
    await editRule(tray.deps, desk.lead, {
      id: null,
      name: "Pings",
      isOn: true,
      isLast: false,
      condition: addressed("from", "@ping.example"),
      exception: null,
      actions: [{ kind: "categorise", categoryId: category.id, give: true }],
    }),
  );
  const run = done(await startRuleRun(tray.deps, desk.lead, rule, "Pings over all"));
  expect(
    await doneWhileKilled(tray, [run], KILLS, () => countOf("from journal where kind = 'categorised'")),
  ).toBeGreaterThan(0);
  expect(await countOf("from journal where kind = 'categorised'")).toBe(MESSAGES);
  expect(await countOf(`from conversation where category_ids = array['${category.id}']::uuid[]`)).toBe(MESSAGES);
});

it("at the hour of a round nothing is let in twice and nothing is left held while it is killed", async () => {
  expect(await countOf("from conversation where standing = 'held'")).toBe(MESSAGES);
  expect(
    await doneWhileKilled(tray, ["rounds"], KILLS, () => countOf("from journal where kind = 'let-in'")),
  ).toBeGreaterThan(0);
  expect(await countOf("from conversation where standing = 'to-sort'")).toBe(MESSAGES);
  expect(await countOf("from journal where kind = 'let-in'")).toBe(MESSAGES);
});
