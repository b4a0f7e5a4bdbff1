import { groupedBy } from "../../core/kernel/grouped";
import type { Instant } from "../../core/kernel/instant";
import { everyMonth } from "../../core/records/every-month";
import type { FilingField } from "../../core/records/filing-field";
import { inRegisterOrder } from "../../core/records/register-tree";
import { hasEvery, readQuery } from "../../core/search/query";
import type { TrayGrant } from "../../storage/access/index";
import {
  activityOnRecord,
  conversationsOnRecord,
  countOnRecord,
  type DocumentOnRecord,
  documentsOnRecord,
  type FiledConversation,
  type FiledMessage,
  type FiledThread,
  type FilingRecord,
  filedThreads,
  mergedInto,
  newestMessagesOf,
  type PartOnRecord,
  partsOnRecord,
  type RecordMonth,
  type RecordStep,
  type RegisterRecord,
  recordByCode,
  recordDocumentsOf,
  recordDocumentsWith,
  recordSteps,
  recordsByIds,
  recordsLike,
  recordsUnder,
  recordTypes,
  registerRecords,
} from "../../storage/records/index";
import type { Deps } from "../base/deps";
import { filedInTraysOf } from "./filed-in-trays";

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
    filedInTraysOf(deps, grant),
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
  /** How many conversations are on it, and how many of them are open. */
  readonly count: { readonly filed: number; readonly open: number };
};

/** A record as the register and its page have it, without what is filed there; null when there is none of this code. */
export async function recordPage(deps: Deps, grant: TrayGrant, code: string): Promise<RecordPage | null> {
  const record = await recordByCode(deps.db, grant, code);
  if (record === null) return null;
  const [[entry], under, steps, parents, count] = await Promise.all([
    registerRecords(deps.db, grant, [record.id]),
    recordsUnder(deps.db, grant, record.id),
    recordSteps(deps.db, record.id),
    recordsByIds(deps.db, grant, record.parentId === null ? [] : [record.parentId]),
    countOnRecord(deps.db, grant, record.id),
  ]);
  return entry === undefined ? null : { record, entry, under, steps, count, parent: parents[0] ?? null };
}

const MESSAGES_SHOWN = 4;
/** How many conversations of a record are shown at first, and at most. */
export const SHOWN_ON_RECORD = 50;
const MOST_ON_RECORD = 2_000;

/** What is filed on a record: conversations with their newest messages, and what is filed by itself. */
export type OnRecord = {
  readonly conversations: readonly (FiledConversation & { readonly messages: readonly FiledMessage[] })[];
  /** Messages and attachments that are filed by themselves. */
  readonly parts: readonly PartOnRecord[];
  /** There are more conversations than were asked for. */
  readonly isMore: boolean;
};

/**
 * The correspondence on a record, open conversations first, the newest message first in each half; those with a message
 * that has what the text asks for.
 */
export async function correspondenceOn(
  deps: Deps,
  grant: TrayGrant,
  { id }: FilingRecord,
  { text, most }: { readonly text: string; readonly most: number },
): Promise<OnRecord> {
  const limit = Math.min(most, MOST_ON_RECORD);
  const query = readQuery(text);
  const [found, parts] = await Promise.all([
    conversationsOnRecord(deps.db, grant, id, { query, most: limit + 1 }),
    partsOnRecord(deps.db, grant, id),
  ]);
  const shown = found.slice(0, limit);
  const messages = await newestMessagesOf(
    deps.db,
    shown.map((conversation) => conversation.id),
    MESSAGES_SHOWN,
  );
  const byConversation = groupedBy(messages, ({ conversationId }) => conversationId);
  return {
    conversations: shown.map((one) => ({ ...one, messages: byConversation.get(one.id) ?? [] })),
    parts: parts.filter((part) => hasEvery(textOfPart(part), query)),
    isMore: found.length > limit && limit < MOST_ON_RECORD,
  };
}

/** What of a part that is filed by itself is looked through. */
export const textOfPart = ({ subject, who, ownText, fileName }: PartOnRecord) =>
  [subject, who, ownText, fileName ?? ""].join(" ");

const MONTHS_SHOWN = 36;

/** How much was written on a record in each of the newest months, in a time zone; months without anything among them. */
export async function activityOn(
  deps: Deps,
  grant: TrayGrant,
  { id }: FilingRecord,
  zone: string,
): Promise<RecordMonth[]> {
  const found = await activityOnRecord(deps.db, grant, id, { zone, most: MONTHS_SHOWN });
  return everyMonth(found, MONTHS_SHOWN);
}

/** A document on a record: carried by a message, or put there by itself (`id`). */
export type DocumentVersion = Pick<DocumentOnRecord, "contentType" | "size" | "sha256" | "at" | "who"> &
  (
    | ({ readonly id: null } & Pick<DocumentOnRecord, "messageId" | "traySlug" | "index" | "direction">)
    | { readonly id: string }
  );

/** A document by its name: its newest version, and the older ones under it, the newest first. */
export type NamedDocument = { readonly name: string; readonly versions: readonly DocumentVersion[] };

/**
 * The documents on a record that a member may know of, those with all the words of a text in their names or their own
 * words; the same content under the same name stands once.
 */
export async function documentsOf(
  deps: Deps,
  grant: TrayGrant,
  { id }: Pick<FilingRecord, "id">,
  text = "",
): Promise<NamedDocument[]> {
  const query = readQuery(text);
  const [carried, put, hits] = await Promise.all([
    documentsOnRecord(deps.db, grant, id, query),
    recordDocumentsOf(deps.db, id),
    recordDocumentsWith(deps.db, id, query),
  ]);
  const all = [
    ...carried.map((one) => ({ ...one, id: null })),
    ...put.map((one) => ({ ...one, isHit: hits.has(one.id) })),
  ];
  const found = all.filter(({ fileName, isHit }) => isHit || hasEvery(fileName, query));
  const byName = groupedBy(
    found.toSorted((a, b) => b.at - a.at),
    ({ fileName }) => fileName.toLowerCase(),
  );
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
