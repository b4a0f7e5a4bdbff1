import type { Logger } from "pino";
import { handleJob } from "../jobs/handle-job";
import { listenForMail, smtpTransport } from "../mail/index";
import { knowsAddress, receiveMessage } from "../operations/index.server";
import { listenForChanges, startWorkers } from "../storage/index";
import type { Config } from "./config";
import { startHttpServer } from "./http-server";
import { liveHub } from "./live-hub";
import { wire } from "./wiring";

/** A server that runs: where it listens, and how to stop it. */
export type Serving = { readonly httpPort: number; readonly mailPort: number; readonly stop: () => Promise<void> };

const WAKE_EVERY_MS = 20_000;

/** Starts the three processes (web, post, worker) in this one. Stopping finishes what is in hand and refuses what is new. */
export async function serve(config: Config, log: Logger): Promise<Serving> {
  const transport = smtpTransport(config.mailOut);
  const { deps, close } = wire({ databaseUrl: config.databaseUrl, demo: config.demo, mail: transport }, log);
  const hub = liveHub();
  const channel = await listenForChanges(config.databaseUrl, hub.spread, (problem) => {
    log.warn(problem, "live changes may have been missed");
    hub.spreadGap();
  });
  const workers = await startWorkers(
    deps.db,
    (job, attempt) => handleJob(deps, job, attempt),
    (problem) => log.error(problem, "a worker has a problem"),
  );
  const waking = setInterval(() => {
    handleJob(deps, { kind: "wake-rested" }, { number: 1, last: true }).catch((problem) => log.error(problem));
  }, WAKE_EVERY_MS);
  const post = await listenForMail(config.mailIn, {
    knows: (address) => knowsAddress(deps, address),
    accept: async (mail) => void (await receiveMessage(deps, mail)),
    onProblem: (problem) => log.warn(problem, "mail in"),
  });
  const http = await startHttpServer(config.http, deps, hub, log);
  return {
    httpPort: http.port,
    mailPort: post.port,
    async stop() {
      clearInterval(waking);
      hub.end();
      await Promise.all([http.close(), post.close(), workers.stop()]);
      await channel.close();
      transport.close();
      await close();
    },
  };
}
