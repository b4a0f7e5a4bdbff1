const SIGNALS = ["SIGINT", "SIGTERM", "SIGHUP"] as const;
const PATIENCE_MS = 10_000;

/** Calls `stop` once when the process is asked to end, then ends it; after ten seconds it ends in any case. */
export function stopOnSignal(stop: () => Promise<void>): void {
  let stopping = false;
  const end = () => {
    if (stopping) return;
    stopping = true;
    setTimeout(() => process.exit(1), PATIENCE_MS).unref();
    stop().then(
      () => process.exit(0),
      (problem) => {
        process.stderr.write(`could not stop cleanly: ${String(problem)}\n`);
        process.exit(1);
      },
    );
  };
  for (const signal of SIGNALS) process.on(signal, end);
}
