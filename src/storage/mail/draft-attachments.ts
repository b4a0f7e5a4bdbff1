import { type DraftAttachmentId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { NamedFile } from "../../core/kernel/named-file";
import type { DraftAttachment } from "../../core/writing/draft-attachment";
import type { TrayGrant } from "../access/trays";
import { blobBySha256, saveBlob } from "../base/blobs";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";
import { deleteUnusedBlobs } from "../records/bins";

/** Keeps a file for a message that is being written. */
export async function addDraftAttachment(
  trx: Transaction,
  grant: TrayGrant,
  id: DraftAttachmentId,
  { name, contentType, content }: NamedFile,
  at: Instant,
): Promise<DraftAttachment> {
  const sha256 = await saveBlob(trx, content);
  await knexOf(trx)("enclosure").insert({
    id,
    tray_id: grant.tray.id,
    by_member_id: grant.memberId,
    sha256,
    file_name: name,
    content_type: contentType,
    size: content.byteLength,
    at: param(at),
  });
  return { id, name, size: content.byteLength };
}

// Whoever brought a file has it, and whoever holds a draft that it is in.
const HAS = `(enclosure.by_member_id = ? or exists (
  select from draft where draft.tray_id = enclosure.tray_id and holder_id = ?
    and draft.content->'enclosures' @> jsonb_build_array(jsonb_build_object('id', enclosure.id::text))))`;

/** What these files come to, in bytes; null when there are not all of them any more, or some are not the viewer's to send. */
export async function sizeOfDraftAttachments(
  db: Database,
  grant: TrayGrant,
  ids: readonly DraftAttachmentId[],
): Promise<number | null> {
  const rows: { size: number }[] = await knexOf(db)("enclosure")
    .select("size")
    .where("tray_id", grant.tray.id)
    .whereIn("id", [...ids])
    .whereRaw(HAS, [grant.memberId, grant.memberId]);
  return rows.length === new Set(ids).size ? rows.reduce((sum, { size }) => sum + size, 0) : null;
}

/** Some files of a tray with their bytes, in the order asked for; `sizeOfEnclosures` says whether they are the viewer's. */
export async function draftAttachmentsByIds(
  db: Database,
  grant: TrayGrant,
  ids: readonly DraftAttachmentId[],
): Promise<NamedFile[]> {
  const rows: { id: string; file_name: string; content_type: string; sha256: Buffer }[] = await knexOf(db)("enclosure")
    .select("id", "file_name", "content_type", "sha256")
    .where("tray_id", grant.tray.id)
    .whereIn("id", [...ids]);
  const files: NamedFile[] = [];
  for (const id of ids) {
    const row = rows.find((one) => trustedId<DraftAttachmentId>(one.id) === id);
    const content = row === undefined ? null : await blobBySha256(db, row.sha256.toString("hex"));
    if (row !== undefined && content !== null)
      files.push({ name: row.file_name, contentType: row.content_type, content });
  }
  return files;
}

/** Forgets files that were brought before a moment; what has gone with a message is in it. */
export async function dropDraftAttachments(trx: Transaction, before: Instant, now: Instant): Promise<void> {
  const gone: { sha256: Buffer }[] = await knexOf(trx)("enclosure")
    .where("at", "<", param(before) as Date)
    .delete()
    .returning("sha256");
  await deleteUnusedBlobs(
    trx,
    gone.map(({ sha256 }) => sha256),
    now,
  );
}

/** Whether any file was brought before a moment. */
export async function hasDraftAttachmentsBefore(db: Database, before: Instant): Promise<boolean> {
  return (
    (await knexOf(db)("enclosure")
      .first("id")
      .where("at", "<", param(before) as Date)) !== undefined
  );
}
