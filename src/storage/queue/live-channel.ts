import { randomUUID } from "node:crypto";
import { Client } from "pg";
import { type ConversationId, type MemberId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Change, JobKind } from "../../core/ports";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";

/** The first key of the advisory lock that each living process holds; the second is its number. */
export const PROCESS_LOCK = 20_261;

const CHANNEL = "common_tray_change";
// NOTIFY inside the transaction takes a lock that all committing transactions share and costs them their group commit,
// so changes are told after the commit, gathered for this long.
const GATHER_MS = 25;
// A notification carries at most 8,000 bytes; of more changes than these only the tray is named.
const MAX_NAMED = 100;
const RECONNECT_MS = 1_000;

/** Changes in one tray; `conversationIds` null means any of them. */
export type TrayChange = {
  /** Another one for every change, the same in every process. */
  readonly id: string;
  readonly trayId: TrayId;
  readonly conversationIds: readonly ConversationId[] | null;
  /** Given when nothing else changed than who has them open. */
  readonly only?: "presence";
};

/** Tells every process what changed, some milliseconds later and many at once. */
export function changePublisher(
  db: Database,
  onProblem: (problem: unknown) => void,
): { publish: (change: Change) => void; publishAccess: (memberId: MemberId) => void; flush: () => Promise<void> } {
  const gathered = new Map<string, { change: Change; ids: Set<ConversationId | null> }>();
  let timer: NodeJS.Timeout | null = null;
  const flush = async () => {
    if (timer !== null) clearTimeout(timer);
    timer = null;
    const payloads = [...gathered.values()].map(({ change: { trayId, only }, ids }) => {
      const conversationIds = ids.size > MAX_NAMED || ids.has(null) ? null : [...ids];
      return JSON.stringify({ id: randomUUID(), trayId, conversationIds, only });
    });
    gathered.clear();
    if (payloads.length === 0) return;
    await knexOf(db)
      .raw("select pg_notify(?, payload) from unnest(?::text[]) as payload", [CHANNEL, payloads])
      .catch(onProblem);
  };
  return {
    publish(change) {
      const key = `${change.trayId} ${change.only ?? ""}`;
      const { ids } = gathered.get(key) ?? { ids: new Set() };
      gathered.set(key, { change, ids: ids.add(change.conversationId) });
      timer ??= setTimeout(flush, GATHER_MS);
    },
    publishAccess(memberId) {
      const payload = JSON.stringify({ memberId });
      void knexOf(db)
        .raw("select pg_notify(?, ?)", [CHANNEL, payload])
        .then(() => {}, onProblem);
    },
    flush,
  };
}

/** Tells that a job was handed in, with the commit of its transaction; there are far fewer of these than of changes. */
export async function announceJob(trx: Database, kind: JobKind, startAfter: Date | null): Promise<void> {
  // How long it has to wait is said by the clock that the queue goes by.
  const inMs = "greatest(0, ceil(extract(epoch from coalesce(?::timestamptz, now()) - clock_timestamp()) * 1000))";
  await knexOf(trx).raw(`select pg_notify(?, json_build_object('job', ?::text, 'inMs', ${inMs})::text)`, [
    CHANNEL,
    kind,
    startAfter,
  ]);
}

/**
 * What is heard: a change in a tray; that a member's rights or sessions are others; that a job was handed in, and in how
 * many milliseconds it may begin; that something may have been missed.
 */
export type Heard = {
  readonly change: (change: TrayChange) => void;
  readonly access: (memberId: MemberId) => void;
  readonly job: (kind: JobKind, inMs: number) => void;
  readonly gap: (problem: unknown) => void;
};

/**
 * Hears what any process told, over one connection of its own, which is made anew when it breaks. As long as the connection stands, this process is one that lives (`livingProcesses`).
 */
export async function listenForChanges(
  url: string,
  heard: Partial<Heard>,
  processNumber: number,
): Promise<{ close: () => Promise<void> }> {
  let client: Client | null = null;
  let closed = false;
  const connect = async (): Promise<void> => {
    const next = new Client({ connectionString: url, application_name: "common-tray-live" });
    const broken = (problem: unknown) => {
      if (closed || client !== next) return;
      client = null;
      heard.gap?.(problem);
      setTimeout(() => void connect().catch(broken), RECONNECT_MS).unref();
    };
    client = next;
    next.on("error", broken);
    next.on("end", () => broken(new Error("the connection for live changes ended")));
    next.on("notification", ({ payload }) => {
      hearPayload(payload ?? "", heard);
    });
    await next.connect();
    await next.query(`listen ${CHANNEL}`);
    await next.query("select pg_advisory_lock($1, $2)", [PROCESS_LOCK, processNumber]);
  };
  await connect();
  return {
    async close() {
      closed = true;
      await client?.end();
    },
  };
}

type Said = {
  readonly id: string;
  readonly trayId: string;
  readonly memberId?: string;
  readonly job?: JobKind;
  readonly inMs?: number;
  readonly conversationIds: ConversationId[] | null;
  readonly only?: string;
};

function hearPayload(payload: string, heard: Partial<Heard>): void {
  let said: Said;
  try {
    said = JSON.parse(payload);
  } catch {
    // Another program on the same channel; nothing of ours can be in it.
    return;
  }
  if (said.memberId !== undefined) {
    heard.access?.(trustedId<MemberId>(said.memberId));
    return;
  }
  if (said.job !== undefined) {
    heard.job?.(said.job, said.inMs ?? 0);
    return;
  }
  const change = { id: said.id, trayId: trustedId<TrayId>(said.trayId), conversationIds: said.conversationIds };
  heard.change?.(said.only === "presence" ? { ...change, only: said.only } : change);
}
