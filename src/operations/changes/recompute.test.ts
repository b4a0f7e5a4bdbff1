import { done } from "@tests/support/desk";
import { testTray } from "@tests/support/test-database";
import { setUpWaiting, VANE } from "@tests/support/waiting-office";
import { afterAll, describe, expect, it } from "vitest";
import type { RunId } from "../../core/kernel/ids";
import { HOUR, later, readInstant } from "../../core/kernel/instant";
import type { Deps } from "../base/deps";
import {
  examine,
  planReminders,
  remindersToGo,
  runBulk,
  runsUnderWay,
  setUpHours,
  traySettings,
} from "../index.server";

const tray = await testTray();
const office = await setUpWaiting(tray);
const { desk } = office;
afterAll(() => tray.close());

const style = { tone: "friendly", language: "en", text: null, isSeries: false } as const;
const shutOn = async (holidays: readonly string[]) => {
  const { hours } = await traySettings(tray.deps, desk.lead);
  done(await setUpHours(tray.deps, desk.lead, { week: hours.week, holidays: [...holidays] }));
};
const runIds = () => tray.jobs.flatMap((job) => (job.kind === "run-bulk" ? [job.runId] : []));
const runOf = async (id: RunId) => (await runsUnderWay(tray.deps, desk.lead)).find((run) => run.id === id);

describe("new hours of a tray", () => {
  it("have everything worked out again in the background, with reminders in the new working time", async () => {
    const id = await desk.arrive({ subject: "Key", from: VANE });
    await office.asks(id, [VANE], { until: later(office.now(), HOUR) });
    await desk.arrive({ subject: "Another" });
    // Saturday: it is to go on Monday morning.
    tray.clock.now = readInstant("2026-11-28T10:00:00Z") ?? office.now();
    done(await planReminders(tray.deps, desk.lead, desk.ines, [id], style));
    await shutOn(["2026-11-30"]);
    const [run] = runIds();
    if (run === undefined) throw new Error("nothing was begun");
    expect(await runOf(run)).toMatchObject({ state: "waiting", position: 0, total: 2 });
    await runBulk(tray.deps, run);
    expect(await runOf(run)).toMatchObject({ state: "done", position: 2, changed: 1 });
    const [toGo] = await remindersToGo(tray.deps, desk.lead, [id]);
    expect(toGo?.sendAt).toBe(readInstant("2026-12-01T08:00:00Z"));
  });

  it("mend what is kept otherwise than the mail and the decisions say, and tell whoever looks at it", async () => {
    const id = await desk.arrive({ subject: "Astray" });
    await tray.ask("update conversation set turn = 'nobody', standing = 'settled' where id = $1", [id]);
    expect((await examine(tray.deps)).differences).toHaveLength(1);
    await shutOn([]);
    const told: (string | null)[] = [];
    const deps: Deps = { ...tray.deps, publishChange: ({ conversationId }) => void told.push(conversationId) };
    const run = runIds().at(-1);
    await runBulk(deps, run as RunId);
    expect(told).toEqual([id]);
    expect((await examine(tray.deps)).differences).toEqual([]);
  });

  it("begin nothing where they are the old ones", async () => {
    const before = runIds().length;
    await shutOn([]);
    expect(runIds()).toHaveLength(before);
  });
});
