import { spawn } from "node:child_process";

// In a process of its own: whoever measures must not wait for what else this one does.
const PROBE = `
  let longest = 0;
  process.on("SIGTERM", () => process.stdout.write(String(longest), () => process.exit(0)));
  for (;;) {
    const start = performance.now();
    await (await fetch(process.argv[1])).arrayBuffer();
    longest = Math.max(longest, performance.now() - start);
    await new Promise((resolve) => setTimeout(resolve, 5));
  }`;

/** How long an address was silent at the longest while something goes on, in milliseconds. */
export async function longestSilence(url: string, work: Promise<unknown>): Promise<number> {
  const probe = spawn(process.execPath, ["--input-type=module", "-e", PROBE, url], {
    stdio: ["ignore", "pipe", "inherit"],
  });
  let said = "";
  probe.stdout.on("data", (chunk) => {
    said += chunk;
  });
  const ended = new Promise((resolve) => probe.once("close", resolve));
  await work.finally(() => probe.kill());
  await ended;
  return Number(said);
}
