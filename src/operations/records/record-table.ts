import type { RecordId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import {
  accessInWords,
  codeInLine,
  RECORD_COLUMNS,
  readLine,
  type TableContext,
} from "../../core/records/register-table";
import { readTable, type TableLine, writeTable } from "../../mail/index";
import { allMembers, groupsOf, refreshViewers, type TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import {
  codesTaken,
  lockRegister,
  type RegisterRecord,
  recordsByIds,
  recordTypes,
  registerRecords,
  saveRecords,
} from "../../storage/records/index";
import { recordsTexts } from "../../texts/en/records";
import { saidOf, type Wording } from "../../texts/said";
import { noteExport } from "../base/access-log";
import type { Deps, Within } from "../base/deps";
import { refusalInWords } from "../refusals/refusal";
import { changedRecord, newRecord, type RecordRefusal, writeDown } from "./records";

const said = saidOf(recordsTexts);

/** A line of a table of records with its number in the file, and what it comes to. */
export type RecordLine = { readonly line: number; readonly words: string } & (
  | { readonly kind: "new" | "changed" | "same" }
  | { readonly kind: "problem"; readonly problem: Wording }
);

/** The records that a member may know of as CSV (RFC 4180), by code. */
export async function exportRecords(deps: Deps, grant: TrayGrant): Promise<string> {
  const records = await registerRecords(deps.db, grant);
  await noteExport(deps, grant, "records", records.length, "CSV");
  return writeTable(RECORD_COLUMNS, await recordLines(deps, grant, records));
}

/** Records as lines of a table; what one stands under is named where it is one that the member may know of. */
export async function recordLines(
  deps: Deps,
  grant: TrayGrant,
  records: readonly RegisterRecord[],
): Promise<{ readonly [C in (typeof RECORD_COLUMNS)[number]]: string }[]> {
  const [types, members, groups, parents] = await Promise.all([
    recordTypes(deps.db),
    allMembers(deps.db),
    groupsOf(deps.db, grant),
    recordsByIds(
      deps.db,
      grant,
      records.flatMap(({ parentId }) => parentId ?? []),
    ),
  ]);
  const codes = new Map(parents.map(({ id, code }) => [id, code]));
  return records.map((record) => ({
    code: record.code,
    title: record.title,
    note: record.note,
    addresses: record.addresses.join(", "),
    type: types.find(({ id }) => id === record.typeId)?.name ?? "",
    under: record.parentId === null ? "" : (codes.get(record.parentId) ?? ""),
    status: record.closedAt === null ? "open" : "closed",
    responsible: members.find(({ id }) => id === record.responsibleId)?.name ?? "",
    access: accessInWords(record.access, { members, groups }),
  }));
}

/**
 * Takes records in from a table, line by line, what is right in it in one step: a line with the code of a record changes
 * it, another one opens a record. The rest is reported. `isTrial` says what it would do and does nothing.
 */
export async function importRecords(
  deps: Deps,
  grant: TrayGrant,
  text: string,
  isTrial: boolean,
): Promise<Result<readonly RecordLine[], Wording>> {
  if (grant.role === "reader") return err(refusalInWords({ kind: "readers-only-read" }));
  const table = readTable(text, RECORD_COLUMNS);
  if (!table.ok) return table;
  const done = await inTransactionUnlessRefused<readonly RecordLine[], readonly RecordLine[]>(deps.db, async (trx) => {
    const lines = await takeRecordLines(trx, deps, grant, table.value);
    // What was only tried is rolled back, the numbers of new codes with it.
    return isTrial ? err(lines) : ok(lines);
  });
  if (done.ok) deps.publishChange({ trayId: grant.tray.id, conversationId: null });
  return ok(done.ok ? done.value : done.error);
}

/** The same within a transaction that somebody else ends; `isWanted` chooses lines by the code they have. */
export async function takeRecordLines(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  table: readonly TableLine[],
  isWanted: (code: string, known: ReadonlyMap<string, RegisterRecord>) => boolean = () => true,
): Promise<RecordLine[]> {
  await lockRegister(trx);
  const around = await surroundings(trx, grant);
  const lines: RecordLine[] = [];
  for (const line of table) {
    if (isWanted(codeInLine(line.cells), around.byCode)) lines.push(await takeLine(trx, deps, grant, around, line));
  }
  await refreshViewers(trx);
  return lines;
}

type Surroundings = {
  readonly known: Map<RecordId, RegisterRecord>;
  readonly byCode: Map<string, RegisterRecord>;
  readonly taken: Set<string>;
} & Pick<TableContext, "types" | "members" | "groups" | "readerId">;

async function surroundings(trx: Transaction, grant: TrayGrant): Promise<Surroundings> {
  const [records, types, members, groups, taken] = [
    await registerRecords(trx, grant),
    await recordTypes(trx),
    await allMembers(trx),
    await groupsOf(trx, grant),
    await codesTaken(trx),
  ];
  return {
    known: new Map(records.map((record) => [record.id, record])),
    byCode: new Map(records.map((record) => [record.code, record])),
    types,
    members,
    groups,
    taken,
    readerId: grant.memberId,
  };
}

async function takeLine(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  around: Surroundings,
  { line, cells }: TableLine,
): Promise<RecordLine> {
  const words = [codeInLine(cells), cells.title?.trim() ?? ""].filter(Boolean).join(" ");
  const problem = (text: Wording): RecordLine => ({ line, words, kind: "problem", problem: text });
  const before = around.byCode.get(codeInLine(cells)) ?? null;
  const read = readLine(cells, before === null ? null : { ...before, isClosed: before.closedAt !== null }, around);
  if (!read.ok) return problem(read.error);
  const { draft, code, isClosed } = read.value;
  const kept =
    before === null
      ? await newRecord(trx, deps, grant, around, draft, code)
      : changedRecord(grant, before, around.known, draft);
  if (!kept.ok) return problem(refusedInWords(kept.error));
  const record = { ...kept.value, closedAt: isClosed ? (before?.closedAt ?? deps.now()) : null };
  if (before !== null && isSameEntry(before, record))
    return { line, words: `${record.code} ${record.title}`, kind: "same" };
  const kind = before === null ? "new" : "changed";
  await saveRecords(trx, [record]);
  await writeDown(
    trx,
    deps,
    grant.memberId,
    [record.id],
    before === null ? said("records.openedItFromATable") : said("records.changedItFromATable"),
  );
  around.known.set(record.id, record);
  around.byCode.set(record.code, record);
  around.taken.add(record.code);
  return { line, words: `${record.code} ${record.title}`, kind };
}

function isSameEntry(before: RegisterRecord, after: RegisterRecord): boolean {
  const said = ({ version: _, viewers: _viewers, ...record }: RegisterRecord) => JSON.stringify(record);
  return said(before) === said(after);
}

function refusedInWords(refusal: RecordRefusal): Wording {
  return refusal.kind === "problems" ? { all: Object.values(refusal.problems), by: "comma" } : refusalInWords(refusal);
}
