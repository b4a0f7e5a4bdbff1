import { spawn } from "node:child_process";
import { once } from "node:events";
import type { TestTray } from "./test-database";

/**
 * Has work done in processes that are killed so many times, each once something of it is done (`doneOf` grows), and then in one
 * that is left alone. Gives how many were killed.
 */
export async function doneWhileKilled(
  { url }: Pick<TestTray, "url">,
  what: readonly string[],
  most: number,
  doneOf: () => Promise<number>,
): Promise<number> {
  let kills = 0;
  for (;;) {
    const before = await doneOf();
    const child = spawn(process.execPath, ["--import", "tsx", "tests/support/killed-work.ts", url, ...what]);
    const ended = once(child, "exit");
    let isOver = false;
    void ended.then(() => {
      isOver = true;
    });
    while (!isOver && kills < most) {
      if ((await doneOf()) > before) {
        child.kill("SIGKILL");
        kills += 1;
        break;
      }
    }
    const [code] = await ended;
    if (code === 0) return kills;
  }
}
