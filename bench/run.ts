import { rmSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { Client } from "pg";
import pino from "pino";
import { buildWorld } from "~/demo/build-world";
import { COLLEAGUES, TRAYS } from "~/demo/world";
import { type Cluster, startCluster } from "~/main/private-cluster";
import { type Wired, wire } from "~/main/wiring";
import { addMember, migrateDatabase, setUpTray } from "~/operations/index.server";
import { killStorm } from "../tests/support/kill-storm";
import { CROWD_DATABASE, crowdFigures, fillCrowd, searchFigures } from "./crowd";
import { doctorFigure } from "./doctor";
import { emptyingFigures } from "./emptying";
import { hourFigures } from "./hour";
import { importMbox } from "./import";
import { fillLargeTray } from "./large-tray";
import { mailIn } from "./mail-in";
import { type Figure, printed } from "./measure";
import { openLists } from "./open-lists";
import { openStanding } from "./open-standing";
import { proposalFigures } from "./proposals";
import { recipientFigures } from "./recipients";
import { recordFigures } from "./records";
import { ruledArrivals } from "./ruled-arrivals";
import { ruleFigures } from "./rules";
import { sortingInBrowser } from "./sorting";
import { textFigures } from "./texts";
import { turnsFigures } from "./turns";
import { workTimeFigure } from "./worktime";

// Each figure against a floor measured in the same run, as the machines are noisy; durable settings throughout.

const FOLDER = fileURLToPath(new URL("../.tray/bench", import.meta.url));

// All of it takes half an hour: 100,000 messages imported, 20 kills. A look at the rest takes some minutes.
const isFull = process.argv.includes("--full");
const IMPORTED = isFull ? 100_000 : 5_000;
const STORM = isFull
  ? { incoming: 2_000, outgoing: 200, connections: 8, kills: 20 }
  : { incoming: 400, outgoing: 60, connections: 8, kills: 4 };

// One part or some: `--lists`, `--proposals`, `--mail`, `--import`, `--kills`, `--texts`, `--worktime`,
// `--turns`, `--doctor`, `--rules`, `--records`, `--bins`, `--recipients`; all of them when none is named, but `--hour`, which takes one,
// and `--crowd`, which fills a million messages first.
const PARTS = [
  "lists",
  "proposals",
  "records",
  "bins",
  "mail",
  "import",
  "kills",
  "texts",
  "worktime",
  "turns",
  "doctor",
  "rules",
  "recipients",
] as const;
const named = PARTS.filter((part) => process.argv.includes(`--${part}`));
const isHourAsked = process.argv.includes("--hour");
const isCrowdAsked = process.argv.includes("--crowd");
const isAllAsked = named.length === 0 && !isHourAsked && !isCrowdAsked;
const isAsked = (part: (typeof PARTS)[number]) => isAllAsked || named.includes(part);

async function inDatabase<T>(
  cluster: Cluster,
  name: string,
  work: (wired: Wired, url: string) => Promise<T>,
): Promise<T> {
  await cluster.createDatabase(name);
  const url = cluster.url(name);
  const wired = wire({ databaseUrl: url, demo: true }, pino({ level: "silent" }));
  try {
    await migrateDatabase(wired.deps);
    for (const tray of TRAYS) await setUpTray(wired.deps, tray);
    for (const colleague of COLLEAGUES) await addMember(wired.deps, colleague);
    return await work(wired, url);
  } finally {
    await wired.close();
  }
}

async function stormFigure(cluster: Cluster): Promise<Figure> {
  await cluster.createDatabase("bench_storm");
  const url = cluster.url("bench_storm");
  const { deps, close } = wire({ databaseUrl: url, demo: true }, pino({ level: "silent" }));
  await migrateDatabase(deps);
  await close();
  const client = new Client({ connectionString: url });
  await client.connect();
  const left = await killStorm(
    { url, ask: async (sql, values = []) => (await client.query(sql, [...values])).rows },
    STORM,
  );
  await client.end();
  const wrong = left.wrongIn.length + left.wrongOut.length;
  return {
    name: `${left.kills} kills over ${STORM.incoming} in and ${STORM.outgoing} out, ${left.uncertain} of these shown as uncertain: lost, or twice unseen`,
    unit: "messages",
    measured: wrong,
    floor: Number.NaN,
    floorName: "",
    ratio: Number.NaN,
    asked: "none",
    holds: wrong === 0,
  };
}

// What an earlier run that was cut off has left would be counted along.
rmSync(FOLDER, { recursive: true, force: true });
let cluster = await startCluster({ folder: FOLDER, durable: true });
try {
  const figures: Figure[] = [];
  const measured = (...some: readonly Figure[]) => {
    for (const figure of some) console.log(printed(figure));
    figures.push(...some);
  };
  if (isAsked("lists")) {
    await inDatabase(cluster, "bench_list", async (wired, url) => {
      await fillLargeTray(url);
      measured(await openStanding(wired, url));
      measured(...(await openLists(wired, url)));
      measured(...(await sortingInBrowser(url)));
    });
  }
  if (isAsked("proposals")) {
    await inDatabase(cluster, "bench_proposals", async (wired, url) => {
      await fillLargeTray(url);
      const { figures: some, lines } = await proposalFigures(wired.deps, url);
      for (const line of lines) console.log(line);
      measured(...some);
    });
  }
  if (isAsked("records")) {
    await inDatabase(cluster, "bench_records", (wired, url) =>
      inDatabase(cluster, "bench_records_again", async (other) => {
        for await (const figure of recordFigures(wired, url, other)) measured(figure);
      }),
    );
  }
  if (isAsked("bins")) measured(...(await inDatabase(cluster, "bench_bins", emptyingFigures)));
  if (isAsked("mail")) measured(await inDatabase(cluster, "bench_mail", mailIn));
  if (isAsked("import"))
    measured(...(await inDatabase(cluster, "bench_import", (_, url) => importMbox(url, FOLDER, IMPORTED))));
  if (isAsked("texts")) measured(...textFigures());
  if (isAsked("turns")) measured(...turnsFigures());
  if (isAsked("rules")) measured(...ruleFigures(), await inDatabase(cluster, "bench_ruled", ruledArrivals));
  if (isAsked("recipients")) {
    await inDatabase(cluster, "bench_recipients", async (wired, url) => {
      await fillLargeTray(url);
      for await (const figure of recipientFigures(wired, url)) measured(figure);
    });
  }
  if (isAsked("doctor")) {
    await cluster.createDatabase("bench_doctor");
    const url = cluster.url("bench_doctor");
    const wired = wire({ databaseUrl: url, demo: true }, pino({ level: "silent" }));
    await migrateDatabase(wired.deps);
    measured(await doctorFigure(wired, url));
    await wired.close();
  }
  if (isHourAsked) {
    await cluster.createDatabase("bench_hour");
    const url = cluster.url("bench_hour");
    const { deps, close } = wire({ databaseUrl: url, demo: true }, pino({ level: "silent" }));
    await migrateDatabase(deps);
    await buildWorld(deps);
    await close();
    measured(...(await hourFigures(url)));
  }
  if (isCrowdAsked) {
    measured(
      ...(await inDatabase(cluster, CROWD_DATABASE, async (wired, url) => {
        await fillCrowd(wired, url);
        return crowdFigures(url);
      })),
    );
    const searched = await searchFigures(cluster, FOLDER);
    cluster = searched.cluster;
    measured(...searched.figures);
  }
  if (isAsked("worktime")) measured(workTimeFigure());
  if (isAsked("kills")) measured(await stormFigure(cluster));
  process.exitCode = figures.every(({ holds }) => holds) ? 0 : 1;
} finally {
  await cluster.stop();
  rmSync(FOLDER, { recursive: true, force: true });
}
