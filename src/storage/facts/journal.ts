import { FACT_KINDS } from "../../core/journal/aspect";
import type { Effect, JournalEntry } from "../../core/journal/entry";
import {
  type BatchId,
  type ConversationId,
  type EntryId,
  type MemberId,
  type RuleId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";
import { ENTRY_COLUMNS, entryOf } from "./conversation-facts";

/** An entry about to be written, with the conversation and the batch it belongs to. */
export type NewEntry = JournalEntry & {
  readonly trayId: TrayId;
  readonly conversationId: ConversationId;
  readonly batchId: BatchId;
  /** The undoing that it takes back. */
  readonly redoes?: EntryId;
};

/** The mark that an entry was undone: an entry of its own. */
export type NewUndo = Omit<NewEntry, "effect"> & { readonly undoes: EntryId; readonly effect: Effect };

const AT_ONCE = 1_000;

/** Appends to the journal; nothing in it is ever changed. */
export async function appendEntries(trx: Transaction, entries: readonly (NewEntry | NewUndo)[]): Promise<void> {
  const rows = entries.map((entry) => ({
    id: entry.id,
    tray_id: entry.trayId,
    conversation_id: entry.conversationId,
    version: entry.version,
    batch_id: entry.batchId,
    at: param(entry.at),
    by_member_id: entry.by,
    kind: "undoes" in entry ? "undo" : entry.effect.kind,
    rule: entry.rule === undefined ? null : JSON.stringify(entry.rule),
    effect: JSON.stringify(entry.effect),
    undoes: "undoes" in entry ? entry.undoes : null,
    redoes: entry.redoes ?? null,
  }));
  // Not `batchInsert`, which makes a savepoint of its own: two more ways to the database for every decision.
  for (let from = 0; from < rows.length; from += AT_ONCE)
    await knexOf(trx)("journal").insert(rows.slice(from, from + AT_ONCE));
}

export type BatchEntry = JournalEntry & { readonly conversationId: ConversationId };

/** An entry of a tray's journal that has not been undone; null when there is none. */
export async function standingEntry(db: Database, trayId: TrayId, id: EntryId): Promise<BatchEntry | null> {
  const builder = knexOf(db);
  const row = await builder("journal as entry")
    .first(ENTRY_COLUMNS)
    .where({ id, tray_id: trayId })
    .whereNull("undoes")
    .whereNotExists(builder("journal as undo").select(builder.raw("1")).whereRaw("undo.undoes = entry.id"));
  return row === undefined ? null : { ...entryOf(row), conversationId: trustedId<ConversationId>(row.conversation_id) };
}

/** What is to be undone: what some batches did, or a version of a rule since a moment (0: before versions were kept). */
export type ToUndo =
  | { readonly batchIds: readonly BatchId[] }
  | { readonly ruleId: RuleId; readonly version: number; readonly since: Instant };

// What of that has not been undone yet.
function stillDone(db: Database, trayId: TrayId, what: ToUndo) {
  const builder = knexOf(db);
  const all = builder("journal as entry")
    .where({ tray_id: trayId })
    .whereNull("undoes")
    .whereNotExists(builder("journal as undo").select(builder.raw("1")).whereRaw("undo.undoes = entry.id"));
  if ("batchIds" in what) return all.whereIn("batch_id", what.batchIds);
  return all
    .whereNotNull("rule")
    .whereRaw("rule->>'id' = ?", [what.ruleId])
    .whereRaw("coalesce(cast(rule->>'version' as int), 0) = ?", [what.version])
    .where("at", ">=", param(what.since));
}

/** What can be undone of it in a tray; of some conversations only where `ids` names them. */
export async function entriesToUndo(
  db: Database,
  trayId: TrayId,
  what: ToUndo,
  ids?: readonly ConversationId[],
): Promise<BatchEntry[]> {
  const rows = await stillDone(db, trayId, what)
    .select(ENTRY_COLUMNS)
    .where((which) => (ids === undefined ? which : which.whereIn("conversation_id", ids)))
    .orderBy("version");
  return rows.map((row) => ({ ...entryOf(row), conversationId: trustedId<ConversationId>(row.conversation_id) }));
}

/** The conversations in which there is something of it that has not been undone. */
export async function conversationsToUndo(db: Database, trayId: TrayId, what: ToUndo): Promise<ConversationId[]> {
  const rows: { conversation_id: string }[] = await stillDone(db, trayId, what).distinct("conversation_id");
  return rows.map((row) => trustedId<ConversationId>(row.conversation_id));
}

/**
 * The newest batch of undoings of a member in a tray since a moment that can still be taken back: nothing of it has been
 * done again, and she has decided nothing since. Null when there is none.
 */
export async function newestRedoableBatch(
  db: Database,
  trayId: TrayId,
  memberId: MemberId,
  since: Instant,
): Promise<BatchId | null> {
  const builder = knexOf(db);
  const row = await builder("journal as entry")
    .first("batch_id")
    .where({ tray_id: trayId, by_member_id: memberId })
    .where("at", ">", param(since))
    .whereNotNull("undoes")
    .whereNotExists(builder("journal as redo").select(builder.raw("1")).whereRaw("redo.redoes = entry.id"))
    .whereNotExists(
      builder("journal as newer")
        .select(builder.raw("1"))
        .whereRaw("newer.by_member_id = entry.by_member_id and newer.tray_id = entry.tray_id and newer.at > entry.at")
        .whereNull("newer.undoes")
        .whereNull("newer.redoes"),
    )
    .orderBy([
      { column: "at", order: "desc" },
      { column: "version", order: "desc" },
    ]);
  return row === undefined ? null : trustedId<BatchId>(row.batch_id);
}

/** The undoings of one batch in a tray that have not been taken back. */
export async function undoingsOfBatch(db: Database, trayId: TrayId, batchId: BatchId): Promise<BatchEntry[]> {
  const builder = knexOf(db);
  const rows = await builder("journal as entry")
    .select(ENTRY_COLUMNS)
    .where({ tray_id: trayId, batch_id: batchId })
    .whereNotNull("undoes")
    .whereNotExists(builder("journal as redo").select(builder.raw("1")).whereRaw("redo.redoes = entry.id"))
    .orderBy("version");
  return rows.map((row) => ({ ...entryOf(row), conversationId: trustedId<ConversationId>(row.conversation_id) }));
}

/**
 * The newest batch of a member in a tray since a moment that can still be undone: not undone itself, and not one that
 * went with sending a message, as mail that is out cannot be called back. Null when there is none.
 */
export async function newestUndoableBatch(
  db: Database,
  trayId: TrayId,
  memberId: MemberId,
  since: Instant,
): Promise<BatchId | null> {
  const builder = knexOf(db);
  const row = await builder("journal as entry")
    .first("batch_id")
    .where({ tray_id: trayId, by_member_id: memberId })
    .where("at", ">", param(since))
    .whereNotIn("kind", FACT_KINDS)
    .whereNull("undoes")
    .whereNotExists(builder("journal as undo").select(builder.raw("1")).whereRaw("undo.undoes = entry.id"))
    .whereNotExists(
      builder("message").select(builder.raw("1")).whereRaw("message.id = entry.batch_id and message.direction = 'out'"),
    )
    .orderBy([
      { column: "at", order: "desc" },
      { column: "version", order: "desc" },
    ]);
  return row === undefined ? null : trustedId<BatchId>(row.batch_id);
}
