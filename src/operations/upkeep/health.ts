import { databaseVersion } from "../../storage/base/index";
import type { Deps } from "../base/deps";

/** Whether the database answers within so many milliseconds. */
export async function databaseAnswers(deps: Deps, patienceMs: number): Promise<boolean> {
  let waiting: NodeJS.Timeout | undefined;
  const tooLate = new Promise<false>((resolve) => {
    waiting = setTimeout(() => resolve(false), patienceMs);
  });
  const answers = databaseVersion(deps.db).then(
    () => true,
    () => false,
  );
  return Promise.race([answers, tooLate]).finally(() => clearTimeout(waiting));
}
