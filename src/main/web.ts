import type { Socket } from "node:net";
import pino from "pino";
import { processEnvironment, readConfig } from "./config";
import { serveWeb } from "./serve";
import { stopOnSignal } from "./stop-on-signal";
import { CONNECTION, READY, takeConnection } from "./web-processes";

// A process that answers browsers and nothing else, started by `start` with its own environment.

const environment = processEnvironment();
const config = readConfig(environment);
if (!config.ok) throw new Error(config.error.join("\n"));
const log = pino({ level: config.value.logLevel });
const serving = await serveWeb(config.value, log, environment.WEB_GENERATION);
stopOnSignal(serving.stop);
// Without whoever gives it connections it is of no use.
process.once("disconnect", () => process.kill(process.pid, "SIGTERM"));
process.on("message", (said, socket) => {
  // One that ended on the way is none.
  if (said === CONNECTION && socket !== undefined) takeConnection(serving.server, socket as Socket);
});
process.send?.(READY);
