import { type MemberId, type RecordId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { readCodePattern } from "../../core/records/code-pattern";
import type { RecordType } from "../../core/records/record-type";
import { type EntryDraft, type EntryProblems, readEntry, withAllAbove } from "../../core/records/register-entry";
import { calendarDay } from "../../core/time/calendar-day";
import { refreshViewers, type TrayGrant } from "../../storage/access/index";
import { type Database, inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import {
  addRecordSteps,
  lockRegister,
  nextCode,
  type RegisterRecord,
  recordTypes,
  registerRecords,
  saveRecords,
} from "../../storage/records/index";
import { recordsTexts } from "../../texts/en/records";
import { saidOf, type Wording } from "../../texts/said";
import { noteAccess } from "../base/access-log";
import type { Deps, Within } from "../base/deps";
import { writtenDown } from "../base/written-down";
import type { Refusal } from "../refusals/refusal";

const said = saidOf(recordsTexts);

/** Why the register stays as it is: something is wrong with an entry, or with changing it. */
export type RecordRefusal = Refusal | { readonly kind: "problems"; readonly problems: EntryProblems };

/** A record that a change is about, with all that the member may know of around it. */
export type Held = {
  readonly record: RegisterRecord;
  readonly known: ReadonlyMap<RecordId, RegisterRecord>;
};

/** What a record is opened or changed beside: the records that the member may know of, and the types. */
export type Beside = {
  readonly known: ReadonlyMap<RecordId, RegisterRecord>;
  readonly types: readonly RecordType[];
};

/** Opens a record, with the next code of its type. */
export async function createRecord(
  deps: Deps,
  grant: TrayGrant,
  draft: EntryDraft,
): Promise<Result<RegisterRecord, RecordRefusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const done = await inTransactionUnlessRefused(
    deps.db,
    async (trx): Promise<Result<RegisterRecord, RecordRefusal>> => {
      await lockRegister(trx);
      const beside = { known: await knownTo(trx, grant), types: await recordTypes(trx) };
      const made = await newRecord(trx, deps, grant, beside, draft);
      if (!made.ok) return made;
      await saveRecords(trx, [made.value]);
      const { access, parentId } = made.value;
      // One that everybody may know of changes nothing for the others.
      const isNarrow = access !== null || (parentId !== null && beside.known.get(parentId)?.viewers !== null);
      if (isNarrow) await refreshViewers(trx);
      if (!(await maySee(trx, grant, made.value.id))) return err({ kind: "shut-out-yourself" });
      await writeDown(trx, deps, grant.memberId, [made.value.id], said("records.openedIt"));
      return made;
    },
  );
  if (done.ok) deps.publishChange({ trayId: grant.tray.id, conversationId: null });
  return done;
}

/** A record that is to be opened, in a transaction that holds the register; with the next code of its type, or one given by hand. */
export async function newRecord(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  { known, types }: Beside,
  draft: EntryDraft,
  code: string | null = null,
): Promise<Result<RegisterRecord, RecordRefusal>> {
  const entry = checkedEntry(draft, null, known);
  if (!entry.ok) return entry;
  const type = types.find(({ id }) => id === draft.typeId);
  const pattern = type === undefined ? null : readCodePattern(type.codePattern);
  if (type === undefined || pattern?.ok !== true) return err({ kind: "no-such", what: "type" });
  const given = code ?? (await nextCode(trx, type.id, pattern.value, calendarDay(deps.now(), grant.tray.timeZone)));
  return ok({
    ...entry.value,
    id: trustedId<RecordId>(deps.newId()),
    code: given,
    version: 0,
    viewers: null,
    mergedInto: null,
    createdAt: deps.now(),
    closedAt: null,
  });
}

/** Changes what the register says of a record. `version` is that of the record that she saw. */
export function changeRecord(
  deps: Deps,
  grant: TrayGrant,
  id: RecordId,
  { version, ...draft }: EntryDraft & { readonly version: number },
): Promise<Result<RegisterRecord, RecordRefusal>> {
  return onRecord(deps, grant, id, async (trx, { record, known }) => {
    if (record.version !== version) return err({ kind: "record-changed" });
    const read = changedRecord(grant, record, known, draft);
    if (!read.ok) return read;
    const changed = read.value;
    await saveRecords(trx, [changed]);
    await refreshViewers(trx);
    if (!(await maySee(trx, grant, id))) return err({ kind: "shut-out-yourself" });
    await writeDown(trx, deps, grant.memberId, [id], changeInWords(record, changed));
    if (JSON.stringify(changed.access) !== JSON.stringify(record.access)) {
      const whose = { trayId: grant.tray.id, by: grant.memberId };
      await noteAccess(trx, deps, { kind: "record-access-changed", recordId: id }, whose);
    }
    return ok(changed);
  });
}

/** A record as it is to be from now on, its version the next one. */
export function changedRecord(
  grant: TrayGrant,
  record: RegisterRecord,
  known: Beside["known"],
  draft: EntryDraft,
): Result<RegisterRecord, RecordRefusal> {
  // What it stands under is not hers to move where she may not even know of it.
  const isHidden = record.parentId !== null && !known.has(record.parentId);
  const parentId = isHidden && draft.parentId === null ? record.parentId : draft.parentId;
  const entry = checkedEntry({ ...draft, parentId }, record, known);
  if (!entry.ok) return entry;
  const isSame = JSON.stringify(entry.value.access) === JSON.stringify(record.access);
  if (!isSame && grant.role !== "lead" && record.responsibleId !== grant.memberId) return err({ kind: "leads-only" });
  return ok({ ...record, ...entry.value, version: record.version + 1 });
}

/** Closes a record, so that nothing more is filed on it, or reopens it. */
export function closeRecord(
  deps: Deps,
  grant: TrayGrant,
  id: RecordId,
  closes: boolean,
): Promise<Result<RegisterRecord, RecordRefusal>> {
  return onRecord(deps, grant, id, async (trx, { record }) => {
    if ((record.closedAt !== null) === closes) return ok(record);
    const changed = { ...record, closedAt: closes ? deps.now() : null, version: record.version + 1 };
    await saveRecords(trx, [changed]);
    await writeDown(trx, deps, grant.memberId, [id], closes ? said("records.closedIt") : said("records.reopenedIt"));
    return ok(changed);
  });
}

/** Does something with a record that a member may know of, while nobody else changes the register. */
export async function onRecord<T>(
  deps: Deps,
  grant: TrayGrant,
  id: RecordId,
  work: (trx: Transaction, held: Held) => Promise<Result<T, RecordRefusal>>,
): Promise<Result<T, RecordRefusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const done = await inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<T, RecordRefusal>> => {
    await lockRegister(trx);
    const known = await knownTo(trx, grant);
    const record = known.get(id);
    return record === undefined ? err({ kind: "no-such", what: "record" }) : work(trx, { record, known });
  });
  if (done.ok) deps.publishChange({ trayId: grant.tray.id, conversationId: null });
  return done;
}

