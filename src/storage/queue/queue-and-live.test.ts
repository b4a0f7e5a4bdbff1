import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { type ConversationId, type MessageId, type TrayId, trustedId, type ZipExportId } from "../../core/kernel/ids";
import { instant, later } from "../../core/kernel/instant";
import type { Job } from "../../core/ports";
import { inTransaction } from "../base/database";
import { migrate, migrationGap } from "../migrations/migrate";
import { jobQueue, startWorkers } from "./job-queue";
import { changePublisher, listenForChanges, type TrayChange } from "./live-channel";

let tray: TestTray;
beforeAll(async () => {
  tray = await testTray();
});
afterAll(() => tray.close());

const id = <T extends string>(n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, "0")}` as T;

describe("the job queue", () => {
  it("runs what was committed and nothing that was rolled back, and tries again what failed", {
    timeout: 60_000,
  }, async () => {
    const { db } = tray.deps;
    const queue = jobQueue(db, (at) => at);
    const job = (n: number): Job => ({ kind: "send-message", messageId: trustedId<MessageId>(id(n)) });
    await inTransaction(db, (trx) => queue.enqueue(trx, job(1)));
    await inTransaction(db, async (trx) => {
      await queue.enqueue(trx, job(2));
      throw new Error("rolled back");
    }).catch(() => {});
    await inTransaction(db, (trx) => queue.enqueue(trx, job(3), later(tray.clock.now, 10 * 365 * 86_400_000)));
    const ran: Job[] = [];
    const problems: unknown[] = [];
    const workers = await startWorkers(
      db,
      async (one) => {
        ran.push(one);
        if (ran.length === 1) throw new Error("not now");
      },
      (problem) => problems.push(problem),
    );
    await vi.waitFor(() => expect(ran.length).toBeGreaterThan(0), { timeout: 20_000 });
    await workers.stop();
    expect(ran.every((one) => JSON.stringify(one) === JSON.stringify(job(1)))).toBe(true);
    expect(problems).toEqual([]);
  });

  it("takes a job that waits already no second time, and another of the same while one is under way", async () => {
    const { db } = tray.deps;
    const queue = jobQueue(db, (at) => at);
    const job: Job = { kind: "run-import", importId: id(7) };
    const enqueue = () => inTransaction(db, (trx) => queue.enqueue(trx, job));
    await enqueue();
    await enqueue();
    let ran = 0;
    const workers = await startWorkers(
      db,
      async () => {
        ran += 1;
        if (ran === 1) await Promise.all([enqueue(), enqueue()]);
      },
      () => {},
    );
    await vi.waitFor(() => expect(ran).toBe(2), { timeout: 20_000 });
    const left = () => tray.ask("select state from pgboss.job where name = 'run-import'");
    await vi.waitFor(async () => expect(await left()).toEqual([{ state: "completed" }, { state: "completed" }]), {
      timeout: 10_000,
    });
    await workers.stop();
  });
});

describe("workers that are told", () => {
  // They look by themselves every five seconds only, and have just done so.
  it("begin at once, or when it is time, and go on with what waits behind it", async () => {
    const { db } = tray.deps;
    const queue = jobQueue(db, (at) => at);
    const job = (n: number): Job => ({ kind: "pack-parcel", parcelId: trustedId<ZipExportId>(id(n)) });
    const ran: { readonly job: Job; readonly at: number }[] = [];
    const problems: unknown[] = [];
    const workers = await startWorkers(
      db,
      async (one) => void ran.push({ job: one, at: performance.now() }),
      (problem) => problems.push(problem),
    );
    const heard: [string, number][] = [];
    const channel = await listenForChanges(
      tray.url,
      {
        job(kind, inMs) {
          heard.push([kind, inMs]);
          workers.look(kind, inMs);
        },
      },
      1,
    );
    const [clock] = await tray.ask("select extract(epoch from now()) * 1000 as ms");
    const soon = later(instant(Number(clock?.ms)), 1_500);
    const begun = performance.now();
    await inTransaction(db, async (trx) => {
      for (const n of [1, 2, 3]) await queue.enqueue(trx, job(n));
      await queue.enqueue(trx, job(4), soon);
    });
    await vi.waitFor(() => expect(ran).toHaveLength(4), { timeout: 20_000 });
    expect(ran[3]?.job).toEqual(job(4));
    expect(ran[2]?.at).toBeLessThan(begun + 4_000);
    expect(ran[3]?.at).toBeGreaterThan(begun + 1_000);
    expect(ran[3]?.at).toBeLessThan(begun + 4_500);
    expect(heard).toEqual([
      ["pack-parcel", 0],
      ["pack-parcel", expect.closeTo(1_500, -3)],
    ]);
    expect(problems).toEqual([]);
    await channel.close();
    await workers.stop();
  });
});

describe("live changes", () => {
  it("are heard once for many, by tray, after the commit", async () => {
    const heard: TrayChange[] = [];
    const channel = await listenForChanges(tray.url, { change: (change) => heard.push(change) }, 1);
    const publisher = changePublisher(tray.deps.db, () => {});
    const [office, parts] = [id<TrayId>(1), id<TrayId>(2)];
    for (const n of [1, 2, 1]) publisher.publish({ trayId: office, conversationId: id<ConversationId>(n) });
    publisher.publish({ trayId: parts, conversationId: id<ConversationId>(9) });
    await vi.waitFor(() => expect(heard).toHaveLength(2));
    expect(heard[0]?.id).not.toBe(heard[1]?.id);
    expect(heard).toEqual([
      { id: expect.any(String), trayId: office, conversationIds: [id(1), id(2)] },
      { id: expect.any(String), trayId: parts, conversationIds: [id(9)] },
    ]);
    await channel.close();
  });

  it("of very many only name the tray", async () => {
    const heard: TrayChange[] = [];
    const channel = await listenForChanges(tray.url, { change: (change) => heard.push(change) }, 1);
    const publisher = changePublisher(tray.deps.db, () => {});
    for (let n = 0; n < 150; n += 1)
      publisher.publish({ trayId: id<TrayId>(1), conversationId: id<ConversationId>(n) });
    await publisher.flush();
    await vi.waitFor(() => expect(heard).toMatchObject([{ trayId: id(1), conversationIds: null }]));
    await channel.close();
  });
});

describe("migrating", () => {
  it("a second time changes nothing", async () => {
    expect(await migrate(tray.deps.db)).toEqual({ applied: [], at: "0027-later-letters" });
    expect(await migrationGap(tray.deps.db)).toEqual({ missing: [], unknown: [] });
  });
});
