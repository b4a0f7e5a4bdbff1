import { randomInt } from "node:crypto";
import { Resolver } from "node:dns/promises";
import { readFileSync } from "node:fs";
import type { Logger } from "pino";
import type { KeyLookup } from "../core/ports";
import { jobRunner } from "../jobs/run-jobs";
import { listenForMail, type MailAcceptance, oneClickLeaver, smtpTransport } from "../mail/index";
import { knowsAddress, receiveMessage } from "../operations/index.server";
import { type Heard, listenForChanges, startWorkers } from "../storage/index";
import type { Clock } from "./clock";
import { type Config, processEnvironment } from "./config";
import { startHttpServer } from "./http-server";
import { liveHub } from "./live-hub";
import { followSources } from "./mail-sources";
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

/** Starts the three processes (web, post, worker) in this one. Stopping finishes what is in hand and refuses what is new. */
export async function serve(
  config: Config,
  log: Logger,
  given: { readonly keys?: KeyLookup; readonly clock?: Clock } = {},
): Promise<Serving> {
  const transport = smtpTransport(config.mailOut);
  const { sending } = config;
  const trust = {
    authservIds: config.trust.authservIds,
    keys: config.trust.checksDkim ? (given.keys ?? lookUpKeys) : null,
  };
  const hub = liveHub();
  const { deps, close } = wire(
    {
      ...(given.clock === undefined ? {} : { clock: given.clock }),
      onTimePassed: () => goByTheClock().then(afterGap),
      databaseUrl: config.databaseUrl,
      demo: config.demo,
      mail: transport,
      lists: oneClickLeaver(config.oneClickVia),
      trust,
      sending,
      sessions: config.sessions,
      accessLogKeptMs: config.accessLogKeptMs,
    },
    log,
  );
  const afterGap = () => {
    deps.memory.forgetAll();
    hub.spreadGap();
  };
  const process = randomInt(2 ** 31);
  const jobs = jobRunner(deps, process);
  // What the clock alone brings about.
  async function goByTheClock(): Promise<void> {
    const kinds = ["wake-rested", "empty-bins", "tell-by-clock", "resume-work"] as const;
    const done = await Promise.allSettled(kinds.map((kind) => jobs.run({ kind }, { number: 1, last: true })));
    for (const one of done) if (one.status === "rejected") log.error(one.reason);
  }
  const missed = (problem: unknown) => {
    log.warn(problem, "live changes may have been missed");
    afterGap();
  };
  const heard: Heard = {
    change(change) {
      deps.memory.hear({ ...change, isAnything: change.conversationIds === null });
      hub.spread(change);
    },
    access(memberId) {
      deps.memory.hearOfAccess();
      hub.lookAgain(memberId);
    },
    gap: missed,
  };
  const channel = await listenForChanges(config.databaseUrl, heard, process);
  const workers = await startWorkers(deps.db, jobs.run, (problem) => log.error(problem, "a worker has a problem"));
  const waking = setInterval(goByTheClock, WAKE_EVERY_MS);
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
  const http = await startHttpServer(config.http, deps, hub, log);
  return {
    httpPort: http.port,
    mailPort: post.port,
    lmtpPort: lmtp?.port ?? null,
    async stop() {
      clearInterval(waking);
      hub.end();
      await Promise.all([http.close(), post.close(), lmtp?.close(), workers.stop(), sources.stop()]);
      await jobs.stop();
      await channel.close();
      transport.close();
      await close();
    },
  };
}
