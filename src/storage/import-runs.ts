import type { MemberId, TrayId } from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { at, atOrNull, param } from "./rows";
import type { Tray, TrayGrant } from "./trays";

export type ImportState = "receiving" | "waiting" | "running" | "done" | "cancelled" | "failed";

/** An import from the interface: what of, how far it is, what it found. */
export type ImportRun = {
  readonly id: string;
  readonly fileName: string;
  readonly asHistory: boolean;
  readonly state: ImportState;
  readonly bytes: number;
  readonly bytesRead: number;
  readonly messages: number;
  readonly added: number;
  readonly knownAlready: number;
  readonly flagged: number;
  readonly problem: string | null;
  readonly createdAt: Instant;
  readonly endedAt: Instant | null;
};

/** Notes an import whose file is about to be received. */
export async function startImportRun(
  db: Database,
  run: { id: string; trayId: TrayId; by: MemberId; fileName: string; asHistory: boolean; createdAt: Instant },
): Promise<void> {
  await knexOf(db)("import_run").insert({
    ...{ id: run.id, tray_id: run.trayId, by_member_id: run.by, file_name: run.fileName, as_history: run.asHistory },
    ...{ state: "receiving", bytes: 0, bytes_read: 0, messages: 0, added: 0, known_already: 0, flagged: 0 },
    created_at: param(run.createdAt),
  });
}

/** Keeps a piece of the file. */
export async function keepImportChunk(db: Database, id: string, position: number, content: Uint8Array): Promise<void> {
  await knexOf(db)("import_chunk").insert({ import_id: id, position, content: Buffer.from(content) });
}

/** The pieces of the file in order. */
export async function* importChunks(db: Database, id: string): AsyncGenerator<Uint8Array> {
  for (let position = 0; ; position += 1) {
    const row = await knexOf(db)("import_chunk").first("content").where({ import_id: id, position });
    if (row === undefined) return;
    yield row.content;
  }
}

/** Changes how an import stands; gives whether it still stood in one of the states it is expected in. */
export async function setImportState(
  db: Database,
  id: string,
  expected: readonly ImportState[],
  change: { state: ImportState; bytes?: number; problem?: string | null; endedAt?: Instant },
): Promise<boolean> {
  const changed = await knexOf(db)("import_run")
    .where({ id })
    .whereIn("state", expected)
    .update({
      state: change.state,
      ...(change.bytes === undefined ? {} : { bytes: change.bytes }),
      ...(change.problem === undefined ? {} : { problem: change.problem }),
      ...(change.endedAt === undefined ? {} : { ended_at: param(change.endedAt) }),
    });
  return changed > 0;
}

/** Keeps how far an import is; false when it is not to go on. */
export async function keepImportProgress(
  db: Database,
  id: string,
  counts: Pick<ImportRun, "bytesRead" | "messages" | "added" | "knownAlready" | "flagged">,
  now: Instant,
): Promise<boolean> {
  const changed = await knexOf(db)("import_run")
    .where({ id, state: "running" })
    .update({
      bytes_read: counts.bytesRead,
      messages: counts.messages,
      added: counts.added,
      known_already: counts.knownAlready,
      flagged: counts.flagged,
      progress_at: param(now),
    });
  return changed > 0;
}

/** Throws the file away; what was imported stays. */
export async function dropImportFile(db: Database, id: string): Promise<void> {
  await knexOf(db)("import_chunk").where({ import_id: id }).delete();
}

/** The newest imports of a tray. */
export async function importRunsOf(db: Database, grant: TrayGrant, limit: number): Promise<ImportRun[]> {
  const rows = await knexOf(db)("import_run")
    .where({ tray_id: grant.tray.id })
    .orderBy("created_at", "desc")
    .limit(limit);
  return rows.map((row) => ({
    id: row.id,
    fileName: row.file_name,
    asHistory: row.as_history,
    state: row.state,
    bytes: Number(row.bytes),
    bytesRead: Number(row.bytes_read),
    messages: row.messages,
    added: row.added,
    knownAlready: row.known_already,
    flagged: row.flagged,
    problem: row.problem,
    createdAt: at(row.created_at),
    endedAt: atOrNull(row.ended_at),
  }));
}

/** What an import needs to run: its tray and whether it is the past; null when there is none of this id. */
export async function importOrder(
  db: Database,
  trays: readonly Tray[],
  id: string,
): Promise<{ readonly tray: Tray; readonly asHistory: boolean } | null> {
  const row = await knexOf(db)("import_run").first("tray_id", "as_history").where({ id });
  const tray = trays.find((one) => one.id === row?.tray_id);
  return row === undefined || tray === undefined ? null : { tray, asHistory: row.as_history };
}

/** Imports that a process left behind when it was killed: running, and not a step since before a moment. */
export async function strandedImports(db: Database, before: Instant): Promise<string[]> {
  return knexOf(db)("import_run")
    .where({ state: "running" })
    .where((either) =>
      either
        .where("progress_at", "<", param(before))
        .orWhere((never) => never.whereNull("progress_at").where("created_at", "<", param(before))),
    )
    .pluck("id");
}
