import PgBoss from "pg-boss";
import { dateOf, type Instant } from "../../core/kernel/instant";
import type { Job, JobKind, JobQueue } from "../../core/ports";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { announceJob } from "./live-channel";

const KINDS: readonly JobKind[] = [
  "send-message",
  "rules-of-sent",
  "run-import",
  "run-bulk",
  "pack-parcel",
  "read-documents",
  "wake-rested",
  "empty-bins",
  "tell-by-clock",
  "resume-work",
];

// Mail that cannot be handed over now is tried for about a day: 30 s, then twice as long each time.
const RETRY_LIMIT = 11;
const RETRY_DELAY_SECONDS = 30;
// Workers look when a job is handed in (`look`), and so often for what nobody told them of: a new try, a process that
// stopped, a line to the database that was down.
const POLLING_SECONDS = 5;
// A worker takes one job each time it looks; so many of them send, since most of sending is waiting for another server.
const SENDERS = 4;
// What waits for longer is found by looking.
const LONGEST_TIMER_MS = 3_600_000;
const QUEUE = {
  // At most one job of a key waits; another may be under way.
  policy: "short",
  retryLimit: RETRY_LIMIT,
  retryDelay: RETRY_DELAY_SECONDS,
  retryBackoff: true,
} as const;
// A graceful stop must end within ten seconds, with time left for the other parts.
const STOP_TIMEOUT_MS = 6_000;

/** What runs a job: it throws to have it tried again. `last` is true when no further try will follow. */
export type JobHandler = (job: Job, attempt: { number: number; last: boolean }) => Promise<void>;

/** The driver speaks $1, the query builder speaks ?: every placeholder becomes the next binding. */
function executor(db: Database): PgBoss.Db {
  return {
    async executeSql(text, values = []) {
      const bindings: unknown[] = [];
      const sql = text.replaceAll("?", "\\?").replace(/\$(\d+)/g, (_, place: string) => {
        bindings.push(asBinding(values[Number(place) - 1]));
        return "?";
      });
      const found = await knexOf(db).raw(sql, bindings as never);
      // Several statements give several results; pg-boss reads the last.
      return Array.isArray(found) ? found.at(-1) : found;
    },
  };
}

// The driver takes undefined for null and writes objects as JSON; the query builder refuses what is left undefined.
function asBinding(value: unknown): unknown {
  if (value === undefined) return null;
  const plain = typeof value === "object" && value !== null && Object.getPrototypeOf(value) === Object.prototype;
  return plain ? JSON.stringify(value) : value;
}

/**
 * The queue for those who hand jobs in; the job is part of the transaction that is passed along. One that waits already
 * is not handed in a second time. The queue goes by the database's clock, which may be behind the application's:
 * `onDatabaseClock` says what it shows at a moment of the application's.
 */
export function jobQueue(db: Database, onDatabaseClock: (at: Instant) => Instant): JobQueue<Database> {
  const boss = new PgBoss({ db: executor(db) });
  return {
    async enqueue(trx, job, startAt) {
      const startAfter = startAt === undefined ? null : dateOf(onDatabaseClock(startAt));
      const begins = startAfter === null ? {} : { startAfter };
      await boss.send(job.kind, job, { db: executor(trx), singletonKey: JSON.stringify(job), ...begins });
      await announceJob(trx, job.kind, startAfter);
    },
  };
}

/** Creates the queue's own tables and queues; does nothing where they are. */
export async function prepareJobQueue(db: Database): Promise<void> {
  const boss = new PgBoss({ db: executor(db), supervise: false, schedule: false });
  await boss.start();
  for (const kind of KINDS) {
    const there = await boss.getQueue(kind);
    if (there === null) await boss.createQueue(kind, { name: kind, ...QUEUE });
    else if (there.policy !== QUEUE.policy) await boss.updateQueue(kind, { name: kind, ...QUEUE });
  }
  await boss.stop({ graceful: false, close: false });
}

export type Workers = {
  /** A job of this kind was handed in, and may begin in so many milliseconds. */
  readonly look: (kind: JobKind, inMs: number) => void;
  readonly stop: () => Promise<void>;
};

/** Works through the queue until stopped; `onProblem` hears of what no job is to blame for. */
export async function startWorkers(
  db: Database,
  handle: JobHandler,
  onProblem: (problem: unknown) => void,
): Promise<Workers> {
  const boss = new PgBoss({ db: executor(db), schedule: false });
  boss.on("error", onProblem);
  await boss.start();
  const workers = new Map<JobKind, string[]>();
  for (const kind of KINDS) {
    const options = { pollingIntervalSeconds: POLLING_SECONDS, batchSize: 1, includeMetadata: true } as const;
    for (let at = 0; at < (kind === "send-message" ? SENDERS : 1); at += 1) {
      const worker = await boss.work<Job>(kind, options, async (jobs: PgBoss.JobWithMetadata<Job>[]) => {
        try {
          for (const job of jobs) {
            await handle(job.data, { number: job.retryCount + 1, last: job.retryCount >= RETRY_LIMIT });
          }
        } finally {
          // Where there was one there may be another.
          boss.notifyWorker(worker);
        }
      });
      workers.set(kind, [...(workers.get(kind) ?? []), worker]);
    }
  }
  const timers = new Set<NodeJS.Timeout>();
  return {
    look(kind, inMs) {
      if (inMs > LONGEST_TIMER_MS) return;
      const timer = setTimeout(() => {
        timers.delete(timer);
        for (const worker of workers.get(kind) ?? []) boss.notifyWorker(worker);
      }, inMs);
      timers.add(timer);
    },
    stop() {
      for (const timer of timers) clearTimeout(timer);
      return boss.stop({ graceful: true, close: false, wait: true, timeout: STOP_TIMEOUT_MS });
    },
  };
}
