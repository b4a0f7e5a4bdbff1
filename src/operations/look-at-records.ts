import type { Instant } from "../core/kernel/instant";
import {
  conversationsOnRecord,
  type FiledConversation,
  type FiledMessage,
  type FilingRecord,
  filedCounts,
  newestMessagesOf,
  recordByCode,
  recordsByIds,
  recordsLike,
  type TrayGrant,
} from "../storage/index";
import type { Deps } from "./deps";

/** A record as a line of the register. */
export type RegisterLine = FilingRecord & {
  readonly filed: number;
  readonly open: number;
  readonly newest: Instant | null;
};

// All that a page of the register draws, and a picker while somebody types.
const MOST_IN_REGISTER = 500;
const MOST_TO_CHOOSE = 30;

/** The register: the records that a member may know of whose code or title has the text, with what is filed there. */
export async function register(deps: Deps, grant: TrayGrant, text: string): Promise<RegisterLine[]> {
  const [records, counts] = await Promise.all([
    recordsLike(deps.db, grant, text, MOST_IN_REGISTER),
    filedCounts(deps.db, grant),
  ]);
  return records.map((record) => {
    const count = counts.get(record.id);
    return { ...record, filed: count?.filed ?? 0, open: count?.open ?? 0, newest: count?.newest ?? null };
  });
}

/** The records to choose from when filing: those whose code or title has the text. */
export function recordsToFileOn(deps: Deps, grant: TrayGrant, text: string): Promise<FilingRecord[]> {
  return recordsLike(deps.db, grant, text, MOST_TO_CHOOSE);
}

export type RecordPage = {
  readonly record: FilingRecord;
  readonly parent: FilingRecord | null;
  readonly conversations: readonly (FiledConversation & { readonly messages: readonly FiledMessage[] })[];
};

const MESSAGES_SHOWN = 4;

/** A record with the correspondence filed on it, both sides, newest conversation first; null when there is none of this code. */
export async function recordPage(deps: Deps, grant: TrayGrant, code: string): Promise<RecordPage | null> {
  const record = await recordByCode(deps.db, grant, code);
  if (record === null) return null;
  const [parents, filed] = await Promise.all([
    recordsByIds(deps.db, grant, record.parentId === null ? [] : [record.parentId]),
    conversationsOnRecord(deps.db, grant, record.id),
  ]);
  const messages = await newestMessagesOf(
    deps.db,
    filed.map((conversation) => conversation.id),
    MESSAGES_SHOWN,
  );
  return {
    record,
    parent: parents[0] ?? null,
    conversations: filed.map((conversation) => ({
      ...conversation,
      messages: messages.filter((message) => message.conversationId === conversation.id),
    })),
  };
}
