import { spawnSync } from "node:child_process";
import { setUpDesk } from "@tests/support/desk";
import { testTray } from "@tests/support/test-database";
import { afterAll, expect, it } from "vitest";
import { getJobsAside } from "~/operations/index.server";

const tray = await testTray();
afterAll(() => tray.close());

it("a job that kills its process twice is not begun a third time, and is shown to who leads", async () => {
  const desk = await setUpDesk(tray);
  const run = () => spawnSync(process.execPath, ["--import", "tsx", "tests/support/killer-job.ts", tray.url]);
  expect([run().signal, run().signal]).toEqual(["SIGKILL", "SIGKILL"]);
  const third = run();
  expect([third.status, third.stderr.toString()]).toEqual([0, ""]);
  expect(await getJobsAside(tray.deps, desk.lead)).toMatchObject([{ kind: "empty-bins", waits: true }]);
});
