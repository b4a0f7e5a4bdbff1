import type { Answered, Asked, Task, TaskKind } from "./tasks";
import { startThread, type Thread } from "./thread";

/** Why a task was not carried out: it took too long or too much memory, or its thread ended. */
export class Overran extends Error {}

/** A thread that carries out one task after the other, each within its limits. */
export type LimitedThread = {
  /** What the task came to; rejects with `Overran` where it went over a limit: that costs the thread, and the next task has a new one. */
  readonly carryOut: <Kind extends TaskKind>(
    kind: Kind,
    asked: Asked<Kind>,
    patienceMs: number,
  ) => Promise<Answered<Kind>>;
  readonly close: () => Promise<void>;
};

// A thread that has had much to do keeps what memory it took until it ends.
const IDLE_MS = 20_000;

/** A thread for tasks of so much memory (in MB); it is started with the first and ends when none comes for a while. */
export function limitedThread(maxMegabytes: number): LimitedThread {
  let thread: Thread<Task, unknown> | null = null;
  let turn: Promise<unknown> = Promise.resolve();
  let idle: NodeJS.Timeout | undefined;
  const close = async () => {
    clearTimeout(idle);
    const ending = thread;
    thread = null;
    await ending?.close();
  };
  const within = async (task: Task, patienceMs: number): Promise<unknown> => {
    clearTimeout(idle);
    thread ??= startThread("task-worker", maxMegabytes);
    const asked = thread.ask(task);
    asked.catch(() => {});
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<never>((_, reject) => {
      timer = setTimeout(() => reject(new Overran(`${task.kind} took more than ${patienceMs / 1_000} s`)), patienceMs);
    });
    try {
      return await Promise.race([asked, late]);
    } catch (problem) {
      await close();
      throw problem instanceof Overran ? problem : new Overran(problem instanceof Error ? problem.message : "it broke");
    } finally {
      clearTimeout(timer);
      idle = setTimeout(() => void close(), IDLE_MS).unref();
    }
  };
  return {
    carryOut<Kind extends TaskKind>(kind: Kind, asked: Asked<Kind>, patienceMs: number) {
      const mine = turn.then(() => within({ kind, asked } as Task, patienceMs));
      turn = mine.catch(() => {});
      return mine as Promise<Answered<Kind>>;
    },
    close,
  };
}
