import { rmSync } from "node:fs";
import { fileURLToPath } from "node:url";
import pino from "pino";
import { COLLEAGUES, TRAYS } from "~/demo/world";
import { type Cluster, startCluster } from "~/main/private-cluster";
import { type Wired, wire } from "~/main/wiring";
import { addMember, migrateDatabase, setUpTray } from "~/operations/index.server";
import { fillLargeTray } from "./large-tray";
import { mailIn } from "./mail-in";
import { type Figure, printed } from "./measure";
import { openStanding } from "./open-standing";

// Each figure against a floor measured in the same run, as the machines are noisy; durable settings throughout.

const FOLDER = fileURLToPath(new URL("../.tray/bench", import.meta.url));

async function inDatabase(
  cluster: Cluster,
  name: string,
  work: (wired: Wired, url: string) => Promise<Figure>,
): Promise<Figure> {
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

const cluster = await startCluster({ folder: FOLDER, durable: true });
try {
  const figures = [
    await inDatabase(cluster, "bench_list", async (wired, url) => {
      await fillLargeTray(url);
      return openStanding(wired, url);
    }),
    await inDatabase(cluster, "bench_mail", mailIn),
  ];
  for (const figure of figures) console.log(printed(figure));
  process.exitCode = figures.every(({ holds }) => holds) ? 0 : 1;
} finally {
  await cluster.stop();
  rmSync(FOLDER, { recursive: true, force: true });
}
