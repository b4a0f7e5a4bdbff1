import { readFileSync } from "node:fs";
import { setTimeout as pause } from "node:timers/promises";
import { createTransport } from "nodemailer";
import { v7 as uuid } from "uuid";
import { instant } from "~/core/kernel/instant";
import { seededRandom } from "~/demo/random";
import { COLLEAGUES } from "~/demo/world";
import { startOutsideWorld } from "~/mail/index";
import { type ServerProcess, startServerProcess } from "../tests/support/server-process";
import { letter } from "./letter";
import type { Figure } from "./measure";
import { simulatedBrowser, type Trouble } from "./simulated-browser";

const BROWSERS = 20;
const MINUTE_MS = 60_000;
// `MINUTES=12` for a look; what is asked for is an hour.
const MINUTES = Number(process.env.MINUTES ?? 60);
const WARM_MINUTES = Math.min(10, MINUTES / 2);
// Memory goes up and down with what is in hand: a reading is the median of those of two minutes.
const READING_MINUTES = Math.min(2, MINUTES / 4);
const SAMPLE_MS = 5_000;
const MAIL_EVERY_MS = 2_000;
const MOST_GROWTH = 1.15;
const SEED = 41;

/** An hour of mixed use by twenty simulated browsers while mail comes in, against the application as `npm start` runs it. */
export async function hourFigures(databaseUrl: string): Promise<Figure[]> {
  const outside = await startOutsideWorld({
    host: "127.0.0.1",
    port: 0,
    tray: () => ({ host: "127.0.0.1", port: 0 }),
    characters: [],
    secondMs: 1_000,
    now: () => instant(Date.now()),
    newId: () => uuid(),
    onProblem: (problem) => console.error(problem),
  });
  const environment = { DATABASE_URL: databaseUrl, DEMO: "true", SMTP_OUT_PORT: String(outside.port) };
  const server = await startServerProcess(environment);
  try {
    return await hourOn(server);
  } finally {
    await server.stop();
    await outside.close();
  }
}

async function hourOn(server: ServerProcess): Promise<Figure[]> {
  const troubles: Trouble[] = [];
  const browsers = await Promise.all(
    Array.from({ length: BROWSERS }, (_, at) => {
      const name = COLLEAGUES[at % COLLEAGUES.length]?.signInName ?? "";
      return simulatedBrowser(server.httpPort, name, seededRandom(SEED + at), (trouble) => troubles.push(trouble));
    }),
  );
  const start = performance.now();
  const minutes = () => (performance.now() - start) / MINUTE_MS;
  const goesOn = () => minutes() < MINUTES;
  const samples: { readonly minute: number; readonly megabytes: number }[] = [];
  const sampling = async () => {
    while (goesOn()) {
      samples.push({ minute: minutes(), megabytes: memoryOf(server.pid) });
      await pause(SAMPLE_MS);
    }
  };
  const working = browsers.map(async (browser, at) => {
    const random = seededRandom(SEED * at + 1);
    while (goesOn()) {
      await pause(1_500 + random() * 4_000);
      await browser.act();
    }
  });
  const mail = { count: 0 };
  await Promise.all([sampling(), mailTo(server, goesOn, mail), ...working]);
  const requests = browsers.reduce((sum, browser) => sum + browser.requests(), 0);
  for (const browser of browsers) browser.close();
  const complaints = server.said().filter(isComplaint);
  for (const line of complaints.slice(0, 20)) console.log(`log: ${line}`);
  for (const trouble of troubles.slice(0, 20)) console.log(`answered: ${trouble.status} ${trouble.path}`);
  const readingAt = (minute: number) =>
    median(samples.filter((one) => Math.abs(one.minute - minute) <= READING_MINUTES / 2).map((one) => one.megabytes));
  const [warm, end] = [readingAt(WARM_MINUTES), readingAt(MINUTES - READING_MINUTES / 2)];
  const did = `${BROWSERS} browsers, ${requests} requests, ${mail.count} messages in, ${MINUTES} minutes`;
  const peak = Math.max(...samples.map(({ megabytes }) => megabytes));
  return [
    {
      name: `memory at the end of ${did} (${peak.toFixed(0)} at the most)`,
      unit: "MB",
      measured: end,
      floor: warm,
      floorName: `after ${WARM_MINUTES} minutes`,
      ratio: end / warm,
      asked: `at most ${MOST_GROWTH}`,
      holds: end / warm <= MOST_GROWTH,
    },
    none(`answers of 500 and above in ${did}`, troubles.length),
    none(`warnings and errors in the log of ${did}`, complaints.length),
  ];
}

async function mailTo(server: ServerProcess, goesOn: () => boolean, mail: { count: number }): Promise<void> {
  const transport = createTransport({ host: "127.0.0.1", port: server.mailPort, ignoreTLS: true, pool: true });
  while (goesOn()) {
    const raw = letter(mail.count, "hour");
    await transport.sendMail({ envelope: { from: "a@bench.example", to: "office@ottermoor.example" }, raw });
    mail.count += 1;
    await pause(MAIL_EVERY_MS);
  }
  transport.close();
}

function none(name: string, measured: number): Figure {
  const unused = { floor: Number.NaN, floorName: "", ratio: Number.NaN };
  return { name, unit: "lines", measured, ...unused, asked: "none", holds: measured === 0 };
}

const memoryOf = (pid: number) =>
  Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1]) / 1_024;

const median = (values: readonly number[]) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

// Pino's levels (40 is a warning), and what Node itself writes.
function isComplaint(line: string): boolean {
  if (!line.startsWith("{")) return /warning|error/i.test(line);
  return Number((JSON.parse(line) as { level?: number }).level) >= 40;
}
