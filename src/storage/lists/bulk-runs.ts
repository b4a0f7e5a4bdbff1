import type { Decision } from "../../core/deciding/decision";
import {
  type BatchId,
  type ConversationId,
  type MemberId,
  type RunId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Rule } from "../../core/rules/rule";
import type { TrayGrant } from "../access/trays";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { runPrepared } from "../base/prepared";
import { at, atOrNull, param } from "../base/rows";
import type { ToUndo } from "../facts/journal";

/** What a run does to each of its conversations. */
export type BulkWork =
  | { readonly kind: "decide"; readonly decision: Decision }
  | ({ readonly kind: "undo" } & ToUndo)
  /** What a rule does, as it was when the run began. */
  | { readonly kind: "rule"; readonly rule: Rule }
  /** What follows from the mail, the decisions and the tray's hours is worked out again. */
  | { readonly kind: "compute-anew" };

type BulkState = "waiting" | "running" | "done" | "cancelled" | "failed";

/** A decision about so many conversations that it is carried out in the background. */
export type BulkRun = {
  readonly id: RunId;
  readonly trayId: TrayId;
  readonly byMemberId: MemberId;
  readonly batchId: BatchId;
  readonly work: BulkWork;
  /** What was decided, as the member was told. */
  readonly words: string;
  readonly state: BulkState;
  readonly total: number;
  /** How many have been gone through, and how many of them were changed by it. */
  readonly position: number;
  readonly changed: number;
  readonly problem: string | null;
  readonly createdAt: Instant;
  readonly endedAt: Instant | null;
};

type RunRow = {
  id: string;
  tray_id: string;
  by_member_id: string;
  batch_id: string;
  work: BulkWork;
  words: string;
  state: BulkState;
  total: number;
  position: number;
  changed: number;
  problem: string | null;
  created_at: Date;
  ended_at: Date | null;
};

const COLUMNS = [
  "id",
  "tray_id",
  "by_member_id",
  "batch_id",
  "work",
  "words",
  "state",
  "position",
  "changed",
  "problem",
  "created_at",
  "ended_at",
];

function runOf(row: RunRow): BulkRun {
  return {
    id: trustedId<RunId>(row.id),
    trayId: trustedId<TrayId>(row.tray_id),
    byMemberId: trustedId<MemberId>(row.by_member_id),
    batchId: trustedId<BatchId>(row.batch_id),
    work: row.work,
    words: row.words,
    state: row.state,
    total: row.total,
    position: row.position,
    changed: row.changed,
    problem: row.problem,
    createdAt: at(row.created_at),
    endedAt: atOrNull(row.ended_at),
  };
}

const TOTAL = "cardinality(ids) as total";

/** Keeps a run that is to be carried out. */
export async function addBulkRun(
  trx: Transaction,
  run: Pick<BulkRun, "id" | "trayId" | "byMemberId" | "batchId" | "work" | "words" | "createdAt">,
  ids: readonly ConversationId[],
): Promise<void> {
  await knexOf(trx)("bulk_run").insert({
    id: run.id,
    tray_id: run.trayId,
    by_member_id: run.byMemberId,
    batch_id: run.batchId,
    work: JSON.stringify(run.work),
    words: run.words,
    state: "waiting",
    ids: [...ids],
    position: 0,
    changed: 0,
    created_at: param(run.createdAt),
  });
}

/** A run held for its next step, with the conversations of that step; null when there is none of this id. */
export async function lockBulkRun(
  trx: Transaction,
  id: RunId,
  step: number,
): Promise<{ run: BulkRun; next: ConversationId[] } | null> {
  const builder = knexOf(trx);
  const row = await builder("bulk_run")
    .first(...COLUMNS, builder.raw(TOTAL), builder.raw("ids[position + 1 : position + ?] as next", [step]))
    .where("id", id)
    .forUpdate();
  if (row === undefined) return null;
  return { run: runOf(row), next: row.next.map((one: string) => trustedId<ConversationId>(one)) };
}

/** Notes how far a run has come, or how it ended. */
export async function noteBulkProgress(
  trx: Database,
  id: RunId,
  progress: Partial<Pick<BulkRun, "state" | "position" | "changed" | "problem" | "endedAt">>,
  now: Instant,
): Promise<void> {
  const { endedAt, ...rest } = progress;
  await knexOf(trx)("bulk_run")
    .update({ ...rest, progress_at: param(now), ...(endedAt === undefined ? {} : { ended_at: param(endedAt) }) })
    .where("id", id);
}

/** Stops a run where it is; false when it has ended already. Whoever may decide in the tray may stop it. */
export async function cancelBulkRun(db: Database, grant: TrayGrant, id: RunId, now: Instant): Promise<boolean> {
  const changed = await knexOf(db)("bulk_run")
    .update({ state: "cancelled", ended_at: param(now) })
    .where({ id, tray_id: grant.tray.id })
    .whereIn("state", ["waiting", "running"]);
  return changed > 0;
}

const MAX_SHOWN = 5;

/** The viewer's runs in a tray that are under way or ended since a moment, the newest first. */
export async function bulkRunsOf(db: Database, grant: TrayGrant, since: Instant): Promise<BulkRun[]> {
  const rows = await runPrepared<RunRow>(
    db,
    /* sql */ `
    select ${COLUMNS.join(", ")}, ${TOTAL} from bulk_run
    where tray_id = :trayId and by_member_id = :memberId and (ended_at is null or ended_at > :since)
    order by created_at desc limit ${MAX_SHOWN}`,
    { trayId: grant.tray.id, memberId: grant.memberId, since: param(since) },
  );
  return rows.map(runOf);
}

/** Runs that nobody has worked on since a moment and that have not ended: a killed process left them behind. */
export async function strandedBulkRuns(db: Database, since: Instant): Promise<RunId[]> {
  const rows: { id: string }[] = await knexOf(db)("bulk_run")
    .select("id")
    .whereIn("state", ["waiting", "running"])
    .whereRaw("coalesce(progress_at, created_at) < ?", [param(since) as Date]);
  return rows.map(({ id }) => trustedId<RunId>(id));
}
