import { type ConversationId, type RecordId, trustedId } from "../../core/kernel/ids";
import type { Query, Term } from "../../core/search/query";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { type RawSheetRow, SHEET_COLUMNS, type SheetRow, sheetRowOf } from "./sheet-row";

/** A conversation with a message in it that has what was asked for. */
export type Found = SheetRow & {
  readonly hitText: string;
  readonly hitFrom: string;
  /** The name of a file that it carries which has all that was asked for; null where none has. */
  readonly hitFile: string | null;
};

// Hits that are looked at before they are gathered into conversations: a word that half of all mail has ends here.
const MAX_HITS = 600;

// Terms hold letters and digits only, so nothing in them can be taken for tsquery syntax.
function tsqueryOf(term: Term): string {
  switch (term.kind) {
    case "word":
      return `'${term.text}'`;
    case "beginning":
      return `'${term.text}':*`;
    case "phrase":
      return `(${term.words.map((word) => `'${word}'`).join(" <-> ")})`;
  }
}

/** What was asked for, as PostgreSQL's text search takes it. */
export const tsqueryText = ({ terms }: Query) => terms.map(tsqueryOf).join(" & ");

/**
 * The conversations of a tray with a message that has every term, the newest hit first, each with that hit. What was thrown
 * away (bin and junk) is left out unless one looks `everywhere`.
 */
export async function searchConversations(
  db: Database,
  grant: TrayGrant,
  query: Query,
  limit: number,
  where: "kept" | "everywhere" = "kept",
): Promise<Found[]> {
  const asked = { memberId: grant.memberId, trayId: grant.tray.id, query: tsqueryText(query), limit };
  const among = (hits: string) => searched(db, hits, { ...asked, everywhere: where === "everywhere" });
  const found = await among(NEWEST_HITS);
  // Where nearly all of the newest hits are thrown away, what is behind them is looked at as well.
  return found.rows.length >= limit || found.hits < MAX_HITS ? found.rows : (await among(NEWEST_KEPT_HITS)).rows;
}

const NEWEST_HITS = /* sql */ `
  select message_id, conversation_id, sent_at from message_search
  where tray_id = :trayId and vector @@ to_tsquery('simple', :query)
  order by sent_at desc limit ${MAX_HITS}`;
// Asked for in the same step, what is thrown away would be looked up for every hit there is: five times as long.
const NEWEST_KEPT_HITS = /* sql */ `
  select message_id, conversation_id, sent_at from message_search
  where tray_id = :trayId and vector @@ to_tsquery('simple', :query)
    and not exists (select 1 from conversation
      where conversation.id = message_search.conversation_id and standing in ('bin', 'junk'))
  order by sent_at desc limit ${MAX_HITS}`;

type FoundRow = RawSheetRow & { hit_text: string; hit_from: string; hit_file: string | null; hits: number };

async function searched(
  db: Database,
  hits: string,
  parameters: Readonly<Record<string, unknown>>,
): Promise<{ readonly rows: Found[]; readonly hits: number }> {
  const found = await ask<FoundRow>(
    db,
    /* sql */ `
    with hit as materialized (${hits}
    ), kept as (
      select * from hit where :everywhere or not exists (select 1 from conversation
        where conversation.id = hit.conversation_id and standing in ('bin', 'junk'))
    ), newest as (
      select distinct on (conversation_id) conversation_id, message_id, sent_at from kept
      order by conversation_id, sent_at desc
    ), page as (
      select * from newest order by sent_at desc limit :limit
    )
    select ${SHEET_COLUMNS}, left(message_text.own_text || E'\\n' || message_text.rest_text, 20000) as hit_text,
      coalesce(nullif(message.from_name, ''), message.from_address) as hit_from,
      (select message.attachments->words.attachment->>'fileName' from attachment_words as words
        where words.message_id = page.message_id and words.vector @@ to_tsquery('simple', :query)
        order by words.attachment limit 1) as hit_file,
      (select count(*)::int from hit) as hits
    from page
      join conversation as c on c.id = page.conversation_id
      join message on message.id = page.message_id
      join message_text on message_text.message_id = page.message_id
    order by page.sent_at desc`,
    parameters,
  );
  const rows = found.map((row) => ({
    ...sheetRowOf(row),
    hitText: row.hit_text,
    hitFrom: row.hit_from,
    hitFile: row.hit_file,
  }));
  // Of hits that are all thrown away nothing says how many they were.
  return { rows, hits: found[0]?.hits ?? MAX_HITS };
}

/** The conversations of a tray with a message that has every term, the oldest first; as in a search, but all of them. */
export async function conversationsWith(
  db: Database,
  grant: TrayGrant,
  query: Query,
  where: "kept" | "everywhere",
): Promise<ConversationId[]> {
  const found = await ask<{ id: string }>(
    db,
    /* sql */ `
    select c.id from conversation as c
    where c.tray_id = :trayId and c.joined_to is null and (:everywhere or c.standing not in ('bin', 'junk'))
      and c.id in (select conversation_id from message_search
        where tray_id = :trayId and vector @@ to_tsquery('simple', :query))
    order by c.last_message_at, c.id`,
    { trayId: grant.tray.id, query: tsqueryText(query), everywhere: where === "everywhere" },
  );
  return found.map(({ id }) => trustedId<ConversationId>(id));
}

/** The same of the conversations on a record, in whichever trays she may look into. */
export async function conversationsOnRecordWith(
  db: Database,
  grant: TrayGrant,
  recordId: RecordId,
  query: Query,
): Promise<ConversationId[]> {
  const found = await ask<{ id: string }>(
    db,
    /* sql */ `
    select c.id from conversation as c
      join tray_member on tray_member.tray_id = c.tray_id and tray_member.member_id = :memberId
    where c.record_ids @> array[cast(:recordId as uuid)] and c.joined_to is null
      and exists (select 1 from message_search where message_search.conversation_id = c.id
        and vector @@ to_tsquery('simple', :query))`,
    { memberId: grant.memberId, recordId, query: tsqueryText(query) },
  );
  return found.map(({ id }) => trustedId<ConversationId>(id));
}
