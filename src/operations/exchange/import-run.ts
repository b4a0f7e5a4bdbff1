import { createWriteStream } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { err, ok, type Result } from "../../core/kernel/result";
import { openZip, safeFileName } from "../../mail/index";
import { allTrays, grantOfMember, type TrayGrant } from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import {
  dropImportFile,
  type ImportRun,
  type ImportState,
  type ImportWay,
  importChunks,
  importOrder,
  importRunsOf,
  noteRestored,
  saveImportChunk,
  saveImportProgress,
  setImportState,
  startImportRun,
} from "../../storage/mail/index";
import { officeTexts } from "../../texts/en/office";
import { saidOf } from "../../texts/said";
import { importFiles, passedOverInWords } from "../arriving/import-mail";
import type { Deps } from "../base/deps";
import { writtenDown } from "../base/written-down";
import type { Refusal } from "../refusals/refusal";
import { importRecord } from "./import-record";

const said = saidOf(officeTexts);

const CHUNK_BYTES = 1024 * 1024;
const MAX_FILE_BYTES = 4 * 1024 ** 3;
const SHOWN_RUNS = 20;

/** Receives a file to import and hands the import to a worker; the page may be left then. */
export async function receiveImport(
  deps: Deps,
  grant: TrayGrant,
  file: { readonly name: string; readonly way: ImportWay; readonly content: AsyncIterable<Uint8Array> },
): Promise<Result<{ readonly id: string }, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  if (file.way === "record" && grant.role !== "lead") return err({ kind: "leads-only" });
  const id = deps.newId();
  const fileName = safeFileName(file.name);
  const run = { id, trayId: grant.tray.id, by: grant.memberId, fileName, way: file.way };
  await startImportRun(deps.db, { ...run, createdAt: deps.now() });
  try {
    const bytes = await keepFile(deps, id, file.content);
    if (bytes === null || bytes === 0) {
      const problem =
        bytes === 0 ? writtenDown(said("office.theFileIsEmpty")) : writtenDown(said("office.filesOver4GbAre"));
      await end(deps, id, ["receiving"], "failed", problem);
      return ok({ id });
    }
    await inTransaction(deps.db, async (trx) => {
      await setImportState(trx, id, ["receiving"], { state: "waiting", bytes });
      await deps.jobs.enqueue(trx, { kind: "run-import", importId: id });
    });
    return ok({ id });
  } catch (problem) {
    await end(deps, id, ["receiving"], "failed", writtenDown(said("office.theFileDidNotArrive")));
    throw problem;
  }
}

async function keepFile(deps: Deps, id: string, content: AsyncIterable<Uint8Array>): Promise<number | null> {
  let gathered: Uint8Array[] = [];
  let size = 0;
  let total = 0;
  let position = 0;
  const flush = async () => {
    await saveImportChunk(deps.db, id, position, Buffer.concat(gathered));
    position += 1;
    gathered = [];
    size = 0;
  };
  for await (const chunk of content) {
    gathered.push(chunk);
    size += chunk.byteLength;
    total += chunk.byteLength;
    if (total > MAX_FILE_BYTES) return null;
    if (size >= CHUNK_BYTES) await flush();
  }
  if (size > 0) await flush();
  return total;
}

/** Runs an import that waits. Cut off, it is run again from the start: what is there already is passed over. */
export async function runImport(deps: Deps, id: string): Promise<void> {
  const order = await importOrder(deps.db, await allTrays(deps.db), id);
  if (order === null || !(await setImportState(deps.db, id, ["waiting", "running"], { state: "running" }))) return;
  const folder = await mkdtemp(join(tmpdir(), "common-tray-import-"));
  try {
    const path = join(folder, "file");
    await pipeline(Readable.from(importChunks(deps.db, id)), createWriteStream(path));
    const { state, words } =
      order.way === "record"
        ? ended(await takeRecordIn(deps, id, order, path))
        : await takeMailIn(deps, id, order, path);
    await end(deps, id, ["running"], state, words);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

type Ending = { readonly state: "done" | "failed"; readonly words: string | null };

const ended = (problem: string | null): Ending => ({ state: problem === null ? "done" : "failed", words: problem });

type Order = NonNullable<Awaited<ReturnType<typeof importOrder>>>;

async function takeMailIn(deps: Deps, id: string, { tray, way }: Order, path: string): Promise<Ending> {
  const report = await importFiles(deps, tray, path, {
    asHistory: way === "history",
    goesOn: (sofar) => saveImportProgress(deps.db, id, { ...sofar, messages: sofar.read }, deps.now()),
  });
  const { problem } = report;
  const isNothing = report.read === 0 && report.passedOver.length > 0;
  if (problem !== null || isNothing) return { state: "failed", words: problem ?? passedOverInWords(report) };
  return { state: "done", words: passedOverInWords(report) };
}

async function takeRecordIn(deps: Deps, id: string, { tray, by, bytes }: Order, path: string): Promise<string | null> {
  const grant = await grantOfMember(deps.db, by, tray.id, deps.now());
  if (grant === null) return writtenDown(said("office.whoeverBroughtItMayNo"));
  const zip = await openZip(path);
  if (zip === null) return writtenDown(said("office.thatIsNoZipIt"));
  try {
    const restored = await importRecord(deps, grant, zip, ({ read, total, added }) => {
      const counts = { messages: read, added, knownAlready: read - added, flagged: 0 };
      return saveImportProgress(deps.db, id, { ...counts, bytesRead: Math.round((bytes * read) / total) }, deps.now());
    });
    if (!restored.ok) return writtenDown(restored.error);
    const { documents, conversations, remarks } = restored.value;
    const inAll = writtenDown(said("office.andBesides", { conversations, documents }));
    await noteRestored(deps.db, id, restored.value.id, [inAll, ...remarks].join(" "));
    return null;
  } finally {
    zip.close();
  }
}

/** Stops an import where it is; what was taken in stays, whole. */
export async function cancelImport(deps: Deps, grant: TrayGrant, id: string): Promise<Result<null, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const known = await importRunsOf(deps.db, grant, SHOWN_RUNS);
  if (!known.some((run) => run.id === id)) return err({ kind: "no-such", what: "import" });
  const ended = await end(deps, id, ["receiving", "waiting", "running"], "cancelled", null);
  return ended ? ok(null) : err({ kind: "nothing-to-undo" });
}

async function end(
  deps: Deps,
  id: string,
  expected: readonly ImportState[],
  state: ImportState,
  problem: string | null,
): Promise<boolean> {
  const ended = await setImportState(deps.db, id, expected, { state, problem, endedAt: deps.now() });
  if (ended) await dropImportFile(deps.db, id);
  return ended;
}

/** The newest imports of a tray. */
export function getImports(deps: Deps, grant: TrayGrant): Promise<ImportRun[]> {
  return importRunsOf(deps.db, grant, SHOWN_RUNS);
}
