import { type Desk, setUpDesk } from "@tests/support/desk";
import { visitor } from "@tests/support/pages";
import { testTray } from "@tests/support/test-database";
import { beforeAll, expect, it } from "vitest";
import { loader as standing } from "~/web/routes/list/standing";

let desk: Desk;
beforeAll(async () => {
  const tray = await testTray();
  desk = await setUpDesk(tray);
  return () => tray.close();
});

it("a tray says that no mail has come yet until some has, whatever became of that", async () => {
  const ines = visitor(desk.tray.deps, desk.ines, desk.lead);
  const toSort = () => ines.looksAt(standing, { standing: "to-sort" });
  expect(await toSort()).toMatchObject({ total: 0, isUntouched: true });
  const id = await desk.arrive();
  expect(await toSort()).toMatchObject({ total: 1, isUntouched: false });
  await desk.does(desk.lead, id, { kind: "bin" });
  expect(await toSort()).toMatchObject({ total: 0, isUntouched: false });
});
