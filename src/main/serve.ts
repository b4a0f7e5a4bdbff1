import { randomInt, randomUUID } from "node:crypto";
import { Resolver } from "node:dns/promises";
import { readFileSync } from "node:fs";
import { availableParallelism } from "node:os";
import type { Logger } from "pino";
import type { KeyLookup, MailTransport } from "../core/ports";
import { jobRunner } from "../jobs/run-jobs";
import { startLearning } from "../jobs/start-learning";
import { listenForMail, type MailAcceptance, oneClickLeaver, smtpTransport } from "../mail/index";
import { type Deps, knowsAddress, receiveMessage } from "../operations/index.server";
import { type Heard, listenForChanges, startWorkers, type Workers } from "../storage/queue/index";
import type { Clock } from "./clock";
import { type Config, processEnvironment } from "./config";
import { type HttpServer, startHttpServer } from "./http-server";
import { liveHub } from "./live-hub";
import { followSources } from "./mail-sources";
import { type SharedPort, sharePort } from "./web-processes";
import { wire } from "./wiring";

/** A server that runs: where it listens, and how to stop it. */
export type Serving = {
  readonly httpPort: number;
  readonly mailPort: number;
  readonly lmtpPort: number | null;
  readonly stop: () => Promise<void>;
};

const LOOK_UP_TIMEOUT_MS = 2_000;

// A name server that is silent must not keep a sender waiting.
const resolver = new Resolver({ timeout: LOOK_UP_TIMEOUT_MS, tries: 1 });
const lookUpKeys: KeyLookup = (name) => resolver.resolveTxt(name);

function certificateOf(files: { cert: string; key: string }): { cert: string; key: string } {
  return { cert: readFileSync(files.cert, "utf8"), key: readFileSync(files.key, "utf8") };
}

const WAKE_EVERY_MS = 20_000;
const POOL = 10;
// PostgreSQL lets in a hundred as it comes.
const CONNECTIONS_IN_ALL = 64;

type Given = { readonly keys?: KeyLookup; readonly clock?: Clock };

/** What every process has that answers browsers: the rooms put together, and what is heard of changes. */
async function startHearing(
  config: Config,
  log: Logger,
  processNumber: number,
  {
    generation,
    onTimePassed,
    onJob,
    poolSize,
    ...given
  }: Given & {
    readonly generation?: string | undefined;
    readonly onTimePassed?: () => Promise<void>;
    readonly onJob?: Heard["job"];
    readonly poolSize: number;
    readonly mail?: MailTransport;
  },
) {
  const hub = liveHub(generation === "" ? undefined : generation);
  const afterGap = () => {
    wired.deps.memory.forgetAll();
    hub.spreadGap();
  };
  const wired = wire(
    {
      ...given,
      onBehind: hub.askForCounts,
      ...(onTimePassed === undefined ? {} : { onTimePassed: () => onTimePassed().then(afterGap) }),
      databaseUrl: config.databaseUrl,
      demo: config.demo,
      poolSize,
      lists: oneClickLeaver(config.oneClickVia),
      trust: {
        authservIds: config.trust.authservIds,
        keys: config.trust.checksDkim ? (given.keys ?? lookUpKeys) : null,
      },
      sending: config.sending,
      sessions: config.sessions,
      accessLogKeptMs: config.accessLogKeptMs,
    },
    log,
  );
  const { memory } = wired.deps;
  const heard: Partial<Heard> = {
    change(change) {
      memory.hear({ ...change, isAnything: change.conversationIds === null });
      hub.spread(change);
    },
    access(memberId) {
      memory.hearOfAccess();
      hub.lookAgain(memberId);
    },
    ...(onJob === undefined ? {} : { job: onJob }),
    gap(problem) {
      log.warn(problem, "live changes may have been missed");
      afterGap();
    },
  };
  return { ...wired, hub, channel: await listenForChanges(config.databaseUrl, heard, processNumber) };
}

