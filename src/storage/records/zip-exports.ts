import { type MemberId, type RecordId, type TrayId, trustedId, type ZipExportId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { SEEN } from "../access/record-access";
import type { TrayGrant } from "../access/trays";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { runPrepared } from "../base/prepared";
import { at, atOrNull, param } from "../base/rows";

/** What is taken out: what is on a record, or (null) in the tray; all of it, or what has the words of a text. */
export type ZipExportOf = {
  readonly recordId: RecordId | null;
  readonly text: string;
  /** Whether what lies in the bin or is junk is looked through as well, where it is the tray. */
  readonly everywhere: boolean;
};

/** How it is taken out: its messages one by one or as one mbox, the printed conversations with notes or without. */
export type ZipExportForm = { readonly format: "eml" | "mbox"; readonly withNotes: boolean };

type ZipExportState = "waiting" | "running" | "done" | "cancelled" | "failed";

/** Mail that is taken out as a zip, and how far it is. */
export type ZipExport = ZipExportOf &
  ZipExportForm & {
    readonly id: ZipExportId;
    readonly trayId: TrayId;
    readonly byMemberId: MemberId;
    /** What the zip is called. */
    readonly name: string;
    readonly state: ZipExportState;
    /** How many of its files are in it, of how many. */
    readonly done: number;
    readonly total: number;
    readonly bytes: number;
    readonly problem: string | null;
    readonly createdAt: Instant;
    readonly endedAt: Instant | null;
  };

type Row = {
  id: string;
  tray_id: string;
  by_member_id: string;
  record_id: string | null;
  text: string;
  everywhere: boolean;
  format: "eml" | "mbox";
  with_notes: boolean;
  name: string;
  state: ZipExportState;
  done: number;
  total: number;
  bytes: string;
  problem: string | null;
  created_at: Date;
  ended_at: Date | null;
};

const zipExportOf = ({ text, everywhere, format, name, state, done, total, problem, ...row }: Row): ZipExport => ({
  text,
  everywhere,
  format,
  name,
  state,
  done,
  total,
  problem,
  id: trustedId<ZipExportId>(row.id),
  trayId: trustedId<TrayId>(row.tray_id),
  byMemberId: trustedId<MemberId>(row.by_member_id),
  recordId: row.record_id === null ? null : trustedId<RecordId>(row.record_id),
  withNotes: row.with_notes,
  bytes: Number(row.bytes),
  createdAt: at(row.created_at),
  endedAt: atOrNull(row.ended_at),
});

/** Notes what is to be taken out. */
export async function addZipExport(
  trx: Transaction,
  parcel: Pick<ZipExport, "id" | "trayId" | "byMemberId" | "name" | "createdAt"> & ZipExportOf & ZipExportForm,
): Promise<void> {
  const { id, text, everywhere, format, name } = parcel;
  await knexOf(trx)("parcel").insert({
    id,
    text,
    everywhere,
    format,
    name,
    tray_id: parcel.trayId,
    by_member_id: parcel.byMemberId,
    record_id: parcel.recordId,
    with_notes: parcel.withNotes,
    state: "waiting",
    created_at: param(parcel.createdAt),
    progress_at: param(parcel.createdAt),
  });
}

/** A parcel; null when there is none of this id any more. */
export async function zipExportById(db: Database, id: ZipExportId): Promise<ZipExport | null> {
  const row: Row | undefined = await knexOf(db)("parcel").first().where({ id });
  return row === undefined ? null : zipExportOf(row);
}

/** Begins to pack a parcel, from the start where somebody began before; false when it has ended. */
export async function beginPacking(trx: Transaction, id: ZipExportId, total: number, now: Instant): Promise<boolean> {
  const begun = await knexOf(trx)("parcel")
    .where({ id })
    .whereIn("state", ["waiting", "running"])
    .update({ state: "running", done: 0, total, progress_at: param(now) });
  if (begun > 0) await knexOf(trx)("parcel_piece").where({ parcel_id: id }).delete();
  return begun > 0;
}

/** Keeps a piece of the zip, and how far it is; false when it is not to go on. */
export async function saveZipPiece(
  trx: Transaction,
  id: ZipExportId,
  { position, content, done }: { readonly position: number; readonly content: Uint8Array; readonly done: number },
  now: Instant,
): Promise<boolean> {
  const going = await knexOf(trx)("parcel")
    .where({ id, state: "running" })
    .update({ done, progress_at: param(now) });
  if (going > 0) await knexOf(trx)("parcel_piece").insert({ parcel_id: id, position, content: Buffer.from(content) });
  return going > 0;
}

/** Ends a parcel, whole or not; what is not whole keeps no piece. False when it had ended already. */
export async function endZipExport(
  trx: Database,
  id: ZipExportId,
  end: { readonly state: "done" | "cancelled" | "failed"; readonly bytes?: number; readonly problem?: string },
  now: Instant,
): Promise<boolean> {
  const { state, bytes = 0, problem = null } = end;
  const ended = await knexOf(trx)("parcel")
    .where({ id })
    .whereIn("state", ["waiting", "running"])
    .update({
      state,
      bytes,
      problem,
      ended_at: param(now),
      progress_at: param(now),
      ...(state === "done" ? { done: knexOf(trx).ref("total") } : {}),
    });
  if (ended > 0 && state !== "done") await knexOf(trx)("parcel_piece").where({ parcel_id: id }).delete();
  return ended > 0;
}

/** The zip in its pieces. */
export async function* parcelPieces(db: Database, id: ZipExportId): AsyncGenerator<Uint8Array> {
  for (let position = 0; ; position += 1) {
    const row: { content: Buffer } | undefined = await knexOf(db)("parcel_piece")
      .first("content")
      .where({ parcel_id: id, position });
    if (row === undefined) return;
    yield row.content;
  }
}

const MAX_SHOWN = 5;

/** What a member takes out of a tray, the newest first; of a record only while she may know of it. */
export async function zipExportsOf(db: Database, grant: TrayGrant): Promise<ZipExport[]> {
  const rows = await runPrepared<Row>(
    db,
    /* sql */ `
    select id, tray_id, by_member_id, record_id, text, everywhere, format, with_notes, name, state, done, total, bytes,
      problem, created_at, ended_at from parcel
    where tray_id = :trayId and by_member_id = :memberId
      and (record_id is null or exists (select 1 from record where record.id = record_id and ${SEEN}))
    order by created_at desc limit ${MAX_SHOWN}`,
    { trayId: grant.tray.id, memberId: grant.memberId },
  );
  return rows.map(zipExportOf);
}

/** Forgets a member's parcel. */
export async function dropZipExport(db: Database, grant: TrayGrant, id: ZipExportId): Promise<void> {
  await knexOf(db)("parcel").where({ id, tray_id: grant.tray.id, by_member_id: grant.memberId }).delete();
}

/** Forgets the parcels that were ordered before a moment. */
export async function dropZipExportsBefore(db: Database, before: Instant): Promise<void> {
  await knexOf(db)("parcel")
    .where("created_at", "<", param(before) as Date)
    .delete();
}

/** Forgets whatever somebody took out of a tray by its words: nobody knows what else is in it. */
export async function dropZipExportsByWords(trx: Transaction): Promise<void> {
  await knexOf(trx)("parcel").whereNull("record_id").delete();
}

/** Parcels that nobody has packed since a moment and that have not ended: a killed process left them behind. */
export async function strandedZipExports(db: Database, since: Instant): Promise<ZipExportId[]> {
  const rows: { id: string }[] = await knexOf(db)("parcel")
    .select("id")
    .whereIn("state", ["waiting", "running"])
    .where("progress_at", "<", param(since) as Date);
  return rows.map(({ id }) => trustedId<ZipExportId>(id));
}
