import { createServer } from "node:net";
import { fileURLToPath } from "node:url";
import pino from "pino";
import { DAY } from "../core/kernel/instant";
import { buildWorld } from "../demo/build-world";
import { COLLEAGUES, DEMO_PASSWORD, TRAYS } from "../demo/world";
import { CHARACTERS, startLeavingSite, startOutsideWorld } from "../mail/index";
import { demoClockAdvance, hasTrays, migrateDatabase } from "../operations/index.server";
import { clock } from "./clock";
import type { Config } from "./config";
import { takeFolder } from "./folder-lock";
import { portProblem } from "./port-problem";
import { type Cluster, freePort, startCluster } from "./private-cluster";
import { serve } from "./serve";
import { stopOnSignal } from "./stop-on-signal";
import { wire } from "./wiring";

const FOLDER = fileURLToPath(new URL("../../.tray/demo", import.meta.url));
const DATABASE = "common_tray_demo";
const HTTP_PORT = 3000;
const MAIL_PORT = 2525;
const MAX_BYTES = 36_700_160;
const HOLD_MS = 8_000;
const SECOND_MS = 1_000;

const log = pino({ level: "warn" }, pino.destination(2));
const say = (line: string) => process.stdout.write(`${line}\n`);

try {
  await demo();
} catch (problem) {
  process.stderr.write(`The demo cannot start: ${portProblem(problem)}\n`);
  process.exit(1);
}

async function demo(): Promise<void> {
  const taken = takeFolder(FOLDER);
  if (!taken.ok) throw new Error(`it runs already (process ${taken.error}); stop that one first.`);
  say("Starting the database …");
  const cluster = await startCluster({ folder: FOLDER, durable: true });
  let stop = () => cluster.stop();
  stopOnSignal(() => stop().finally(taken.value));
  if (process.argv.includes("--fresh")) await cluster.dropDatabase(DATABASE);
  await cluster.createDatabase(DATABASE);
  const isNew = await fillDatabase(cluster);

  // A world whose time was let pass goes on from where it was.
  const time = clock();
  time.putAhead(await aheadOf(cluster));
  let mailPort = await portOr(MAIL_PORT);
  const outside = await startOutsideWorld({
    host: "127.0.0.1",
    port: 0,
    tray: () => ({ host: "127.0.0.1", port: mailPort }),
    characters: CHARACTERS,
    secondMs: SECOND_MS / speed(),
    now: () => wired.deps.now(),
    newId: () => wired.deps.newId(),
    onProblem: (problem) => log.warn(problem, "the outside world"),
  });
  const site = await startLeavingSite("127.0.0.1");
  const wired = wire({ databaseUrl: cluster.url(DATABASE), demo: true, poolSize: 1, clock: time }, log);
  const ports = { http: await portOr(HTTP_PORT), mail: mailPort, outside: outside.port, site: site.port };
  const serving = await serve(demoConfig(cluster, ports), log, { keys: outside.keys, clock: time });
  mailPort = serving.mailPort;
  stop = async () => {
    await serving.stop();
    await outside.close();
    await site.close();
    await wired.close();
    await cluster.stop();
  };
  greet(serving.httpPort, mailPort, isNew);
}

async function fillDatabase(cluster: Cluster): Promise<boolean> {
  const { deps, close } = wire({ databaseUrl: cluster.url(DATABASE), demo: true }, log);
  try {
    await migrateDatabase(deps);
    if (await hasTrays(deps)) return false;
    say("Building the made-up world …");
    await buildWorld(deps);
    return true;
  } finally {
    await close();
  }
}

async function aheadOf(cluster: Cluster): Promise<number> {
  const { deps, close } = wire({ databaseUrl: cluster.url(DATABASE), demo: true, poolSize: 1 }, log);
  try {
    return await demoClockAdvance(deps);
  } finally {
    await close();
  }
}

type Ports = { readonly http: number; readonly mail: number; readonly outside: number; readonly site: number };

function demoConfig(cluster: Cluster, ports: Ports): Config {
  return {
    databaseUrl: cluster.url(DATABASE),
    http: {
      host: "127.0.0.1",
      port: ports.http,
      secureCookies: false,
      trustProxy: false,
      publicUrl: `http://localhost:${ports.http}`,
      processes: 1,
    },
    mailIn: {
      host: "127.0.0.1",
      port: ports.mail,
      lmtpPort: null,
      maxBytes: MAX_BYTES,
      tls: null,
      networks: [],
      knownNetworks: [],
      connectionsOfOneAddress: 60,
      messagesAMinute: 10_000,
    },
    trust: { authservIds: [], checksDkim: true },
    sessions: { longestMs: 14 * DAY, idleMs: 14 * DAY },
    accessLogKeptMs: 180 * DAY,
    sending: { holdMs: HOLD_MS, aMinute: 600, perDomainAMinute: 60 },
    mailOut: { host: "127.0.0.1", port: ports.outside, secure: false, auth: null, name: "ottermoor.example" },
    oneClickVia: `http://127.0.0.1:${ports.site}`,
    logLevel: "warn",
    demo: true,
  };
}

function greet(httpPort: number, mailPort: number, isNew: boolean): void {
  const addresses = TRAYS.flatMap((tray) => tray.addresses).join(" or ");
  say("");
  say(`  Common Tray runs at  http://localhost:${httpPort}`);
  if (httpPort !== HTTP_PORT) say(`  (port ${HTTP_PORT} was taken)`);
  say(`  Sign in as           ${COLLEAGUES.map((colleague) => colleague.signInName).join(", ")}`);
  say(`                       with one click, or with the password ${DEMO_PASSWORD}`);
  say(`  Send mail to         ${addresses}, SMTP at localhost:${mailPort}`);
  say(`  Answering outside    ${CHARACTERS.map((character) => character.address).join(", ")}`);
  say("");
  if (!isNew) say("  This is the world as you left it; npm run demo -- --fresh builds it anew.");
  say("  Ctrl-C stops everything.");
}

/** How fast the clock of the outside world goes: `--speed 10` is ten times as fast. */
function speed(): number {
  const given = Number(process.argv[process.argv.indexOf("--speed") + 1]);
  return process.argv.includes("--speed") && given > 0 ? given : 1;
}

/** The wanted port, or a free one when somebody has it. */
async function portOr(wanted: number): Promise<number> {
  const isFree = await new Promise<boolean>((resolve) => {
    const probe = createServer();
    probe.once("error", () => resolve(false));
    probe.listen(wanted, "127.0.0.1", () => probe.close(() => resolve(true)));
  });
  return isFree ? wanted : freePort();
}
