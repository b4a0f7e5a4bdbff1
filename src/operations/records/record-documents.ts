import type { Effect } from "../../core/journal/entry";
import type { Mailbox } from "../../core/kernel/email-address";
import { type BatchId, type ConversationId, trustedId } from "../../core/kernel/ids";
import type { NamedFile } from "../../core/kernel/named-file";
import { err, ok, type Result } from "../../core/kernel/result";
import { safeFileName } from "../../mail/index";
import { grantsOf, type TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused } from "../../storage/base/index";
import { factsOf, lockConversations } from "../../storage/facts/index";
import {
  addRecordDocument,
  type FilingRecord,
  lockRecordForShare,
  type RecordDocument,
  recordByCode,
  recordDocument,
  recordsByIds,
  removeRecordDocument,
} from "../../storage/records/index";
import { recordsTexts } from "../../texts/en/records";
import { saidOf } from "../../texts/said";
import { incomingPast } from "../arriving/import-mail";
import { ingestMessage } from "../arriving/ingest-message";
import type { Deps } from "../base/deps";
import { carryOut } from "../changes/change-conversations";
import { fileWithin } from "../deciding/decide";
import { readAttachment } from "../reading/read-message";
import type { Refusal } from "../refusals/refusal";
import type { DocumentVersion } from "./get-records";
import { writeDown } from "./records";

const said = saidOf(recordsTexts);

/** Puts a file on a record; null when it has it already, under that name. */
export async function addDocument(
  deps: Deps,
  grant: TrayGrant,
  writer: Pick<Mailbox, "name">,
  { id: recordId }: Pick<FilingRecord, "id">,
  { name, contentType, content }: NamedFile,
): Promise<Result<RecordDocument | null, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<RecordDocument | null, Refusal>> => {
    await lockRecordForShare(trx, recordId);
    const [record] = await recordsByIds(trx, grant, [recordId]);
    if (record === undefined) return err({ kind: "no-such", what: "record" });
    if (record.closed) return err({ kind: "record-closed", code: record.code });
    const fileName = safeFileName(name);
    const whose = { at: deps.now(), who: writer.name, by: grant.memberId, filing: null };
    const added = await addRecordDocument(
      trx,
      { id: deps.newId(), recordId, fileName, contentType, ...whose },
      content,
    );
    if (added !== null) await writeDown(trx, deps, grant.memberId, [recordId], said("records.putOnIt", { fileName }));
    return ok(added);
  });
}

/** Files a message that somebody brings as a file: it is kept in the tray as the past, on the record, settled. */
export async function addMail(
  deps: Deps,
  grant: TrayGrant,
  { id: recordId }: Pick<FilingRecord, "id">,
  raw: Uint8Array,
): Promise<Result<ConversationId, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const incoming = await incomingPast(deps, raw, deps.now());
  const kept = await inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<ConversationId, Refusal>> => {
    const { conversationId: id, outcome } = await ingestMessage(trx, deps, grant.tray, incoming);
    const [held] = await lockConversations(trx, grant.tray.id, [id]);
    const known = (await factsOf(trx, [id])).get(id);
    if (held === undefined || known === undefined) return err({ kind: "no-such-conversation" });
    const filed = await fileWithin(trx, deps, grant, { recordId }, known);
    if (!filed.ok) return filed;
    const effects: Effect[] = outcome === "started" ? [...filed.value, { kind: "settled" }] : filed.value;
    const batchId = trustedId<BatchId>(deps.newId());
    await carryOut(trx, deps, grant.memberId, batchId, [{ conversation: held, known, effects }]);
    return ok(id);
  });
  if (kept.ok) deps.publishChange({ trayId: grant.tray.id, conversationId: kept.value });
  return kept;
}

/** Takes a file off a record that somebody put on it. */
export async function removeDocument(
  deps: Deps,
  grant: TrayGrant,
  { id: recordId }: Pick<FilingRecord, "id">,
  id: string,
): Promise<Result<null, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<null, Refusal>> => {
    const found = await recordDocument(trx, recordId, id);
    if (found === null || !(await removeRecordDocument(trx, recordId, id, deps.now())))
      return err({ kind: "no-such", what: "document" });
    await writeDown(
      trx,
      deps,
      grant.memberId,
      [recordId],
      said("records.tookOffIt", { fileName: found.document.fileName }),
    );
    return ok(null);
  });
}

/** The bytes of a version of a document on a record, as `documentsOf` gives it; null when they are gone. */
export async function contentOfDocument(
  deps: Deps,
  grant: TrayGrant,
  record: Pick<FilingRecord, "id">,
  version: DocumentVersion,
): Promise<Uint8Array | null> {
  if (version.id !== null) return (await recordDocument(deps.db, record.id, version.id))?.content ?? null;
  const grants = await grantsOf(deps.db, grant.memberId, deps.now());
  const there = grants.find(({ tray }) => tray.slug === version.traySlug);
  const read = there === undefined ? null : await readAttachment(deps, there, version.messageId, version.index);
  return read?.content ?? null;
}

/** A file on a record with its bytes; null when there is none that she may know of. */
export async function readDocument(deps: Deps, grant: TrayGrant, code: string, id: string) {
  const record = await recordByCode(deps.db, grant, code);
  return record === null ? null : recordDocument(deps.db, record.id, id);
}
