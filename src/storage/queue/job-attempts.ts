import type { MemberId, TrayId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { JobKind } from "../../core/ports";
import type { TrayGrant } from "../access/trays";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";
import { PROCESS_LOCK } from "./live-channel";

/** A job that was put aside after it took its process down twice. */
export type JobAside = {
  readonly id: string;
  readonly kind: JobKind;
  /** What it was about, in words. */
  readonly about: string;
  readonly byMemberId: MemberId | null;
  readonly at: Instant;
  /** Whether it waits for somebody to let it go on; what somebody asked for is asked for anew instead. */
  readonly waits: boolean;
};

/** How often a job was begun by a process that died before its end. */
export async function deathsOf(db: Database, key: string): Promise<number> {
  const builder = knexOf(db);
  const living = builder("pg_locks")
    .select(builder.raw("objid::bigint::int"))
    .where({ locktype: "advisory", classid: PROCESS_LOCK })
    .whereRaw("database = (select oid from pg_database where datname = current_database())");
  const [row] = await builder("job_attempt").where({ key }).whereNotIn("process", living).count("* as count");
  return Number(row?.count ?? 0);
}

/** Notes that a process begins a job. */
export async function noteAttempt(db: Database, key: string, process: number, now: Instant): Promise<void> {
  await knexOf(db)("job_attempt")
    .insert({ key, process, begun_at: param(now) })
    .onConflict(["key", "process"])
    .merge(["begun_at"]);
}

/** Forgets the attempts of a job that came to its end. */
export async function forgetAttempts(db: Database, key: string): Promise<void> {
  await knexOf(db)("job_attempt").where({ key }).delete();
}

/** Forgets what a process that stops in order has begun. */
export async function forgetAttemptsOf(db: Database, process: number): Promise<void> {
  await knexOf(db)("job_attempt").where({ process }).delete();
}

/** Forgets attempts of long ago: what they were about has been settled in another way. */
export async function forgetOldAttempts(db: Database, before: Instant): Promise<void> {
  await knexOf(db)("job_attempt").where("begun_at", "<", param(before)).delete();
}

/** Puts a job aside. One of a tray has a state of its own that says that it failed; one of no tray waits to be let go on. */
export async function putJobAside(
  trx: Transaction,
  job: {
    readonly id: string;
    readonly key: string;
    readonly kind: JobKind;
    readonly trayId: TrayId | null;
    readonly byMemberId: MemberId | null;
    readonly about: string;
  },
  now: Instant,
): Promise<void> {
  const { id, key, kind, trayId, byMemberId, about } = job;
  await forgetAttempts(trx, key);
  await knexOf(trx)("job_aside").insert({
    id,
    key,
    kind,
    tray_id: trayId,
    by_member_id: byMemberId,
    about,
    at: param(now),
    // One with a state of its own is kept from going on by that.
    let_go_at: trayId === null ? null : param(now),
  });
}

/** Whether a job waits for somebody to let it go on. */
export async function isPutAside(db: Database, key: string): Promise<boolean> {
  return (await knexOf(db)("job_aside").first("id").where({ key }).whereNull("let_go_at")) !== undefined;
}

/** What was put aside in a tray and in none, the newest first. */
export async function jobsAside(db: Database, grant: TrayGrant, limit: number): Promise<JobAside[]> {
  const rows = await knexOf(db)("job_aside")
    .select("id", "kind", "about", "by_member_id", "at", "let_go_at")
    .where((where) => void where.where("tray_id", grant.tray.id).orWhereNull("tray_id"))
    .orderBy([
      { column: "at", order: "desc" },
      { column: "id", order: "desc" },
    ])
    .limit(limit);
  return rows.map((row) => ({
    id: row.id,
    kind: row.kind,
    about: row.about,
    byMemberId: row.by_member_id,
    at: at(row.at),
    waits: row.let_go_at === null,
  }));
}

/** Lets a job go on that was put aside; false when it does not wait. */
export async function letJobGoOn(db: Database, grant: TrayGrant, id: string, now: Instant): Promise<boolean> {
  const letGo = { let_go_at: param(now), let_go_by: grant.memberId };
  return (await knexOf(db)("job_aside").where({ id }).whereNull("let_go_at").update(letGo)) === 1;
}
