import PgBoss from "pg-boss";
import { dateOf } from "../core/kernel/instant";
import type { Job, JobKind, JobQueue } from "../core/ports";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";

const KINDS: readonly JobKind[] = [
  "send-message",
  "run-import",
  "run-bulk",
  "wake-rested",
  "empty-bins",
  "tell-by-clock",
  "resume-work",
];

// Mail that cannot be handed over now is tried for about a day: 30 s, then twice as long each time.
const RETRY_LIMIT = 11;
const RETRY_DELAY_SECONDS = 30;
const POLLING_SECONDS = 0.5;
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

/** The queue for those who hand jobs in; the job is part of the transaction that is passed along. */
export function jobQueue(db: Database): JobQueue<Database> {
  const boss = new PgBoss({ db: executor(db) });
  return {
    async enqueue(trx, job, startAt) {
      const options = { db: executor(trx), ...(startAt === undefined ? {} : { startAfter: dateOf(startAt) }) };
      await boss.send(job.kind, job, options);
    },
  };
}

/** Creates the queue's own tables and queues; does nothing where they are. */
export async function prepareJobQueue(db: Database): Promise<void> {
  const boss = new PgBoss({ db: executor(db), supervise: false, schedule: false });
  await boss.start();
  for (const kind of KINDS) {
    if ((await boss.getQueue(kind)) !== null) continue;
    await boss.createQueue(kind, {
      name: kind,
      policy: "standard",
      retryLimit: RETRY_LIMIT,
      retryDelay: RETRY_DELAY_SECONDS,
      retryBackoff: true,
    });
  }
  await boss.stop({ graceful: false, close: false });
}

/** Works through the queue until stopped; `onProblem` hears of what no job is to blame for. */
export async function startWorkers(
  db: Database,
  handle: JobHandler,
  onProblem: (problem: unknown) => void,
): Promise<{ stop: () => Promise<void> }> {
  const boss = new PgBoss({ db: executor(db) });
  boss.on("error", onProblem);
  await boss.start();
  for (const kind of KINDS) {
    const options = { pollingIntervalSeconds: POLLING_SECONDS, batchSize: 1, includeMetadata: true } as const;
    await boss.work<Job>(kind, options, async (jobs: PgBoss.JobWithMetadata<Job>[]) => {
      for (const job of jobs) {
        await handle(job.data, { number: job.retryCount + 1, last: job.retryCount >= RETRY_LIMIT });
      }
    });
  }
  return { stop: () => boss.stop({ graceful: true, close: false, wait: true, timeout: STOP_TIMEOUT_MS }) };
}
