import { spawn } from "node:child_process";
import { once } from "node:events";
import { createWriteStream, readFileSync, rmSync } from "node:fs";
import { createInterface } from "node:readline";
import { parseMessage } from "~/mail/index";
import { letter } from "./letter";
import type { Figure } from "./measure";

const LEAST = 0.5;
const MOST_MEMORY_MB = 500;
const PARSED_AT_ONCE = 100;
const LOOK_EVERY_MS = 500;

/**
 * Importing a large mbox with the operator's tool, in messages a second, against parsing alone; the floor is measured
 * before, between and after, as the machines are noisy. Its memory, and a second import, have to hold as well.
 */
export async function importMbox(url: string, folder: string, messages: number): Promise<Figure[]> {
  const path = `${folder}/bench.mbox`;
  await writeMbox(path, messages);
  const floors = [await parsedPerSecond()];
  const first = await runImport(url, path);
  floors.push(await parsedPerSecond());
  const again = await runImport(url, path);
  floors.push(await parsedPerSecond());
  rmSync(path);
  const floor = floors.toSorted((a, b) => a - b)[1] ?? Number.NaN;
  const measured = messages / first.seconds;
  const common = { unit: "", floor: Number.NaN, floorName: "nothing to compare with", ratio: Number.NaN };
  return [
    {
      name: `importing an mbox of ${messages} messages`,
      unit: "messages/s",
      measured,
      floor,
      floorName: "parsing alone",
      ratio: measured / floor,
      asked: `at least ${LEAST}`,
      holds: measured / floor >= LEAST && first.added === messages,
    },
    {
      ...common,
      name: "memory of that import at its height",
      unit: "MB",
      measured: first.memoryMb,
      asked: `at most ${MOST_MEMORY_MB} MB`,
      holds: first.memoryMb <= MOST_MEMORY_MB,
    },
    {
      ...common,
      name: "messages that a second import adds",
      unit: "messages",
      measured: again.added,
      asked: "none",
      holds: again.added === 0,
    },
  ];
}

async function writeMbox(path: string, messages: number): Promise<void> {
  const file = createWriteStream(path);
  for (let at = 0; at < messages; at += 1) {
    const isDrained = file.write(
      Buffer.concat([Buffer.from("From x Tue Nov 24 08:00:00 2026\n"), letter(at, "import"), Buffer.from("\n")]),
    );
    if (!isDrained) await once(file, "drain");
  }
  file.end();
  await once(file, "finish");
}

async function parsedPerSecond(): Promise<number> {
  const letters = Array.from({ length: PARSED_AT_ONCE * 4 }, (_, at) => letter(at, "parse"));
  for (const raw of letters.slice(0, PARSED_AT_ONCE)) await parseMessage(raw);
  const start = performance.now();
  for (const raw of letters) await parseMessage(raw);
  return letters.length / ((performance.now() - start) / 1_000);
}

async function runImport(url: string, path: string) {
  const args = ["build/main/tray.js", "import", path, "--tray", "office@ottermoor.example", "--as-history"];
  const child = spawn(process.execPath, args, {
    env: { ...process.env, DATABASE_URL: url },
    stdio: ["ignore", "pipe", "pipe"],
  });
  let memoryMb = 0;
  const looking = setInterval(() => {
    memoryMb = Math.max(memoryMb, heightOf(child.pid ?? 0));
  }, LOOK_EVERY_MS);
  const out: string[] = [];
  child.stdout.on("data", (chunk) => out.push(String(chunk)));
  let started = 0;
  const notes: string[] = [];
  createInterface({ input: child.stderr }).on("line", (line) => {
    notes.push(line);
    // What it takes to load the program is not what is measured; one batch is lost to it.
    if (started === 0) started = performance.now();
  });
  const [code] = await once(child, "close");
  const seconds = (performance.now() - started) / 1_000;
  clearInterval(looking);
  if (code !== 0) throw new Error(`the import ended with ${code}: ${notes.slice(-3).join("\n")}`);
  return { seconds, memoryMb, added: Number(JSON.parse(out.join("")).added) };
}

function heightOf(pid: number): number {
  try {
    return Number(/VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) / 1_024;
  } catch {
    return 0;
  }
}
