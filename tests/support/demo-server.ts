import { Client } from "pg";
import { afterAll, beforeAll, inject } from "vitest";
import { cloneDatabase } from "./clones";
import { type RawClient, rawClient } from "./raw-client";
import { type ServerProcess, startServerProcess } from "./server-process";
import { DEMO_TEMPLATE } from "./test-cluster";

/** The application with the made-up world in a process of its own, and Ines signed in to it. */
export type DemoServer = { readonly server: ServerProcess; readonly client: RawClient; readonly db: Client };

/** Starts one before the tests of a file and ends it after them. */
export function demoServer(environment: Readonly<Record<string, string>> = {}): () => DemoServer {
  let running: DemoServer | undefined;
  let drop = async () => {};
  beforeAll(async () => {
    const database = await cloneDatabase(inject("clusterPort"), DEMO_TEMPLATE);
    drop = database.drop;
    const db = new Client({ connectionString: database.url });
    await db.connect();
    const server = await startServerProcess({ DATABASE_URL: database.url, DEMO: "true", ...environment });
    const client = rawClient(server.httpPort);
    await client.comeIn("ines");
    running = { server, client, db };
  });
  afterAll(async () => {
    running?.client.close();
    await running?.server.stop();
    await running?.db.end();
    await drop();
  });
  return () => {
    if (running === undefined) throw new Error("the tests of this file have not begun");
    return running;
  };
}
