import { recordsTexts } from "../../texts/en/records";
import { type Said, saidOf } from "../../texts/said";
import type { GroupId, MemberId, RecordId } from "../kernel/ids";
import { err, ok, type Result } from "../kernel/result";
import { recordCodesIn } from "../threading/record-codes";
import type { RecordType } from "./record-type";
import type { Access, EntryDraft, RegisterEntry } from "./register-entry";

const said = saidOf(recordsTexts);

/** The columns of a table of records, in their order; only the title has to be there. */
export const RECORD_COLUMNS = [
  "title",
  "code",
  "type",
  "under",
  "status",
  "responsible",
  "addresses",
  "note",
  "access",
] as const;

/** A line of a table of records; a column that is not there leaves a record as it is. */
export type RecordCells = { readonly [C in (typeof RECORD_COLUMNS)[number]]?: string };

/** What the words of a line are looked up in. */
export type TableContext = {
  readonly byCode: ReadonlyMap<string, { readonly id: RecordId }>;
  /** The codes that are taken, also by records that the reader may not know of. */
  readonly taken: ReadonlySet<string>;
  readonly types: readonly RecordType[];
  readonly members: readonly { readonly id: MemberId; readonly name: string }[];
  readonly groups: readonly { readonly id: GroupId; readonly name: string; readonly memberIds: readonly MemberId[] }[];
  /** Whose table it is: nobody shuts herself out. */
  readonly readerId: MemberId;
};

const EVERYBODY = "everybody";

/** Who may know of a record by its own list, in the words of a table: names with semicolons between them. */
export function accessInWords(
  access: Access | null,
  { members, groups }: Pick<TableContext, "members" | "groups">,
): string {
  if (access === null) return EVERYBODY;
  const named = [
    ...members.filter(({ id }) => access.memberIds.includes(id)),
    ...groups.filter(({ id }) => access.groupIds.includes(id)),
  ];
  return named.map(({ name }) => name).join("; ");
}

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
): Result<ReadLine, Said> {
  const code = codeInLine(cells);
  const inCode = before === null ? codeProblem(code, context) : null;
  if (inCode !== null) return err(inCode);
  const type = before === null ? typeOf(cells, context) : ok(before.typeId);
  if (!type.ok) return type;
  const parent = parentOf(cells, before, context);
  if (!parent.ok) return parent;
  const responsible = responsibleOf(cells, before, context);
  if (!responsible.ok) return responsible;
  const access = accessOf(cells, before, context);
  if (!access.ok) return access;
  const status = plain(cells.status);
  if (!["", "open", "closed"].includes(status))
    return err(said("records.isNeitherOpenNorClosed", { status: cells.status?.trim() ?? "" }));
  return ok({
    code: code === "" ? null : code,
    isClosed: status === "" ? (before?.isClosed ?? false) : status === "closed",
    draft: {
      typeId: type.value,
      parentId: parent.value,
      responsibleId: responsible.value,
      ...textsOf(cells, before),
      access: access.value,
    },
  });
}

function textsOf(cells: RecordCells, before: RegisterEntry | null): Pick<EntryDraft, "title" | "addresses" | "note"> {
  const { title, addresses, note } = before ?? { title: "", addresses: [], note: "" };
  return { title: cells.title ?? title, addresses: cells.addresses ?? addresses.join(", "), note: cells.note ?? note };
}

/** Why a code cannot be given: also what was disposed of keeps its own. */
export const takenInWords = (code: string) => said("records.isTakenAlreadyOrWas", { code });

function codeProblem(code: string, { taken }: TableContext): Said | null {
  if (code === "") return null;
  if (recordCodesIn(code)[0] !== code) return said("records.isNoCodeWriteIt", { code });
  return taken.has(code) ? takenInWords(code) : null;
}

function typeOf(cells: RecordCells, { types }: TableContext): Result<RecordType["id"], Said> {
  const type = types.find(({ name }) => name.toLowerCase() === plain(cells.type));
  return type === undefined ? err(said("records.thereIsNoType", { type: cells.type?.trim() ?? "" })) : ok(type.id);
}

function parentOf(
  cells: RecordCells,
  before: RegisterEntry | null,
  { byCode }: TableContext,
): Result<RecordId | null, Said> {
  if (cells.under === undefined) return ok(before?.parentId ?? null);
  const code = plain(cells.under).toUpperCase();
  const parent = byCode.get(code);
  if (code !== "" && parent === undefined) return err(said("records.thereIsNoRecordFor", { code }));
  return ok(parent?.id ?? null);
}

function accessOf(
  cells: RecordCells,
  before: RegisterEntry | null,
  { members, groups, readerId }: TableContext,
): Result<Access | null, Said> {
  const text = plain(cells.access);
  if (text === "") return ok(before?.access ?? null);
  if (text === EVERYBODY) return ok(null);
  const names = text.split(";").map((name) => name.trim());
  const isNamed = ({ name }: { readonly name: string }) => names.includes(name.toLowerCase());
  const [known, inGroups] = [members.filter(isNamed), groups.filter(isNamed)];
  const unknown = names.find((name) => ![...known, ...inGroups].some((one) => one.name.toLowerCase() === name));
  if (unknown !== undefined) return err(said("records.isNoColleagueOrGroup", { unknown }));
  const isIn =
    known.some(({ id }) => id === readerId) || inGroups.some(({ memberIds }) => memberIds.includes(readerId));
  if (!isIn) return err(said("records.youWouldNotSeeIt"));
  return ok({ memberIds: known.map(({ id }) => id), groupIds: inGroups.map(({ id }) => id) });
}

function responsibleOf(
  cells: RecordCells,
  before: RegisterEntry | null,
  { members }: TableContext,
): Result<MemberId | null, Said> {
  if (cells.responsible === undefined) return ok(before?.responsibleId ?? null);
  const name = plain(cells.responsible);
  const member = members.find((one) => one.name.toLowerCase() === name);
  if (name !== "" && member === undefined)
    return err(said("records.isNoColleagueHere", { responsible: cells.responsible.trim() }));
  return ok(member?.id ?? null);
}
