import { givenCategories } from "../../core/docket/given-categories";
import type { JournalEntry } from "../../core/journal/entry";
import type { CategoryId } from "../../core/kernel/ids";
import { OPEN_STANDINGS } from "../../core/lists/scope";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { replacedCategories } from "../facts/categories";
import { ENTRY_COLUMNS, entryOf } from "../facts/conversation-facts";

/** What uses a category, in all trays. */
export type CategoryUses = {
  readonly conversations: number;
  /** Those of them that are in an open standing. */
  readonly open: number;
  /** Follow-ups not done yet on its conversations. */
  readonly followUps: number;
  readonly views: number;
  /** Places on shelves. */
  readonly places: number;
  /** Rules that give it. */
  readonly rules: number;
  readonly contacts: number;
};

/** What uses a category now. */
export async function usesOfCategory(db: Database, id: CategoryId): Promise<CategoryUses> {
  const found = await ask<CategoryUses>(
    db,
    /* sql */ `
    with given as (select id, standing from conversation where category_ids @> array[cast(:id as uuid)]
        and category_ids <> '{}' and joined_to is null)
    select (select count(*)::int from given) as conversations,
      (select count(*)::int from given where standing = any(:open)) as open,
      (select count(*)::int from follow_up join given on given.id = conversation_id where done_at is null) as "followUps",
      (select count(*)::int from saved_view where query like :inQuery) as views,
      (select count(*)::int from place where kind = 'category' and target = :text) as places,
      (select count(*)::int from rule
        where removed_at is null and strpos(concat(condition, exception, actions), :text) > 0) as rules,
      (select count(*)::int from contact where removed_at is null and category_ids <> '{}'
        and category_ids @> array[cast(:id as uuid)]) as contacts`,
    { id, text: id, open: [...OPEN_STANDINGS], inQuery: `%category=${id}%` },
  );
  const [uses] = found;
  if (uses === undefined) throw new Error("counting gave no row");
  return uses;
}

/** The saved views, of whomever, that are filtered by a category. */
export async function viewsWithCategory(trx: Transaction, id: CategoryId): Promise<{ id: string; query: string }[]> {
  return knexOf(trx)("saved_view").select("id", "query").where("query", "like", `%category=${id}%`).forUpdate();
}

/** Filters a saved view otherwise. */
export async function requery(trx: Transaction, viewId: string, query: string): Promise<void> {
  await knexOf(trx)("saved_view").where("id", viewId).update({ query });
}

/** Lets what stands for a category on shelves stand for another, once on each shelf; or takes it off. */
export async function repointPlaces(
  trx: Transaction,
  kind: "category" | "record",
  from: string,
  to: string | null,
): Promise<void> {
  const places = () => knexOf(trx)("place").where({ kind, target: from });
  if (to !== null) {
    await places()
      .whereNotExists(
        knexOf(trx)("place as other")
          .select(knexOf(trx).raw("1"))
          .where({ "other.kind": kind, "other.target": to })
          .whereRaw("other.tray_id = place.tray_id and other.member_id is not distinct from place.member_id"),
      )
      .update({ target: to });
  }
  await places().delete();
}

/**
 * Works out anew which categories the conversations have in whose journal one of `ids` stands, for when categories ended or
 * came back; gives how many came to have others than before.
 */
export async function refoldCategories(trx: Transaction, ids: readonly CategoryId[]): Promise<number> {
  const held = await lockThoseWithEntries(trx, ids);
  const found = await ask<CategoryEntryRow>(
    trx,
    /* sql */ `
    select ${ENTRY_COLUMNS.join(", ")} from journal as entry
    where conversation_id = any(:held) and effect->>'categoryId' is not null and undoes is null
      and not exists (select 1 from journal as undo where undo.undoes = entry.id)
    order by conversation_id, version`,
    { held },
  );
  const entries = new Map<string, JournalEntry[]>(held.map((id) => [id, []]));
  for (const row of found) {
    const own = entries.get(row.conversation_id) ?? [];
    own.push(entryOf(row));
    entries.set(row.conversation_id, own);
  }
  const replacements = await replacedCategories(trx);
  const kept = [...entries].map(([id, own]) => ({ id, categories: givenCategories(own, replacements) }));
  return saveGiven(trx, kept);
}

async function lockThoseWithEntries(trx: Transaction, ids: readonly CategoryId[]): Promise<string[]> {
  let held: string[] = [];
  // Whoever holds one while this waits for it may have moved its entries into another conversation, which is held then.
  for (let before = -1; before < held.length; ) {
    before = held.length;
    const found = await ask<{ id: string }>(
      trx,
      /* sql */ `
      select id from conversation where id in (select conversation_id from journal where effect->>'categoryId' = any(:ids))
      order by id for update`,
      { ids: [...ids] },
    );
    held = found.map(({ id }) => id);
  }
  return held;
}

type CategoryEntryRow = Parameters<typeof entryOf>[0] & { readonly conversation_id: string };

async function saveGiven(
  trx: Transaction,
  kept: readonly { readonly id: string; readonly categories: readonly CategoryId[] }[],
): Promise<number> {
  const changed = await ask<{ joined: boolean }>(
    trx,
    /* sql */ `
    with changed as (
    update conversation set category_ids = kept.categories
    from jsonb_to_recordset(cast(:kept as jsonb)) as kept(id uuid, categories uuid[])
    where conversation.id = kept.id and category_ids <> kept.categories
    returning conversation.id, joined_to is not null as joined
    ), due as (
      insert into filing_due (conversation_id, seen) select id, false from changed
    )
    select joined from changed`,
    { kept: JSON.stringify(kept) },
  );
  return changed.filter(({ joined }) => !joined).length;
}

/** How many conversations have a category that no list of their tray knows; there must be none. */
export async function lostCategories(db: Database): Promise<number> {
  const found = await ask<{ count: number }>(
    db,
    /* sql */ `
    select count(distinct id)::int as count from conversation, unnest(category_ids) as given
    where not exists (select 1 from category where category.id = given and removed_at is null
      and (category.tray_id is null or category.tray_id = conversation.tray_id))`,
  );
  return found[0]?.count ?? 0;
}
