import { type DraftAttachmentId, trustedId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import type { NamedFile } from "../../core/kernel/named-file";
import { err, ok, type Result } from "../../core/kernel/result";
import { type DraftAttachment, MOST_ENCLOSED_BYTES, MOST_ENCLOSURES } from "../../core/writing/draft-attachment";
import { safeFileName } from "../../mail/index";
import type { TrayGrant } from "../../storage/access/index";
import { inTransaction, type Transaction } from "../../storage/base/index";
import {
  addDraftAttachment,
  draftAttachmentsByIds,
  dropDraftAttachments,
  hasDraftAttachmentsBefore,
  sizeOfDraftAttachments,
} from "../../storage/mail/index";
import { recordByCode } from "../../storage/records/index";
import type { Deps, Within } from "../base/deps";
import { documentsOf, type NamedDocument } from "../records/get-records";
import { contentOfDocument } from "../records/record-documents";
import type { Refusal } from "../refusals/refusal";

/** Keeps a file for a message that is being written. */
export async function attachFile(
  deps: Deps,
  grant: TrayGrant,
  file: NamedFile,
): Promise<Result<DraftAttachment, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  return ok(await inTransaction(deps.db, (trx) => attachWithin(trx, deps, grant, file)));
}

/** The same within a transaction that somebody else ends. */
export function attachWithin(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  file: NamedFile,
): Promise<DraftAttachment> {
  const named = { ...file, name: safeFileName(file.name) };
  return addDraftAttachment(trx, grant, trustedId<DraftAttachmentId>(deps.newId()), named, deps.now());
}

/** A version of a document on a record. */
export type DocumentToAttach = { readonly code: string; readonly name: string; readonly sha256: string };

/** The documents on some records that she may know of, each record with its code. */
export async function documentsToAttach(deps: Deps, grant: TrayGrant, codes: readonly string[]) {
  const found: { readonly code: string; readonly documents: readonly NamedDocument[] }[] = [];
  for (const code of codes) {
    const record = await recordByCode(deps.db, grant, code);
    if (record !== null) found.push({ code: record.code, documents: await documentsOf(deps, grant, record) });
  }
  return found;
}

/** Takes a document from a record for a message that is being written; only what she may know of. */
export async function attachDocument(
  deps: Deps,
  grant: TrayGrant,
  { code, name, sha256 }: DocumentToAttach,
): Promise<Result<DraftAttachment, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const record = await recordByCode(deps.db, grant, code);
  const documents = record === null ? [] : await documentsOf(deps, grant, record);
  const version = documents.find((one) => one.name === name)?.versions.find((one) => one.sha256 === sha256);
  const content =
    record === null || version === undefined ? null : await contentOfDocument(deps, grant, record, version);
  if (version === undefined || content === null) return err({ kind: "no-such", what: "document" });
  return attachFile(deps, grant, { name, contentType: version.contentType, content });
}

/** The files that go with a message of ours, by their ids. */
export async function attachmentsOfDraft(
  trx: Transaction,
  grant: TrayGrant,
  ids: readonly DraftAttachmentId[],
): Promise<Result<readonly NamedFile[], Refusal>> {
  if (ids.length === 0) return ok([]);
  if (ids.length > MOST_ENCLOSURES) return err({ kind: "too-many", most: MOST_ENCLOSURES });
  const size = await sizeOfDraftAttachments(trx, grant, ids);
  if (size === null) return err({ kind: "attachment-gone" });
  if (size > MOST_ENCLOSED_BYTES) return err({ kind: "too-large", mostBytes: MOST_ENCLOSED_BYTES });
  return ok(await draftAttachmentsByIds(trx, grant, ids));
}

// A draft may lie for a good while.
const KEPT_MS = 180 * DAY;

/** Forgets the files of drafts that nobody has sent for half a year. */
export async function forgetDraftAttachments(deps: Deps): Promise<void> {
  const before = later(deps.now(), -KEPT_MS);
  if (!(await hasDraftAttachmentsBefore(deps.db, before))) return;
  await inTransaction(deps.db, async (trx) => {
    await dropDraftAttachments(trx, before, deps.now());
  });
}
