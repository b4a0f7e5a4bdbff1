import { type ChildProcess, fork } from "node:child_process";
import { randomInt } from "node:crypto";
import type { Server } from "node:http";
import { type AddressInfo, createServer, type Socket } from "node:net";
import { fileURLToPath } from "node:url";
import type { Logger } from "pino";
import { processEnvironment } from "./config";

const WEB = fileURLToPath(new URL("./web.js", import.meta.url));
const AGAIN_MS = 1_000;
// Of so many connections this process has so many, and each of the others so many: it takes mail in and learns besides.
const OWN_SHARE = 2;
const OTHER_SHARE = 3;

/** What a web process says once it can be given connections, and what it is told with each. */
export const READY = "ready";
export const CONNECTION = "connection";

/** A port whose connections several processes share. */
export type SharedPort = { readonly port: number; readonly close: () => Promise<void> };

/**
 * Listens on a port and gives each connection to one of the web processes: `own` in this one, and as many others as are
 * asked for, which are started beside it and started anew when they end. `generation` is what all of them begin with.
 */
export async function sharePort(
  { host, port: wanted, others, generation }: { host: string; port: number; others: number; generation: string },
  own: Server,
  log: Pick<Logger, "warn">,
): Promise<SharedPort> {
  const ready = new Set<ChildProcess>();
  const all = new Set<ChildProcess>();
  let isStopping = false;
  const start = (begins: string) => {
    const { port } = server.address() as AddressInfo;
    const child = fork(WEB, { env: { ...processEnvironment(), HTTP_PORT: String(port), WEB_GENERATION: begins } });
    all.add(child);
    child.on("message", (said) => {
      if (said === READY) ready.add(child);
    });
    // What it was given and did not take is lost with it.
    child.on("error", (problem) => log.warn(problem, "a web process"));
    child.on("exit", (code, signal) => {
      ready.delete(child);
      all.delete(child);
      if (isStopping) return;
      log.warn({ code, signal }, "a web process ended; another is started");
      // It has not heard what the others have, so that what it says of its state must be of its own.
      setTimeout(() => isStopping || start(""), AGAIN_MS).unref();
    });
  };
  const server = createServer({ pauseOnConnect: true, noDelay: true }, (socket) => {
    // Not by turns: a browser opens its connections in the same order each time, so that one process would have all the
    // pages and another all the lines that wait.
    const drawn = randomInt(OWN_SHARE + ready.size * OTHER_SHARE) - OWN_SHARE;
    const child = [...ready][Math.floor(drawn / OTHER_SHARE)];
    if (child === undefined) takeConnection(own, socket);
    else child.send(CONNECTION, socket, { keepOpen: false }, (problem) => problem !== null && socket.destroy());
  });
  await new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    server.listen(wanted, host, resolve);
  });
  for (let at = 0; at < others; at += 1) start(generation);
  return {
    port: (server.address() as AddressInfo).port,
    async close() {
      isStopping = true;
      const ended = [...all].map((child) => new Promise((resolve) => child.once("exit", resolve)));
      for (const child of all) child.kill("SIGTERM");
      const closed = new Promise<void>((resolve) => server.close(() => resolve()));
      await Promise.all([...ended, closed]);
    },
  };
}

/** Has a web server answer a connection that somebody else accepted. */
export function takeConnection(server: Server, socket: Socket): void {
  server.emit("connection", socket);
  socket.resume();
}
