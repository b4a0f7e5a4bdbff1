import { setUpDesk } from "@tests/support/desk";
import { testTray } from "@tests/support/test-database";
import { afterAll, describe, expect, it } from "vitest";
import { type RunId, trustedId, type ZipExportId } from "../core/kernel/ids";
import type { Job, JobKind } from "../core/ports";
import {
  getImports,
  getJobsAside,
  getOutgoing,
  getZipExports,
  letGoOn,
  orderZipExport,
  receiveImport,
  runsUnderWay,
  sendAgain,
  startBulkRun,
} from "../operations/index.server";
import { jobRunner } from "./run-jobs";

const tray = await testTray();
const desk = await setUpDesk(tray);
const { deps, jobs } = tray;
afterAll(() => tray.close());

const ATTEMPT = { number: 1, last: false };
let dead = 1_000;

/** What a process leaves behind that dies with a job in hand: its number is of none that lives. */
async function dieWith(job: Job): Promise<void> {
  dead += 1;
  let begun = () => {};
  const isBegun = new Promise<void>((resolve) => {
    begun = resolve;
  });
  const never = () => {
    begun();
    return new Promise<void>(() => {});
  };
  void jobRunner(deps, dead, never).run(job, ATTEMPT);
  await isBegun;
}

/** Whether a process that lives does the job. */
async function isDone(job: Job): Promise<boolean> {
  let done = false;
  await jobRunner(deps, 1, async () => {
    done = true;
  }).run(job, ATTEMPT);
  return done;
}

const newest = (kind: JobKind) => jobs.findLast((job) => job.kind === kind) as Job;

const conversation = await desk.arrive();
await desk.answers(desk.ines, conversation);
await receiveImport(deps, desk.lead, { name: "old.mbox", way: "history", content: chunks() });
await startBulkRun(deps, desk.lead, [conversation], { kind: "bin" }, "Binned");
await orderZipExport(
  deps,
  desk.lead,
  { recordId: null, text: "letter", everywhere: false },
  { format: "eml", withNotes: false },
);

async function* chunks() {
  yield Buffer.from("From a\n\nb\n");
}

describe("a job that takes its process down", () => {
  const failed: readonly [JobKind, () => Promise<unknown>, RegExp][] = [
    ["send-message", async () => (await getOutgoing(deps, desk.lead))[0]?.reason, /stopped the server twice/],
    ["run-import", async () => (await getImports(deps, desk.lead))[0]?.problem, /stopped the server twice/],
    ["run-bulk", async () => (await runsUnderWay(deps, desk.lead))[0]?.problem, /stopped the server twice/],
    ["pack-parcel", async () => (await getZipExports(deps, desk.lead))[0]?.problem, /stopped the server twice/],
  ];
  it.each(failed)(
    "is tried once more, then failed for who asked and shown to who leads: %s",
    async (kind, reason, words) => {
      const job = newest(kind);
      await dieWith(job);
      await dieWith(job);
      expect(await isDone(job)).toBe(false);
      expect(await reason()).toMatch(words);
      const [shown] = await getJobsAside(deps, desk.lead);
      expect(shown).toMatchObject({ kind, waits: false });
      expect(await getJobsAside(deps, desk.maraGrant)).toEqual([]);
    },
  );

  it("that somebody sends again is tried anew", async () => {
    const job = newest("send-message");
    const id = job.kind === "send-message" ? job.messageId : trustedId("");
    expect(await sendAgain(deps, desk.lead, id as never)).toMatchObject({ ok: true });
    expect(await isDone(job)).toBe(true);
  });

  it.each(["read-documents", "wake-rested", "empty-bins", "tell-by-clock", "resume-work"] as const)(
    "by the clock waits for somebody who leads: %s",
    async (kind) => {
      const job: Job = { kind };
      await dieWith(job);
      await dieWith(job);
      for (let time = 0; time < 3; time += 1) expect(await isDone(job)).toBe(false);
      const [shown] = await getJobsAside(deps, desk.lead);
      expect(shown).toMatchObject({ kind, waits: true });
      const id = shown?.id ?? "";
      expect(await letGoOn(deps, desk.maraGrant, id)).toMatchObject({ ok: false });
      expect(await letGoOn(deps, desk.lead, id)).toMatchObject({ ok: true });
      expect(await isDone(job)).toBe(true);
    },
  );

  it("only once, or that was cut off by a stop in order, goes on", async () => {
    const job: Job = { kind: "run-bulk", runId: trustedId<RunId>(deps.newId()) };
    await dieWith(job);
    expect(await isDone(job)).toBe(true);
    for (const process of [7, 8, 9]) {
      const runner = jobRunner(deps, process, () => new Promise(() => {}));
      void runner.run(job, ATTEMPT);
      await expect.poll(() => tray.ask("select from job_attempt where process = $1", [process])).toHaveLength(1);
      await runner.stop();
    }
    expect(await isDone(job)).toBe(true);
  });

  it("runs without any other when it is tried again, so that no other is blamed", async () => {
    const [suspect, other]: readonly Job[] = [
      { kind: "pack-parcel", parcelId: trustedId<ZipExportId>(deps.newId()) },
      { kind: "read-documents" },
    ];
    await dieWith(suspect as Job);
    const seen: string[] = [];
    const runner = jobRunner(deps, 1, async (_deps, job) => {
      seen.push(`${job.kind} begins`);
      await new Promise((resolve) => setImmediate(resolve));
      seen.push(`${job.kind} ends`);
    });
    await Promise.all([runner.run(suspect as Job, ATTEMPT), runner.run(other as Job, ATTEMPT)]);
    expect(seen.map((words) => words.split(" ")[1])).toEqual(["begins", "ends", "begins", "ends"]);
  });
});
