import { existsSync, readdirSync, rmSync, statfsSync } from "node:fs";
import { fileURLToPath } from "node:url";
import pino from "pino";
import { buildWorld } from "~/demo/build-world";
import { type Cluster, startCluster } from "~/main/private-cluster";
import { wire } from "~/main/wiring";
import { migrateDatabase } from "~/operations/index.server";

const ON_DISK = fileURLToPath(new URL("../../.tray", import.meta.url));
// Every database of a test is nine hundred files that are deleted a moment later, which some file systems take a third of
// a second for; in memory, where there is room for it, a tenth.
const IN_MEMORY = "/dev/shm";
const ROOM_BYTES = 4e9;
const PREFIX = "common-tray-test-";

/** A migrated database without anything in it, and one with the made-up world; tests take copies. */
export const EMPTY_TEMPLATE = "template_empty";
export const DEMO_TEMPLATE = "template_demo";

/** A cluster for one run of the tests, thrown away with it; what killed runs left behind goes as well. */
export async function startTestCluster(): Promise<Cluster> {
  for (const place of [ON_DISK, IN_MEMORY]) sweep(place);
  const folder = `${hasRoom(IN_MEMORY) ? IN_MEMORY : ON_DISK}/${PREFIX}${process.pid}`;
  const cluster = await startCluster({ folder, durable: false });
  return {
    ...cluster,
    async stop() {
      await cluster.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Makes the two templates. */
export async function makeTemplates(cluster: Cluster): Promise<void> {
  await cluster.createDatabase(EMPTY_TEMPLATE);
  await inDatabase(cluster.url(EMPTY_TEMPLATE), (deps) => migrateDatabase(deps));
  await cluster.createDatabase(DEMO_TEMPLATE, EMPTY_TEMPLATE);
  await inDatabase(cluster.url(DEMO_TEMPLATE), (deps) => buildWorld(deps));
}

async function inDatabase(databaseUrl: string, work: (deps: ReturnType<typeof wire>["deps"]) => Promise<unknown>) {
  const { deps, close } = wire({ databaseUrl, demo: true }, pino({ level: "silent" }));
  try {
    await work(deps);
  } finally {
    await close();
  }
}

function hasRoom(place: string): boolean {
  if (!existsSync(place)) return false;
  const { bavail, bsize } = statfsSync(place);
  return bavail * bsize > ROOM_BYTES;
}

function sweep(place: string): void {
  if (!existsSync(place)) return;
  for (const name of readdirSync(place)) {
    const pid = name.startsWith(PREFIX) ? Number(name.slice(PREFIX.length)) : process.pid;
    if (pid !== process.pid && !existsSync(`/proc/${pid}`))
      rmSync(`${place}/${name}`, { recursive: true, force: true });
  }
}
