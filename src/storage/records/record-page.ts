import { type ConversationId, type RecordId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { OPEN_STANDINGS } from "../../core/lists/scope";
import type { Query } from "../../core/search/query";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { at } from "../base/rows";
import { tsqueryText } from "../lists/search-messages";
import { type RawSheetRow, SHEET_COLUMNS, type SheetRow, sheetRowOf } from "../lists/sheet-row";

/** A conversation filed on a record, with the tray it lives in. */
export type FiledConversation = SheetRow & { readonly traySlug: string };

/** Which of the conversations on a record are listed: those with a message that has what is asked for, at most so many. */
export type Within = { readonly query: Query; readonly most: number };

/**
 * The conversations filed on a record that the viewer may see, in whichever of her trays: open ones first, and the newest
 * message first in each half.
 */
export async function conversationsOnRecord(
  db: Database,
  grant: TrayGrant,
  recordId: RecordId,
  { query, most }: Within,
): Promise<FiledConversation[]> {
  const isSearched = query.terms.length > 0;
  const hit = /* sql */ `and exists (select 1 from message_search where message_search.conversation_id = c.id
    and vector @@ to_tsquery('simple', :query))`;
  const found = await ask<RawSheetRow & { tray_slug: string }>(
    db,
    /* sql */ `
    select ${SHEET_COLUMNS}, tray.slug as tray_slug
    from conversation as c join tray on tray.id = c.tray_id
      join tray_member on tray_member.tray_id = c.tray_id and tray_member.member_id = :memberId
    where c.record_ids @> array[cast(:recordId as uuid)] and c.joined_to is null ${isSearched ? hit : ""}
    order by c.standing = any(:open) desc, c.last_message_at desc, c.id desc limit :most`,
    {
      memberId: grant.memberId,
      recordId,
      most,
      open: [...OPEN_STANDINGS],
      ...(isSearched ? { query: tsqueryText(query) } : {}),
    },
  );
  return found.map((row) => ({ ...sheetRowOf(row), traySlug: row.tray_slug }));
}

/** How many conversations are on a record in the trays that the viewer may look into, and how many of them are open. */
export async function countOnRecord(
  db: Database,
  grant: TrayGrant,
  recordId: RecordId,
): Promise<{ readonly filed: number; readonly open: number }> {
  const found = await ask<{ filed: number; open: number }>(
    db,
    /* sql */ `
    select count(*)::int as filed, count(*) filter (where c.standing = any(:open))::int as open
    from conversation as c join tray_member on tray_member.tray_id = c.tray_id and tray_member.member_id = :memberId
    where c.record_ids @> array[cast(:recordId as uuid)] and c.joined_to is null`,
    { memberId: grant.memberId, recordId, open: [...OPEN_STANDINGS] },
  );
  return found[0] ?? { filed: 0, open: 0 };
}

/** A month of a record, as ISO 8601 `YYYY-MM`: how many messages came in it and how many went. */
export type RecordMonth = { readonly month: string; readonly came: number; readonly went: number };

/** The months in which anything was written on a record, in a time zone, the oldest first; at most the newest so many. */
export async function activityOnRecord(
  db: Database,
  grant: TrayGrant,
  recordId: RecordId,
  { zone, most }: { readonly zone: string; readonly most: number },
): Promise<RecordMonth[]> {
  const found = await ask<RecordMonth>(
    db,
    /* sql */ `
    with filed as materialized (
      select c.id from conversation as c
        join tray_member on tray_member.tray_id = c.tray_id and tray_member.member_id = :memberId
      where c.record_ids @> array[cast(:recordId as uuid)] and c.joined_to is null
    ), month as (
      select to_char(sent_at at time zone :zone, 'YYYY-MM') as month,
        count(*) filter (where direction = 'in')::int as came, count(*) filter (where direction = 'out')::int as went
      from filed join message on message.conversation_id = filed.id
      where delivery is distinct from 'withdrawn'
      group by 1 order by 1 desc limit :most
    ) select * from month order by month`,
    { memberId: grant.memberId, recordId, zone, most },
  );
  return found;
}

/** A message as one line of a record's correspondence. */
export type FiledMessage = {
  readonly conversationId: ConversationId;
  readonly direction: "in" | "out";
  readonly fromName: string;
  readonly ownText: string;
  readonly sentAt: Instant;
};

/** The newest messages of each of these conversations, oldest first, at most `perConversation` each, in one query. */
export async function newestMessagesOf(
  db: Database,
  ids: readonly ConversationId[],
  perConversation: number,
): Promise<FiledMessage[]> {
  const found = await ask<{
    conversation_id: string;
    direction: "in" | "out";
    from_name: string;
    own_text: string;
    sent_at: Date;
  }>(
    db,
    /* sql */ `
    select newest.* from unnest(cast(:ids as uuid[])) as wanted(id) cross join lateral (
      select message.id, conversation_id, direction, coalesce(nullif(from_name, ''), from_address) as from_name,
        left(own_text, 400) as own_text, sent_at
      from message join message_text on message_text.message_id = message.id
      where conversation_id = wanted.id order by sent_at desc, message.id desc limit :limit
    ) as newest order by sent_at, id`,
    { ids: [...ids], limit: perConversation },
  );
  return found.map((row) => ({
    conversationId: trustedId<ConversationId>(row.conversation_id),
    direction: row.direction,
    fromName: row.from_name,
    ownText: row.own_text,
    sentAt: at(row.sent_at),
  }));
}
