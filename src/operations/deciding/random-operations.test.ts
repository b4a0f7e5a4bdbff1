import { operateAtRandom } from "@tests/support/random-operations";
import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, expect, it } from "vitest";
import { examine, learnDecisions } from "../index.server";

// Ten thousand of them are a figure of the bench (`npm run bench -- --doctor`); these are as many as a test has time for.
const OPERATIONS = 700;

let tray: TestTray;
beforeAll(async () => {
  tray = await testTray();
});
afterAll(() => tray.close());

it("whatever is done, in whatever order, everything stored is what its facts come to", {
  timeout: 120_000,
}, async () => {
  const done = await operateAtRandom(tray, OPERATIONS, 20_261_126n);
  // Each kind was really carried out, and not only refused.
  expect([...done.keys()].length).toBeGreaterThan(21);
  const { conversations, differences, lostCategories } = await examine(tray.deps);
  expect(conversations).toBeGreaterThan(20);
  expect(differences).toEqual([]);
  expect(lostCategories).toBe(0);
});

it("what was learned on the way is what learning everything that stands from nothing comes to", async () => {
  const learned = async () => {
    await learnDecisions(tray.deps);
    return tray.ask(`
      select feature, label, -1 as period, given from filing_count where given <> 0
      union all select feature, label, period, given from filing_owner where given <> 0 order by 1, 2, 3`);
  };
  const onTheWay = await learned();
  expect(onTheWay.length).toBeGreaterThan(50);
  for (const table of ["filing_told", "filing_owner", "filing_lesson"]) await tray.ask(`delete from ${table}`);
  await tray.ask("insert into filing_due (conversation_id, seen) select id, false from conversation");
  expect(await learned()).toEqual(onTheWay);
});
