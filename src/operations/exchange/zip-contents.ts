import { mailboxName } from "../../core/kernel/email-address";
import { groupedBy } from "../../core/kernel/grouped";
import type { ConversationId, RecordId } from "../../core/kernel/ids";
import { hasEvery, readQuery } from "../../core/search/query";
import { fileNameOf, uniqueNames } from "../../mail/index";
import { allMembers, grantsOf, type TrayGrant } from "../../storage/access/index";
import { conversationsOnRecordWith, conversationsWith } from "../../storage/lists/index";
import {
  type FiledThread,
  type FilingRecord,
  filedThreads,
  filingsOfConversations,
  type MessageOnRecord,
  messagesOfConversations,
  messagesOnRecord,
  type PartOnRecord,
  partsOnRecord,
  type RecordDocument,
  recordDocumentsOf,
  recordDocumentsWith,
  recordsByIds,
  recordTypes,
  registerRecords,
  type ZipExportOf,
} from "../../storage/records/index";
import { recordsTexts } from "../../texts/en/records";
import { saidOf } from "../../texts/said";
import type { Deps } from "../base/deps";
import { writtenDown } from "../base/written-down";
import { textOfPart } from "../records/get-records";

const said = saidOf(recordsTexts);

/** How a conversation was filed; with the code of the record where it is not the one that is taken out. */
type ThreadFiling = FiledThread & { readonly code?: string };

/** All that is taken out, but for the bytes. */
export type ZipContents = {
  readonly deps: Deps;
  /** What the zip is called, and what stands below the subjects of what is printed. */
  readonly name: string;
  readonly about: string;
  /** The record that is taken out; null where it is what a search finds. */
  readonly record: FilingRecord | null;
  readonly filings: ReadonlyMap<ConversationId, readonly ThreadFiling[]>;
  readonly messages: readonly MessageOnRecord[];
  readonly parts: readonly PartOnRecord[];
  readonly documents: readonly RecordDocument[];
  /** What each conversation is called in the zip: its file among those that are printed. */
  readonly printedAs: ReadonlyMap<ConversationId, string>;
  readonly grants: readonly TrayGrant[];
  readonly nameOf: (id: string | null) => string;
  /** What the fields of the types of records are called. */
  readonly labels: ReadonlyMap<string, string>;
};

/** What a member may take out; null where there is no such record that she may know of. */
export async function zipContents(deps: Deps, grant: TrayGrant, what: ZipExportOf): Promise<ZipContents | null> {
  const found = await (what.recordId === null
    ? foundInTray(deps, grant, what)
    : foundOnRecord(deps, grant, what.recordId, what.text));
  if (found === null) return null;
  const [types, grants, members, [entry]] = await Promise.all([
    recordTypes(deps.db),
    grantsOf(deps.db, grant.memberId, deps.now()),
    allMembers(deps.db),
    found.record === null ? [] : registerRecords(deps.db, grant, [found.record.id]),
  ]);
  const asking = entry === undefined ? types : types.filter(({ id }) => id === entry.typeId);
  return {
    ...found,
    deps,
    grants,
    labels: new Map(asking.flatMap(({ fields }) => fields.map(({ key, label }) => [key, label]))),
    nameOf: (id) => members.find((member) => member.id === id)?.name ?? "",
  };
}

type Found = Omit<ZipContents, "deps" | "grants" | "labels" | "nameOf">;

async function foundOnRecord(deps: Deps, grant: TrayGrant, id: RecordId, text: string): Promise<Found | null> {
  const [record] = await recordsByIds(deps.db, grant, [id]);
  if (record === undefined) return null;
  const query = readQuery(text);
  const isPart = query.terms.length > 0;
  const [threads, messages, parts, documents, read, hits] = await Promise.all([
    filedThreads(deps.db, grant, record.id),
    messagesOnRecord(deps.db, grant, record.id),
    partsOnRecord(deps.db, grant, record.id),
    recordDocumentsOf(deps.db, record.id),
    recordDocumentsWith(deps.db, record.id, query),
    isPart ? conversationsOnRecordWith(deps.db, grant, record.id, query) : [],
  ]);
  const isIn = new Set(hits);
  const filings = new Map(threads.filter(({ id }) => !isPart || isIn.has(id)).map((thread) => [thread.id, [thread]]));
  const taken = parts.filter((part) => hasEvery(textOfPart(part), query));
  const whole = new Set(taken.filter(({ attachment }) => attachment === null).map(({ messageId }) => messageId));
  const written = messages.filter(({ id, conversationId }) => !isPart || filings.has(conversationId) || whole.has(id));
  return {
    record,
    filings,
    messages: written,
    parts: taken,
    name: record.code,
    about: isPart
      ? writtenDown(said("records.whatOfRecordHas", { code: `${record.code} ${record.title}`, text }))
      : `${record.code} ${record.title}`,
    documents: documents.toReversed().filter(({ id, fileName }) => read.has(id) || hasEvery(fileName, query)),
    printedAs: printedNames(written),
  };
}

async function foundInTray(deps: Deps, grant: TrayGrant, { text, everywhere }: ZipExportOf): Promise<Found> {
  const query = readQuery(text);
  const ids =
    query.terms.length === 0 ? [] : await conversationsWith(deps.db, grant, query, everywhere ? "everywhere" : "kept");
  const [messages, filings] = await Promise.all([
    messagesOfConversations(deps.db, grant, ids),
    filingsOfConversations(deps.db, grant, ids),
  ]);
  return {
    record: null,
    messages,
    parts: [],
    documents: [],
    printedAs: printedNames(messages),
    name: `${grant.tray.slug} search`,
    about: writtenDown(said("records.whatOfRecordHas", { code: grant.tray.name, text })),
    filings: groupedBy(filings, ({ id }) => id),
  };
}

function printedNames(messages: readonly MessageOnRecord[]): Map<ConversationId, string> {
  const firsts = [...groupedBy(messages, ({ conversationId }) => conversationId)].flatMap(([id, [first]]) =>
    first === undefined ? [] : [{ id, first }],
  );
  const names = uniqueNames(firsts.map(({ first }) => `${nameFor(first)}.pdf`));
  return new Map(firsts.map(({ id }, at) => [id, names[at] ?? ""]));
}

/** Date, correspondent and subject of a message, as the name of a file. */
export function nameFor(message: MessageOnRecord): string {
  const from = { name: message.fromName, address: message.fromAddress };
  const [first = from] = message.recipients.to;
  return fileNameOf({ ...message, correspondent: mailboxName(message.direction === "out" ? first : from) });
}
