import { type Deps, learnDecisions } from "../operations/index.server";

const LOOK_EVERY_MS = 1_000;

/** Learns from decisions moments after they are made, one process for all; `onProblem` hears of what went wrong, and it is tried again. */
export function startLearning(
  deps: Pick<Deps, "db">,
  onProblem: (problem: unknown) => void,
): { readonly stop: () => Promise<void> } {
  let stopping = false;
  let learning: Promise<void> | null = null;
  const timer = setInterval(() => {
    learning ??= learnDecisions(deps, () => !stopping)
      .catch(onProblem)
      .finally(() => {
        learning = null;
      });
  }, LOOK_EVERY_MS);
  return {
    async stop() {
      stopping = true;
      clearInterval(timer);
      await learning;
    },
  };
}