/** Answers browsers in a process that does nothing else; others give it their connections. */
export async function serveWeb(
  config: Config,
  log: Logger,
  generation: string | undefined,
): Promise<{ readonly server: HttpServer["server"]; readonly stop: () => Promise<void> }> {
  const poolSize = poolSizeOf(processesOf(config));
  const { deps, close, hub, channel } = await startHearing(config, log, randomInt(2 ** 31), { generation, poolSize });
  const http = await startHttpServer(config.http, deps, hub, log, () => config.http.port);
  return {
    server: http.server,
    async stop() {
      hub.end();
      await http.close();
      await channel.close();
      await close();
    },
  };
}

// Where the clock can be put ahead, it is one process that has it.
const processesOf = ({ demo, http }: Config) => (demo ? 1 : (http.processes ?? availableParallelism()));

const poolSizeOf = (processes: number) => Math.max(4, Math.min(POOL, Math.floor(CONNECTIONS_IN_ALL / processes)));

/** Starts what there is: web, in as many processes as are asked for, post and worker. Stopping finishes what is in hand and refuses what is new. */
export async function serve(config: Config, log: Logger, given: Given = {}): Promise<Serving> {
  const transport = smtpTransport(config.mailOut);
  const processNumber = randomInt(2 ** 31);
  const processes = processesOf(config);
  const generation = randomUUID();
  let workers: Workers | null = null;
  // What the clock alone brings about.
  async function goByTheClock(): Promise<void> {
    const kinds = ["wake-rested", "empty-bins", "tell-by-clock", "resume-work"] as const;
    const done = await Promise.allSettled(kinds.map((kind) => jobs.run({ kind }, { number: 1, last: true })));
    for (const one of done) if (one.status === "rejected") log.error(one.reason);
  }
  const { deps, close, hub, channel } = await startHearing(config, log, processNumber, {
    ...given,
    generation,
    onTimePassed: goByTheClock,
    onJob: (kind, inMs) => workers?.look(kind, inMs),
    poolSize: POOL,
    mail: transport,
  });
  const jobs = jobRunner(deps, processNumber);
  workers = await startWorkers(deps.db, jobs.run, (problem) => log.error(problem, "a worker has a problem"));
  const waking = setInterval(goByTheClock, WAKE_EVERY_MS);
  const learning = startLearning(deps, (problem) => log.error(problem, "learning from decisions"));
  const acceptance: MailAcceptance = {
    knows: (address) => knowsAddress(deps, address),
    accept: async (mail) => void (await receiveMessage(deps, mail)),
    onProblem: (problem) => log.warn(problem, "mail in"),
  };
  const { lmtpPort, tls, ...mailIn } = config.mailIn;
  const listening = { ...mailIn, tls: tls === null ? null : certificateOf(tls) };
  const post = await listenForMail(listening, acceptance);
  const lmtp =
    lmtpPort === null ? null : await listenForMail({ ...listening, port: lmtpPort, protocol: "lmtp" }, acceptance);
  const sources = followSources(deps, processEnvironment(), log);
  const web = await startWeb(config, processes, generation, { deps, hub, log });
  return {
    httpPort: web.port,
    mailPort: post.port,
    lmtpPort: lmtp?.port ?? null,
    async stop() {
      clearInterval(waking);
      await learning.stop();
      hub.end();
      await Promise.all([web.close(), post.close(), lmtp?.close(), workers?.stop(), sources.stop()]);
      await jobs.stop();
      await channel.close();
      transport.close();
      await close();
    },
  };
}

async function startWeb(
  config: Config,
  processes: number,
  generation: string,
  { deps, hub, log }: { readonly deps: Deps; readonly hub: ReturnType<typeof liveHub>; readonly log: Logger },
): Promise<SharedPort> {
  if (processes === 1) return startHttpServer(config.http, deps, hub, log);
  let port = config.http.port;
  const http = await startHttpServer(config.http, deps, hub, log, () => port);
  const shared = await sharePort({ ...config.http, others: processes - 1, generation }, http.server, log);
  port = shared.port;
  return {
    port,
    async close() {
      await Promise.all([shared.close(), http.close()]);
    },
  };
}
