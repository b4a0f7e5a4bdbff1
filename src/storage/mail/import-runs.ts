import { type MemberId, type RecordId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { SEEN } from "../access/record-access";
import type { Tray, TrayGrant } from "../access/trays";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, atOrNull, param } from "../base/rows";

/** How an import is taken: as mail of the past, as mail that comes now, or as a record that was taken out. */
export const IMPORT_WAYS = ["history", "new", "record"] as const;
export type ImportWay = (typeof IMPORT_WAYS)[number];

export type ImportState = "receiving" | "waiting" | "running" | "done" | "cancelled" | "failed";

/** An import from the interface: what of, how far it is, what it found. */
export type ImportRun = {
  readonly id: string;
  readonly fileName: string;
  readonly way: ImportWay;
  readonly state: ImportState;
  readonly bytes: number;
  readonly bytesRead: number;
  readonly messages: number;
  readonly added: number;
  readonly knownAlready: number;
  readonly flagged: number;
  readonly problem: string | null;
  /** For a record: which it is, where the viewer may know of it, and what there is to say of it. */
  readonly record: { readonly code: string; readonly title: string } | null;
  readonly said: string | null;
  readonly createdAt: Instant;
  readonly endedAt: Instant | null;
};

type Row = {
  id: string;
  tray_id: string;
  by_member_id: string | null;
  file_name: string;
  as_history: boolean;
  takes: "mail" | "record";
  state: ImportState;
  bytes: string;
  bytes_read: string;
  messages: number;
  added: number;
  known_already: number;
  flagged: number;
  problem: string | null;
  said: string | null;
  code: string | null;
  title: string | null;
  created_at: Date;
  ended_at: Date | null;
};

/** Notes an import whose file is about to be received. */
export async function startImportRun(
  db: Database,
  run: { id: string; trayId: TrayId; by: MemberId; fileName: string; way: ImportWay; createdAt: Instant },
): Promise<void> {
  await knexOf(db)("import_run").insert({
    id: run.id,
    tray_id: run.trayId,
    by_member_id: run.by,
    file_name: run.fileName,
    as_history: run.way !== "new",
    state: "receiving",
    bytes: 0,
    bytes_read: 0,
    messages: 0,
    added: 0,
    known_already: 0,
    flagged: 0,
    takes: run.way === "record" ? "record" : "mail",
    created_at: param(run.createdAt),
  });
}

/** Keeps a piece of the file. */
export async function saveImportChunk(db: Database, id: string, position: number, content: Uint8Array): Promise<void> {
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
export async function saveImportProgress(
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
  const builder = knexOf(db);
  const found = await builder.raw(
    /* sql */ `
    select run.*, record.code, record.title from import_run as run
      left join record on record.id = run.record_id and ${SEEN}
    where run.tray_id = :trayId order by run.created_at desc limit :limit`,
    { trayId: grant.tray.id, memberId: grant.memberId, limit },
  );
  return (found.rows as Row[]).map((row) => ({
    id: row.id,
    fileName: row.file_name,
    way: wayOf(row),
    state: row.state,
    bytes: Number(row.bytes),
    bytesRead: Number(row.bytes_read),
    messages: row.messages,
    added: row.added,
    knownAlready: row.known_already,
    flagged: row.flagged,
    problem: row.problem,
    record: row.code === null ? null : { code: row.code, title: row.title ?? "" },
    said: row.said,
    createdAt: at(row.created_at),
    endedAt: atOrNull(row.ended_at),
  }));
}

const wayOf = (row: Pick<Row, "as_history" | "takes">): ImportWay => {
  if (row.takes === "record") return "record";
  return row.as_history ? "history" : "new";
};

/** What an import needs to run: its tray, how it is taken, and by whom; null when there is none of this id. */
export async function importOrder(
  db: Database,
  trays: readonly Tray[],
  id: string,
): Promise<{ readonly tray: Tray; readonly way: ImportWay; readonly by: MemberId; readonly bytes: number } | null> {
  const row: Row | undefined = await knexOf(db)("import_run").first().where({ id });
  const tray = trays.find((one) => one.id === row?.tray_id);
  if (row === undefined || tray === undefined) return null;
  return { tray, way: wayOf(row), by: trustedId<MemberId>(row.by_member_id ?? ""), bytes: Number(row.bytes) };
}

/** Whose an import is, and of which file; null when there is none of this id. */
export async function whoseImport(
  db: Database,
  id: string,
): Promise<{ readonly trayId: TrayId; readonly byMemberId: MemberId | null; readonly fileName: string } | null> {
  const row = await knexOf(db)("import_run").first("tray_id", "by_member_id", "file_name").where({ id });
  if (row === undefined) return null;
  return { trayId: row.tray_id, byMemberId: row.by_member_id, fileName: row.file_name };
}

/** Notes which record an import brought, and what there is to say of it. */
export async function noteRestored(db: Database, id: string, recordId: RecordId, said: string): Promise<void> {
  await knexOf(db)("import_run").where({ id }).update({ record_id: recordId, said });
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
