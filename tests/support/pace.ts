const ADDITIONS = 30_000_000;
/** What they take on a machine that does nothing else, measured on the one for which the bounds were set. */
const QUIET_MS = 100;

function additionsMs(): number {
  const started = performance.now();
  let sum = 0;
  for (let at = 0; at < ADDITIONS; at++) sum += at;
  if (sum < 0) throw new Error("a sum of what is not negative");
  return performance.now() - started;
}

let slowest = 1;

/**
 * A bound in milliseconds, given for a quiet machine, for this one at this moment: machines are noisy, and what a
 * test looks for is work that grows without bound, not a machine with many guests. Never less than what is given.
 */
export function onThisMachine(quietMs: number): number {
  slowest = Math.max(slowest, additionsMs() / QUIET_MS);
  return quietMs * slowest;
}
