import type { Readable } from "node:stream";
import { trustedId, type ZipExportId } from "../../core/kernel/ids";
import { DAY, later, SECOND } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { grantOfMember, type TrayGrant } from "../../storage/access/index";
import { type Database, inTransaction } from "../../storage/base/index";
import {
  addZipExport,
  beginPacking,
  dropZipExport,
  dropZipExportsBefore,
  endZipExport,
  parcelPieces,
  recordsByIds,
  saveZipPiece,
  type ZipExport,
  type ZipExportForm,
  type ZipExportOf,
  zipExportById,
  zipExportsOf,
} from "../../storage/records/index";
import { recordsTexts } from "../../texts/en/records";
import { saidOf } from "../../texts/said";
import { noteAccess } from "../base/access-log";
import type { Deps } from "../base/deps";
import { writtenDown } from "../base/written-down";
import type { Refusal } from "../refusals/refusal";
import { buildZipExport } from "./build-zip-export";

const said = saidOf(recordsTexts);

/** Orders mail to be taken out as a zip; a worker packs it, and the page may be left then. */
export async function orderZipExport(
  deps: Deps,
  grant: TrayGrant,
  what: ZipExportOf,
  form: ZipExportForm,
): Promise<Result<ZipExportId, Refusal>> {
  const name = await nameOf(deps, grant, what);
  if (name === null) return err({ kind: "no-such", what: "record" });
  const id = trustedId<ZipExportId>(deps.newId());
  await inTransaction(deps.db, async (trx) => {
    const whose = { id, trayId: grant.tray.id, byMemberId: grant.memberId, name, createdAt: deps.now() };
    await addZipExport(trx, { ...whose, ...what, ...form });
    await deps.jobs.enqueue(trx, { kind: "pack-parcel", parcelId: id });
    await noteAccess(trx, deps, { kind: "pack-ordered" }, { trayId: grant.tray.id, by: grant.memberId });
  });
  return ok(id);
}

async function nameOf(deps: Deps, grant: TrayGrant, { recordId, text }: ZipExportOf): Promise<string | null> {
  if (recordId === null) return text.trim() === "" ? null : writtenDown(said("records.whatHas", { text: text.trim() }));
  const [record] = await recordsByIds(deps.db, grant, [recordId]);
  if (record === undefined) return null;
  return text.trim() === ""
    ? record.code
    : writtenDown(said("records.whatOfRecordHas", { code: record.code, text: text.trim() }));
}

const PIECE_BYTES = 1024 * 1024;
// How far it is is kept at least so often.
const PIECE_MS = SECOND;

/** Packs a ZIP export that waits. Cut off, it is packed again from the start: a half zip is none. */
export async function runZipExport(deps: Deps, id: ZipExportId): Promise<void> {
  const zipExport = await zipExportById(deps.db, id);
  if (zipExport === null || zipExport.endedAt !== null) return;
  const grant = await grantOfMember(deps.db, zipExport.byMemberId, zipExport.trayId, deps.now());
  const begun = { files: 0 };
  const onFile = () => {
    begun.files += 1;
  };
  const packed = grant === null ? null : await buildZipExport(deps, grant, zipExport, zipExport, onFile);
  if (packed === null) {
    await endZipExport(
      deps.db,
      id,
      { state: "failed", problem: writtenDown(said("records.whoeverAskedMayNotKnow")) },
      deps.now(),
    );
    return;
  }
  if (!(await inTransaction(deps.db, (trx) => beginPacking(trx, id, packed.files, deps.now())))) return;
  try {
    const bytes = await savePieces(deps, id, packed.content, () => Math.max(0, begun.files - 1));
    if (bytes !== null) await endZipExport(deps.db, id, { state: "done", bytes }, deps.now());
  } catch (problem) {
    const words = writtenDown(said("records.itCouldNotBePacked"));
    await inTransaction(deps.db, (trx) => endZipExport(trx, id, { state: "failed", problem: words }, deps.now()));
    throw problem;
  }
}

/** Keeps a zip as it is written; null when somebody stopped it meanwhile. */
async function savePieces(
  deps: Deps,
  id: ZipExportId,
  content: Readable,
  filesDone: () => number,
): Promise<number | null> {
  const kept = { position: 0, bytes: 0, at: deps.now() };
  let gathered: Uint8Array[] = [];
  let size = 0;
  const flush = async () => {
    const piece = { position: kept.position, content: Buffer.concat(gathered), done: filesDone() };
    kept.position += 1;
    kept.bytes += size;
    kept.at = deps.now();
    [gathered, size] = [[], 0];
    return inTransaction(deps.db, (trx) => saveZipPiece(trx, id, piece, deps.now()));
  };
  for await (const chunk of content) {
    gathered.push(chunk);
    size += chunk.byteLength;
    const isTime = size >= PIECE_BYTES || deps.now() - kept.at >= PIECE_MS;
    if (isTime && !(await flush())) return null;
  }
  return size > 0 && !(await flush()) ? null : kept.bytes;
}

/** What a member takes out of a tray, the newest first. */
export function getZipExports(deps: Deps, grant: TrayGrant): Promise<ZipExport[]> {
  return zipExportsOf(deps.db, grant);
}

/** Stops a ZIP export that is packed; there is no zip then. */
export async function stopZipExport(deps: Deps, grant: TrayGrant, id: ZipExportId): Promise<Result<null, Refusal>> {
  return inTransaction(deps.db, async (trx): Promise<Result<null, Refusal>> => {
    if ((await ownZipExport(trx, grant, id)) === null) return err({ kind: "no-such", what: "zip" });
    return (await endZipExport(trx, id, { state: "cancelled" }, deps.now()))
      ? ok(null)
      : err({ kind: "ended-already" });
  });
}

/** Forgets a member's ZIP export that has ended. */
export async function putZipExportAway(deps: Deps, grant: TrayGrant, id: ZipExportId): Promise<void> {
  const zipExport = await ownZipExport(deps.db, grant, id);
  if (zipExport?.endedAt != null) await dropZipExport(deps.db, grant, id);
}

async function ownZipExport(db: Database, { tray, memberId }: TrayGrant, id: ZipExportId): Promise<ZipExport | null> {
  const zipExport = await zipExportById(db, id);
  return zipExport !== null && zipExport.trayId === tray.id && zipExport.byMemberId === memberId ? zipExport : null;
}

/** A zip that a member has had packed, in its pieces; null when it is not whole, not hers, or she may not know of its record any more. */
export async function openZipExport(
  deps: Deps,
  grant: TrayGrant,
  id: ZipExportId,
): Promise<{ readonly name: string; readonly bytes: number; readonly content: AsyncIterable<Uint8Array> } | null> {
  const zipExport = await ownZipExport(deps.db, grant, id);
  if (zipExport === null || zipExport.state !== "done" || (await nameOf(deps, grant, zipExport)) === null) return null;
  await noteAccess(deps.db, deps, { kind: "pack-fetched" }, { trayId: grant.tray.id, by: grant.memberId });
  return { name: `${zipExport.name}.zip`, bytes: zipExport.bytes, content: parcelPieces(deps.db, id) };
}

const KEPT_MS = DAY;

/** Forgets what was taken out a day ago. */
export function forgetZipExports(deps: Deps): Promise<void> {
  return dropZipExportsBefore(deps.db, later(deps.now(), -KEPT_MS));
}
