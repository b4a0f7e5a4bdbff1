import { Worker } from "node:worker_threads";

/** What a thread is asked for, and what it answers under the same number, or why it could not. */
export type Order<Question> = { readonly number: number; readonly question: Question };
export type Report<Answer> =
  | { readonly number: number; readonly answer: Answer }
  | { readonly number: number; readonly problem: string };

/** A thread that answers questions beside what this one does meanwhile. A process may end while it has nothing to do. */
export type Thread<Question, Answer> = {
  /** Rejects when the thread broke down. */
  readonly ask: (question: Question) => Promise<Answer>;
  readonly close: () => Promise<void>;
};

type Waiting<Answer> = { readonly done: (answer: Answer) => void; readonly failed: (why: unknown) => void };

// A thread does not inherit that this process reads TypeScript, and is told how before it begins. Built, it is a file as any.
const isBuilt = import.meta.url.endsWith(".js");
const AS_BUILT = "import(workerData.module);";
const FROM_SOURCES =
  "import(workerData.api).then(({ register }) => { register(); return import(workerData.module); });";

// As much as goes through between two short sweeps: more is only held longer.
const YOUNG_MB = 32;

/** Starts a module of this folder, by its name without an ending, in a thread, for as much memory (in MB) as it may take. */
export function startThread<Question, Answer>(module: string, maxMegabytes: number): Thread<Question, Answer> {
  const api = isBuilt ? null : import.meta.resolve("tsx/esm/api");
  const code = `const { workerData } = require("node:worker_threads"); ${isBuilt ? AS_BUILT : FROM_SOURCES}`;
  const worker = new Worker(code, {
    eval: true,
    workerData: { api, module: new URL(`./${module}.${isBuilt ? "js" : "ts"}`, import.meta.url).href },
    resourceLimits: { maxOldGenerationSizeMb: maxMegabytes, maxYoungGenerationSizeMb: YOUNG_MB },
  });
  const waiting = new Map<number, Waiting<Answer>>();
  let count = 0;
  let broken: Error | null = null;
  const breakDown = (why: Error) => {
    broken ??= why;
    for (const { failed } of waiting.values()) failed(broken);
    waiting.clear();
  };
  worker.unref();
  worker.on("message", (report: Report<Answer>) => {
    const asking = waiting.get(report.number);
    waiting.delete(report.number);
    if (waiting.size === 0) worker.unref();
    if ("problem" in report) asking?.failed(new Error(report.problem));
    else asking?.done(report.answer);
  });
  worker.on("error", breakDown);
  worker.on("exit", () => breakDown(new Error(`the thread of ${module} has ended`)));
  return {
    ask: (question) =>
      new Promise((done, failed) => {
        if (broken !== null) return failed(broken);
        count += 1;
        waiting.set(count, { done, failed });
        worker.ref();
        worker.postMessage({ number: count, question } satisfies Order<Question>);
      }),
    close: async () => void (await worker.terminate()),
  };
}
