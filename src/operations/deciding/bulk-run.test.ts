import { aMessage } from "@tests/support/mail";
import { manyOfIt } from "@tests/support/many";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Decision } from "../../core/deciding/decision";
import { type BatchId, type ConversationId, type RunId, trustedId } from "../../core/kernel/ids";
import type { Job } from "../../core/ports";
import {
  everythingInList,
  examine,
  receiveMessage,
  resumeWork,
  runBulk,
  runsUnderWay,
  startBulkRun,
  stopBulkRun,
  undoSteps,
} from "../index.server";

const MANY = 10_000;

let tray: TestTray;
let office: Office;
let ids: ConversationId[];

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  const raw = aMessage({ id: "one@vanehouse.example", subject: "One of many" });
  const recipients = [address("office@ottermoor.example")];
  await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
  await manyOfIt(tray, MANY);
  ids = await everythingInList(
    tray.deps,
    office.grant,
    office.ines,
    { scope: "to-sort", filter: {}, view: { order: "date", reversed: false, grouping: null } },
    null,
    MANY + 1,
  );
}, 60_000);
afterAll(() => tray.close());

/** Everything that is kept of the conversations but their place in order, which only rises. */
const state = () =>
  tray.ask(
    "select md5(string_agg(md5((to_jsonb(conversation) - 'version')::text), '' order by id)) as state from conversation",
  );
const start = async (decision: Decision, about = ids) => {
  const run = await startBulkRun(tray.deps, office.grant, about, decision, "Settled: many");
  if (!run.ok) throw new Error(run.error.kind);
  return run.value;
};
const run = async (id: RunId) => (await runsUnderWay(tray.deps, office.grant)).find((one) => one.id === id);
const standings = () => tray.ask("select standing, count(*)::int as count from conversation group by 1 order by 1");
const undo = async (batchId: BatchId) => {
  passes(tray, 1);
  const undone = await undoSteps(tray.deps, office.grant, { batchIds: [batchId] });
  if (!undone.ok || !("runId" in undone.value)) throw new Error("so many are undone in the background");
  await runBulk(tray.deps, undone.value.runId);
  return run(undone.value.runId);
};

describe(`a decision about ${MANY} conversations`, () => {
  it("is told as it goes, can be stopped half-way, and undone so that everything is as it was", async () => {
    expect(ids).toHaveLength(MANY);
    const before = await state();
    const id = await start({ kind: "settle" });
    expect(tray.jobs.at(-1)).toEqual({ kind: "run-bulk", runId: id } satisfies Job);
    expect(await run(id)).toMatchObject({ state: "waiting", position: 0, total: MANY });
    let told = 0;
    const stopping = {
      ...tray.deps,
      // Somebody presses Stop while it is under way.
      publishChange: () => {
        told += 1;
        if (told === 4_000) void stopBulkRun(tray.deps, office.grant, id);
      },
    };
    await runBulk(stopping, id);
    const stopped = await run(id);
    expect(stopped?.state).toBe("cancelled");
    expect(stopped?.position).toBeGreaterThanOrEqual(4_000);
    expect(stopped?.position).toBeLessThan(MANY);
    expect(await standings()).toEqual([
      { standing: "settled", count: stopped?.position },
      { standing: "to-sort", count: MANY - (stopped?.position ?? 0) },
    ]);
    const undone = await undo(stopped?.batchId ?? trustedId(""));
    expect(undone).toMatchObject({ state: "done", changed: stopped?.position });
    expect(await state()).toEqual(before);
  }, 60_000);

  it("goes on where a killed process left it, and does nothing twice", async () => {
    const before = await state();
    const id = await start({ kind: "settle" });
    const dying = {
      ...tray.deps,
      publishChange: () => {
        throw new Error("killed");
      },
    };
    await expect(runBulk(dying, id)).rejects.toThrow("killed");
    await tray.ask("update bulk_run set state = 'running', ended_at = null, problem = null where id = $1", [id]);
    expect((await run(id))?.position).toBe(500);
    passes(tray, 10);
    await resumeWork(tray.deps);
    expect(tray.jobs.at(-1)).toEqual({ kind: "run-bulk", runId: id });
    await runBulk(tray.deps, id);
    expect(await run(id)).toMatchObject({ state: "done", position: MANY, changed: MANY });
    const entries = await tray.ask("select count(*)::int as count from journal where batch_id = $1", [
      (await run(id))?.batchId,
    ]);
    expect(entries).toEqual([{ count: MANY }]);
    await undo((await run(id))?.batchId ?? trustedId(""));
    expect(await state()).toEqual(before);
  }, 60_000);

  it("says how many were done when it breaks off", async () => {
    const id = await start({ kind: "bin" }, ids.slice(0, 1_200));
    let steps = 0;
    const broken = {
      ...tray.deps,
      newId: () => {
        steps += 1;
        if (steps > 700) throw new Error("no more ids");
        return tray.deps.newId();
      },
    };
    await expect(runBulk(broken, id)).rejects.toThrow("no more ids");
    const failed = await run(id);
    expect(failed).toMatchObject({ state: "failed", position: 500, changed: 500 });
    expect(failed?.problem).toContain("What was done stays done");
    await undo(failed?.batchId ?? trustedId(""));
    expect(await standings()).toEqual([{ standing: "to-sort", count: MANY }]);
  }, 60_000);

  it("is refused to who only reads, about nothing, and stopping what has ended", async () => {
    const settle: Decision = { kind: "settle" };
    const kind = async (about: ConversationId[], grant = office.grant, decision: Decision = settle) => {
      const started = await startBulkRun(tray.deps, grant, about, decision, "");
      return started.ok ? null : started.error.kind;
    };
    expect(await kind(ids.slice(0, 3), office.reader)).toBe("readers-only-read");
    expect(await kind([])).toBe("nothing-chosen");
    expect(await kind(Array.from({ length: 100_001 }, () => ids[0] ?? trustedId("")))).toBe("too-many");
    expect(await kind(ids, office.grant, { kind: "file", recordId: trustedId(tray.deps.newId()), settle: true })).toBe(
      "no-such",
    );
    const done = await start(settle, ids.slice(0, 1));
    await runBulk(tray.deps, done);
    expect(await stopBulkRun(tray.deps, office.grant, done)).toMatchObject({
      ok: false,
      error: { kind: "ended-already" },
    });
    expect(await stopBulkRun(tray.deps, office.reader, done)).toMatchObject({ ok: false });
  });

  it("ends when whoever decided it may no longer decide", async () => {
    const id = await start({ kind: "settle" }, ids.slice(0, 5));
    await tray.ask("update tray_member set role = 'reader' where member_id = $1", [office.ines.id]);
    await runBulk(tray.deps, id);
    expect(await run(id)).toMatchObject({ state: "failed", changed: 0 });
    await tray.ask("update tray_member set role = 'member' where member_id = $1", [office.ines.id]);
    expect(await examine(tray.deps)).toMatchObject({ differences: [] });
  }, 60_000);
});
