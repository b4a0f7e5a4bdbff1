import type { Query, Term } from "../core/search/query";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { type RawSheetRow, SHEET_COLUMNS, type SheetRow, sheetRowOf } from "./sheet-row";
import type { TrayGrant } from "./trays";

/** A conversation with a message in it that has what was asked for. */
export type Found = SheetRow & { readonly hitText: string; readonly hitFrom: string };

// Hits that are looked at before they are gathered into conversations: a word that half of all mail has ends here.
const MAX_HITS = 1_000;

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
  const found = await knexOf(db).raw<{ rows: (RawSheetRow & { hit_text: string; hit_from: string })[] }>(
    /* sql */ `
    with hit as (
      select message_id, conversation_id, sent_at from message_search
      where tray_id = :trayId and vector @@ to_tsquery('simple', :query)
        and (:everywhere or not exists (select 1 from conversation
          where conversation.id = message_search.conversation_id and standing in ('bin', 'junk')))
      order by sent_at desc limit :maxHits
    ), newest as (
      select distinct on (conversation_id) conversation_id, message_id, sent_at from hit
      order by conversation_id, sent_at desc
    ), page as (
      select * from newest order by sent_at desc limit :limit
    )
    select ${SHEET_COLUMNS}, left(message_text.own_text || E'\\n' || message_text.rest_text, 20000) as hit_text,
      coalesce(nullif(message.from_name, ''), message.from_address) as hit_from
    from page
      join conversation as c on c.id = page.conversation_id
      join message on message.id = page.message_id
      join message_text on message_text.message_id = page.message_id
    order by page.sent_at desc`,
    {
      memberId: grant.memberId,
      trayId: grant.tray.id,
      query: query.terms.map(tsqueryOf).join(" & "),
      maxHits: MAX_HITS,
      everywhere: where === "everywhere",
      limit,
    },
  );
  return found.rows.map((row) => ({ ...sheetRowOf(row), hitText: row.hit_text, hitFrom: row.hit_from }));
}
