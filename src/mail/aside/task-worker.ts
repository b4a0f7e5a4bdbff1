import { parentPort } from "node:worker_threads";
import { loadLanguages } from "../../texts/say";
import { carryOutTask, type Task } from "./tasks";
import type { Order, Report } from "./thread";

await loadLanguages();

// The other side of `limited-thread`.
parentPort?.on("message", async ({ number, question }: Order<Task>) => {
  const report: Report<unknown> = await carryOutTask(question).then(
    (answer) => ({ number, answer }),
    (problem) => ({ number, problem: problem instanceof Error ? problem.message : String(problem) }),
  );
  parentPort?.postMessage(report);
});
