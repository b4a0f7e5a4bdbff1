import type { Job, JobKind } from "../core/ports";
import { type Attempt, beginJob, type Deps, isSuspect, jobEnded, processStops } from "../operations/index.server";
import { type Gate, gate } from "./gate";
import { handleJob } from "./handle-job";

/** Runs jobs in a process that a job may take down: what did so twice is put aside. */
export type JobRunner = {
  /** Throws to have the job tried again. */
  readonly run: (job: Job, attempt: Attempt) => Promise<void>;
  /** Call when the process stops in order, before it ends: what is cut off took nothing down. */
  readonly stop: () => Promise<void>;
};

// What works through much at a time. A suspect among them runs without any other, so that the right one is blamed.
const HEAVY: ReadonlySet<JobKind> = new Set<JobKind>(["run-import", "run-bulk", "pack-parcel", "read-documents"]);

/** `process` is the number by which other processes know whether this one lives. */
export function jobRunner(deps: Deps, process: number, handle: typeof handleJob = handleJob): JobRunner {
  const heavy = gate();
  let stopping = false;
  const within = async (job: Job, work: () => Promise<void>) => {
    if (!HEAVY.has(job.kind)) return work();
    const enter: Gate["alone"] = (await isSuspect(deps, job)) ? heavy.alone : heavy.together;
    return enter(work);
  };
  return {
    run: (job, attempt) =>
      within(job, async () => {
        if (!(await beginJob(deps, job, process))) return;
        try {
          await handle(deps, job, attempt);
        } finally {
          if (!stopping) await jobEnded(deps, job);
        }
      }),
    async stop() {
      stopping = true;
      await processStops(deps, process);
    },
  };
}
