import { randomBytes } from "node:crypto";
import { setTimeout as pause } from "node:timers/promises";
import type { Logger } from "pino";
import { v7 as uuid } from "uuid";
import type { TrayId } from "../core/kernel/ids";
import { DAY } from "../core/kernel/instant";
import type { ListLeaver, MailTransport, SendingSettings, TrustSettings } from "../core/ports";
import { type Aside, workAside } from "../mail/index";
import { type Deps, trayMemory } from "../operations/index.server";
import type { SessionLimits } from "../storage/access/index";
import { openDatabase } from "../storage/base/index";
import { changePublisher, jobQueue } from "../storage/queue/index";
import { writingTexts } from "../texts/en/writing";
import { saidOf } from "../texts/said";
import { type Clock, clock } from "./clock";

/** The dependencies of the operations over one database, and how to let go of them. */
export type Wired = { readonly deps: Deps; readonly close: () => Promise<void> };

const TOKEN_BYTES = 32;
const NO_MAIL: MailTransport = {
  handOver: async () => ({ kind: "not-now", reason: "this process sends no mail" }),
};

const NO_REQUESTS: ListLeaver = {
  leave: async () => ({ kind: "not-now", reason: saidOf(writingTexts)("writing.thisProcessAsksNobody") }),
};

/** Puts the rooms together: the clock, the ids, the database and the ways out. */
export function wire(
  options: {
    databaseUrl: string;
    demo: boolean;
    poolSize?: number;
    mail?: MailTransport;
    lists?: ListLeaver;
    trust?: TrustSettings;
    sending?: SendingSettings;
    sessions?: SessionLimits;
    accessLogKeptMs?: number;
    clock?: Clock;
    /** Threads that several share; whoever gives them lets go of them. */
    aside?: Aside;
    /** Hears that counts of a tray were given that are others by now, and in how many milliseconds they can be had. */
    onBehind?: (trayId: TrayId, ms: number) => void;
    /** What else happens when the demo's clock is put ahead. */
    onTimePassed?: () => void;
  },
  log: Pick<Logger, "error">,
): Wired {
  const { db, close } = openDatabase(options.databaseUrl, options.poolSize);
  const time = options.clock ?? clock();
  const aside = options.aside ?? workAside();
  const memory = trayMemory(time.now, options.onBehind ?? null);
  const publisher = changePublisher(db, (problem) => log.error(problem, "could not tell of a change"));
  return {
    deps: {
      db,
      now: time.now,
      newId: () => uuid(),
      newToken: () => randomBytes(TOKEN_BYTES).toString("base64url"),
      mail: options.mail ?? NO_MAIL,
      lists: options.lists ?? NO_REQUESTS,
      jobs: jobQueue(db, time.onTheMachine),
      // Whoever is answered after a change and asks here is shown what is, before the database has told of it.
      publishChange(change) {
        memory.hear({ ...change, isAnything: change.conversationId === null });
        publisher.publish(change);
      },
      publishAccess(memberId) {
        memory.hearOfAccess();
        publisher.publishAccess(memberId);
      },
      memory,
      pause: (ms) => (ms === 0 ? Promise.resolve() : pause(ms)),
      sessions: options.sessions ?? { longestMs: 14 * DAY, idleMs: 3 * DAY },
      accessLogKeptMs: options.accessLogKeptMs ?? 180 * DAY,
      from: { address: "", device: "" },
      chosen: null,
      aside,
      directory: { last: null, reading: null },
      trust: options.trust ?? { authservIds: [], keys: null },
      sending: options.sending ?? {
        holdMs: 0,
        aMinute: Number.POSITIVE_INFINITY,
        perDomainAMinute: Number.POSITIVE_INFINITY,
      },
      demo: options.demo,
      passTime: options.demo
        ? (ms) => {
            time.putAhead(ms);
            options.onTimePassed?.();
          }
        : null,
    },
    async close() {
      await publisher.flush();
      if (options.aside === undefined) await aside.close();
      await close();
    },
  };
}
