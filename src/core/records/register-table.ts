import type { MemberId, RecordId } from "../kernel/ids";
import { err, ok, type Result } from "../kernel/result";
import { recordCodesIn } from "../threading/record-codes";
import type { RecordType } from "./record-type";
import type { EntryDraft, RegisterEntry } from "./register-entry";

/** The columns of a table of records, in their order; only the title has to be there. */
export const RECORD_COLUMNS = ["title", "code", "type", "under", "status", "responsible", "addresses", "note"] as const;

/** A line of a table of records; a column that is not there leaves a record as it is. */
export type RecordCells = { readonly [C in (typeof RECORD_COLUMNS)[number]]?: string };

/** What the words of a line are looked up in. */
export type TableContext = {
  readonly byCode: ReadonlyMap<string, { readonly id: RecordId }>;
  /** The codes that are taken, also by records that the reader may not know of. */
  readonly taken: ReadonlySet<string>;
  readonly types: readonly RecordType[];
  readonly members: readonly { readonly id: MemberId; readonly name: string }[];
};

/** What a line makes of a record: a new one (`code` null for the next of its type), or the one that has its code. */
export type ReadLine = { readonly code: string | null; readonly draft: EntryDraft; readonly isClosed: boolean };

const plain = (text: string | undefined) => text?.trim().toLowerCase() ?? "";

/** The code of a line as codes are written; empty for none. */
export function codeInLine(cells: RecordCells): string {
  return plain(cells.code).toUpperCase();
}

/** Reads a line for the record that has its code (`before`, null for a new one); a refusal is a sentence about it. */
export function readLine(
  cells: RecordCells,
  before: (RegisterEntry & { readonly isClosed: boolean }) | null,
  context: TableContext,
): Result<ReadLine, string> {
  const code = codeInLine(cells);
  const inCode = before === null ? codeProblem(code, context) : null;
  if (inCode !== null) return err(inCode);
  const type = before === null ? typeOf(cells, context) : ok(before.typeId);
  if (!type.ok) return type;
  const parent = parentOf(cells, before, context);
  if (!parent.ok) return parent;
  const responsible = responsibleOf(cells, before, context);
  if (!responsible.ok) return responsible;
  const status = plain(cells.status);
  if (!["", "open", "closed"].includes(status)) return err(`“${cells.status?.trim()}” is neither open nor closed.`);
  return ok({
    code: code === "" ? null : code,
    isClosed: status === "" ? (before?.isClosed ?? false) : status === "closed",
    draft: {
      ...{ typeId: type.value, parentId: parent.value, responsibleId: responsible.value },
      ...textsOf(cells, before),
      access: before?.access ?? null,
    },
  });
}

function textsOf(cells: RecordCells, before: RegisterEntry | null): Pick<EntryDraft, "title" | "addresses" | "note"> {
  const { title, addresses, note } = before ?? { title: "", addresses: [], note: "" };
  return { title: cells.title ?? title, addresses: cells.addresses ?? addresses.join(", "), note: cells.note ?? note };
}

function codeProblem(code: string, { taken }: TableContext): string | null {
  if (code === "") return null;
  if (recordCodesIn(code)[0] !== code) return `“${code}” is no code; write it as P-26-012.`;
  return taken.has(code) ? `${code} is taken already.` : null;
}

function typeOf(cells: RecordCells, { types }: TableContext): Result<RecordType["id"], string> {
  const type = types.find(({ name }) => name.toLowerCase() === plain(cells.type));
  return type === undefined ? err(`There is no type “${cells.type?.trim() ?? ""}”.`) : ok(type.id);
}

function parentOf(
  cells: RecordCells,
  before: RegisterEntry | null,
  { byCode }: TableContext,
): Result<RecordId | null, string> {
  if (cells.under === undefined) return ok(before?.parentId ?? null);
  const code = plain(cells.under).toUpperCase();
  const parent = byCode.get(code);
  if (code !== "" && parent === undefined) return err(`There is no record ${code} for it to stand under.`);
  return ok(parent?.id ?? null);
}

function responsibleOf(
  cells: RecordCells,
  before: RegisterEntry | null,
  { members }: TableContext,
): Result<MemberId | null, string> {
  if (cells.responsible === undefined) return ok(before?.responsibleId ?? null);
  const name = plain(cells.responsible);
  const member = members.find((one) => one.name.toLowerCase() === name);
  if (name !== "" && member === undefined) return err(`“${cells.responsible.trim()}” is no colleague here.`);
  return ok(member?.id ?? null);
}
