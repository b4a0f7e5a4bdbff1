import { groupedBy } from "../core/kernel/grouped";
import type { Instant } from "../core/kernel/instant";
import type { FilingField } from "../core/records/filing-field";
import { inRegisterOrder } from "../core/records/register-tree";
import {
  conversationsOnRecord,
  type DocumentOnRecord,
  documentsOnRecord,
  type FiledConversation,
  type FiledMessage,
  type FiledThread,
  type FilingRecord,
  filedCounts,
  filedThreads,
  mergedInto,
  newestMessagesOf,
  type RecordStep,
  type RegisterRecord,
  recordByCode,
  recordSteps,
  recordsByIds,
  recordsLike,
  recordsUnder,
  recordTypes,
  registerRecords,
  type TrayGrant,
} from "../storage/index";
import type { Deps } from "./deps";

/** A record as a line of the register. */
export type RegisterLine = FilingRecord & {
  readonly depth: number;
  readonly filed: number;
  readonly open: number;
  readonly newest: Instant | null;
};

/** A page of the register, and how many lines it would have all in all. */
export type RegisterPage = { readonly lines: readonly RegisterLine[]; readonly total: number };

// All that a page of the register draws, and a picker while somebody types.
const MOST_IN_REGISTER = 500;
const MOST_TO_CHOOSE = 30;
const ALL_RECORDS = 50_000;

/**
 * The register with what is filed on each record: as a tree, or by code (`isFlat`) the records whose code or title has the
 * text. Only what the member may know of.
 */
export async function register(deps: Deps, grant: TrayGrant, text: string, isFlat: boolean): Promise<RegisterPage> {
  const [found, counts] = await Promise.all([
    recordsLike(deps.db, grant, text, ALL_RECORDS),
    filedCounts(deps.db, grant),
  ]);
  const placed = isFlat ? found.map((record) => ({ ...record, depth: 0 })) : inRegisterOrder(found);
  const lines = placed.slice(0, MOST_IN_REGISTER).map((record) => {
    const count = counts.get(record.id);
    return { ...record, filed: count?.filed ?? 0, open: count?.open ?? 0, newest: count?.newest ?? null };
  });
  return { lines, total: placed.length };
}

/** The records to choose from when filing: those whose code or title has the text. */
export function recordsToFileOn(deps: Deps, grant: TrayGrant, text: string): Promise<FilingRecord[]> {
  return recordsLike(deps.db, grant, text, MOST_TO_CHOOSE);
}

export type RecordPage = {
  readonly record: FilingRecord;
  readonly entry: RegisterRecord;
  readonly parent: FilingRecord | null;
  /** What stands under it, by code. */
  readonly under: readonly FilingRecord[];
  /** What was done to it, the newest first. */
  readonly steps: readonly RecordStep[];
  readonly conversations: readonly (FiledConversation & { readonly messages: readonly FiledMessage[] })[];
};

const MESSAGES_SHOWN = 4;

/** A record with the correspondence filed on it, both sides, newest conversation first; null when there is none of this code. */
export async function recordPage(deps: Deps, grant: TrayGrant, code: string): Promise<RecordPage | null> {
  const record = await recordByCode(deps.db, grant, code);
  if (record === null) return null;
  const [[entry], under, steps, parents, filed] = await Promise.all([
    registerRecords(deps.db, grant, [record.id]),
    recordsUnder(deps.db, grant, record.id),
    recordSteps(deps.db, record.id),
    recordsByIds(deps.db, grant, record.parentId === null ? [] : [record.parentId]),
    conversationsOnRecord(deps.db, grant, record.id),
  ]);
  const messages = await newestMessagesOf(
    deps.db,
    filed.map((conversation) => conversation.id),
    MESSAGES_SHOWN,
  );
  if (entry === undefined) return null;
  return {
    ...{ record, entry, under, steps },
    parent: parents[0] ?? null,
    conversations: filed.map((conversation) => ({
      ...conversation,
      messages: messages.filter((message) => message.conversationId === conversation.id),
    })),
  };
}

/** A document by its name: its newest version, and the older ones under it, the newest first. */
export type NamedDocument = { readonly name: string; readonly versions: readonly DocumentOnRecord[] };

/** The documents on a record that a member may know of; the same content under the same name stands once. */
export async function documentsOf(deps: Deps, grant: TrayGrant, record: FilingRecord): Promise<NamedDocument[]> {
  const documents = await documentsOnRecord(deps.db, grant, record.id);
  const byName = groupedBy(documents, ({ fileName }) => fileName.toLowerCase());
  return [...byName.values()].map((versions) => ({
    name: versions[0]?.fileName ?? "",
    versions: versions.filter(({ sha256 }, at) => versions.findIndex((one) => one.sha256 === sha256) === at),
  }));
}

/** What is filed on a record with its particulars, and the fields that its type asks for. */
export async function filingsOf(
  deps: Deps,
  grant: TrayGrant,
  record: RegisterRecord,
): Promise<{ readonly threads: readonly FiledThread[]; readonly fields: readonly FilingField[] }> {
  const [threads, types] = await Promise.all([filedThreads(deps.db, grant, record.id), recordTypes(deps.db)]);
  return { threads: threads.toReversed(), fields: types.find(({ id }) => id === record.typeId)?.fields ?? [] };
}

/** Where a code leads whose record was merged into another; null when it was not, or she may not know of that one. */
export function whereMerged(deps: Deps, grant: TrayGrant, code: string): Promise<string | null> {
  return mergedInto(deps.db, grant, code);
}
