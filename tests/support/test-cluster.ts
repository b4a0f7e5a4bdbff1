import { existsSync, readdirSync, rmSync } from "node:fs";
import { fileURLToPath } from "node:url";
import pino from "pino";
import { buildWorld } from "~/demo/build-world";
import { type Cluster, startCluster } from "~/main/private-cluster";
import { wire } from "~/main/wiring";
import { migrateDatabase } from "~/operations/index.server";

const FOLDER = fileURLToPath(new URL("../../.tray", import.meta.url));
const PREFIX = "test-";

/** A migrated database without anything in it, and one with the made-up world; tests take copies. */
export const EMPTY_TEMPLATE = "template_empty";
export const DEMO_TEMPLATE = "template_demo";

/** A cluster for one run of the tests, thrown away with it; what killed runs left behind goes as well. */
export async function startTestCluster(): Promise<Cluster> {
  sweep();
  const folder = `${FOLDER}/${PREFIX}${process.pid}`;
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

function sweep(): void {
  if (!existsSync(FOLDER)) return;
  for (const name of readdirSync(FOLDER)) {
    const pid = name.startsWith(PREFIX) ? Number(name.slice(PREFIX.length)) : process.pid;
    if (pid !== process.pid && !existsSync(`/proc/${pid}`))
      rmSync(`${FOLDER}/${name}`, { recursive: true, force: true });
  }
}
