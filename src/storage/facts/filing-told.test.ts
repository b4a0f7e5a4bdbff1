import { setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, beforeEach, expect, it } from "vitest";
import type { CountChange } from "../../core/filing/lesson";
import { type TrayId, trustedId } from "../../core/kernel/ids";
import { inTransaction } from "../base/database";
import { knexOf } from "../base/knex-of";
import { addToTold } from "./filing-told";

let tray: TestTray;
let trayId: TrayId;
beforeAll(async () => {
  tray = await testTray();
  await setUpOffice(tray.deps);
  trayId = trustedId<TrayId>((await knexOf(tray.deps.db)("tray").first("id")).id);
});
beforeEach(async () => {
  await tray.ask("delete from filing_told");
});
afterAll(() => tray.close());

const add = (changes: readonly CountChange[]) => inTransaction(tray.deps.db, (trx) => addToTold(trx, trayId, changes));
const change = (feature: string, label: string, by: number): CountChange => ({ feature, label, by });
const told = async () =>
  Object.fromEntries(
    (await tray.ask("select feature || ' ' || label as what, given from filing_count")).map(({ what, given }) => [
      what,
      given,
    ]),
  );

it("are counted by feature, what is known already and what is new", async () => {
  await add([change("w:reed", "*", 1), change("w:reed", "c:tu", 1), change("w:reed", "r:-", 1), change("*", "*", 1)]);
  await add([change("w:reed", "*", 2), change("w:reed", "r:c33", 2), change("w:reed", "s", 1)]);
  expect(await told()).toEqual({
    "* *": 1,
    "w:reed *": 3,
    "w:reed c:tu": 1,
    "w:reed r:c33": 2,
    "w:reed r:-": 1,
    "w:reed s": 1,
  });
});

it("leave nothing behind once all of it is taken back", async () => {
  const labels = ["*", "c:tu", "r:c33", "r:-", "s"];
  await add(labels.map((label) => change("w:reed", label, 1)));
  await add(labels.map((label) => change("w:reed", label, -1)));
  expect(await tray.ask("select * from filing_told")).toEqual([]);
});

it("lose nothing to somebody who counts the same, or takes it back, at the same moment", async () => {
  const both = [change("w:reed", "*", 1), change("w:flue", "*", 1), change("w:flue", "c:tu", 1)];
  const back = both.map((one) => ({ ...one, by: -one.by }));
  await add(both);
  await Promise.all([
    ...Array.from({ length: 12 }, () => add(both.toReversed())),
    ...Array.from({ length: 12 }, () => add(back)),
  ]);
  expect(await told()).toEqual({ "w:reed *": 1, "w:flue *": 1, "w:flue c:tu": 1 });
});