async function knownTo(db: Database, grant: TrayGrant): Promise<Map<RecordId, RegisterRecord>> {
  return new Map((await registerRecords(db, grant)).map((record) => [record.id, record]));
}

async function maySee(trx: Transaction, grant: TrayGrant, id: RecordId): Promise<boolean> {
  return (await registerRecords(trx, grant, [id])).length === 1;
}

function checkedEntry(
  draft: EntryDraft,
  record: RegisterRecord | null,
  known: ReadonlyMap<RecordId, RegisterRecord>,
): Result<Entry, RecordRefusal> {
  const above = withAllAbove(draft.parentId, known);
  const isThere = draft.parentId === null || draft.parentId === record?.parentId || above.length > 0;
  if (!isThere) return err({ kind: "problems", problems: { parentId: said("records.thereIsNoSuchRecord") } });
  if (record !== null && record.typeId !== draft.typeId) return err({ kind: "no-such", what: "type" });
  const read = readEntry(draft, record?.id ?? null, above);
  if (!read.ok) return err({ kind: "problems", problems: read.error });
  return ok(entryOf(read.value));
}

type Entry = Extract<ReturnType<typeof readEntry>, { ok: true }>["value"];

// What was posted besides is no part of an entry.
function entryOf({ typeId, title, parentId, responsibleId, note, addresses, access }: Entry): Entry {
  return { typeId, title, parentId, responsibleId, note, addresses, access };
}

function changeInWords(before: RegisterRecord, after: RegisterRecord): Wording {
  const differs = (field: keyof Entry) => JSON.stringify(before[field]) !== JSON.stringify(after[field]);
  const all = [
    ...(differs("title") ? [said("records.calledIt", { title: after.title })] : []),
    ...(differs("parentId") ? [said("records.movedItToAnotherPlace")] : []),
    ...(differs("access") ? [said("records.changedWhoMayKnowOf")] : []),
    ...(differs("responsibleId") ? [said("records.changedWhoIsResponsible")] : []),
    ...(differs("addresses") ? [said("records.changedItsPeople")] : []),
    ...(differs("note") ? [said("records.changedItsNote")] : []),
  ];
  return all.length === 0 ? said("records.lookedItThrough") : { all, by: "comma" };
}

/** Writes down what was done to records. */
export async function writeDown(
  trx: Transaction,
  deps: Within,
  by: MemberId,
  ids: readonly RecordId[],
  words: Wording,
): Promise<void> {
  await addRecordSteps(
    trx,
    ids.map((recordId) => ({ id: deps.newId(), recordId, at: deps.now(), by, words: writtenDown(words) })),
  );
}
