import { type ConversationId, trustedId } from "../../core/kernel/ids";
import { urgencyOfRank } from "../../core/kernel/urgency";
import type { Band } from "../../core/lists/bands";
import { type MenuDimension, WITHOUT } from "../../core/lists/filter";
import type { Placed } from "../../core/lists/lanes";
import type { Grouping, SheetView } from "../../core/lists/sheet-view";
import type { Sayable } from "../../texts/said";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { runPrepared } from "../base/prepared";
import { ABOVE, allAbove } from "../facts/category-tree-sql";
import {
  BAND_COLUMNS,
  bandEdges,
  type Cursor,
  GROUP_COLUMNS,
  groupCondition,
  type ListQuery,
  orderOf,
  type Piece,
  sortKeySql,
  UNREAD,
  whereOf,
} from "./sheet-query";
import { type RawSheetRow, SHEET_COLUMNS, type SheetRow, sheetRowOf } from "./sheet-row";

/** A row of a list with its place in the order. */
export type ListedRow = SheetRow & Placed;

/** How many conversations stand in a group; the key `WITHOUT` is the group of those without. `name` where the group has no other. */
export type GroupCount = { readonly key: string; readonly count: number; readonly name: Sayable };

/** What the rows of a list are in groups of: the grouping, and its bands where it is one by time. */
export type Groups = { readonly grouping: Grouping | null; readonly bands: readonly Band[] };

// A list by person has as many groups as there are people; further ones would never be scrolled to.
const MAX_GROUPS = 500;

type RawListed = RawSheetRow & { sort_key: number | string; group_key: string };

/** How many conversations a list shows. */
export async function countOfList(db: Database, grant: TrayGrant, query: ListQuery): Promise<number> {
  const where = whereOf(grant, query);
  const sql = /* sql */ `select count(*)::int as count from conversation as c where ${where.sql}`;
  const found = await runUsual<{ count: number }>(db, query, { sql, values: where.values });
  return found[0]?.count ?? 0;
}

/** How many stand in each group of a list, the greatest first; groups by time in the order of their bands, empty ones left out. */
export function groupCounts(
  db: Database,
  grant: TrayGrant,
  query: ListQuery,
  { grouping, bands }: Groups & { readonly grouping: Grouping },
): Promise<GroupCount[]> {
  const where = whereOf(grant, query);
  return grouping === "day" || grouping === "due"
    ? bandCounts(db, query, where, BAND_COLUMNS[grouping], bands)
    : valueCounts(db, where, grouping);
}

async function bandCounts(
  db: Database,
  query: ListQuery,
  where: Piece,
  column: string,
  bands: readonly Band[],
): Promise<GroupCount[]> {
  const { froms, tos } = bandEdges(bands);
  const rows = await runUsual<{ at: number | null; count: number }>(db, query, {
    // Each band is a stretch of an index; one pass over all would compare every row with every band.
    sql: /* sql */ `
    select band.at::int as at, counted.count
    from unnest(cast(:froms as timestamptz[]), cast(:tos as timestamptz[])) with ordinality as band(opens, closes, at)
      cross join lateral (select count(*)::int as count from conversation as c
        where ${where.sql} and ${column} >= band.opens and ${column} < band.closes) as counted
    union all
    select null, count(*)::int from conversation as c where ${where.sql} and ${column} is null`,
    values: { ...where.values, froms, tos },
  });
  return rows.flatMap(({ at, count }) => {
    const band = at === null ? null : bands[at - 1];
    return count === 0 ? [] : [{ key: band?.key ?? WITHOUT, name: band?.name ?? "", count }];
  });
}

async function valueCounts(
  db: Database,
  where: Piece,
  grouping: Exclude<Grouping, "day" | "due">,
): Promise<GroupCount[]> {
  const name = grouping === "person" ? "max(c.who)" : "''";
  const rows = await run<{ value: string; name: string; count: number }>(db, {
    sql: /* sql */ `
    select ${GROUP_COLUMNS[grouping]} as value, ${name} as name, count(*)::int as count
    from conversation as c where ${where.sql}
    group by value order by count desc, value limit ${MAX_GROUPS}`,
    values: where.values,
  });
  return rows.map(({ value, name: words, count }) => ({ key: groupKey(grouping, value), name: words, count }));
}

function groupKey(grouping: Grouping, value: string): string {
  if (grouping === "urgency") return urgencyOfRank(Number(value));
  return value === "" ? WITHOUT : value;
}

/** How many a list would show for each value of one dimension, whatever is chosen of it now. */
export async function filterCounts(
  db: Database,
  grant: TrayGrant,
  query: ListQuery,
  dimension: MenuDimension,
): Promise<GroupCount[]> {
  const where = whereOf(grant, query, dimension);
  if (dimension === "age") return bandCounts(db, query, where, "c.standing_since", query.ageBands);
  if (dimension === "category") return categoryCounts(db, where);
  if (dimension !== "attachment" && dimension !== "unread") return valueCounts(db, where, dimension);
  const condition = dimension === "attachment" ? "c.has_attachment" : UNREAD;
  const rows = await run<{ is: boolean; count: number }>(db, {
    sql: /* sql */ `select ${condition} as is, count(*)::int as count from conversation as c where ${where.sql} group by 1`,
    values: where.values,
  });
  return rows
    .toSorted((a, b) => Number(b.is) - Number(a.is))
    .map(({ is, count }) => ({ key: is ? "yes" : "no", name: "", count }));
}

// What has a category is under all those above it as well, once under each. There are few combinations of categories,
// however many conversations have them, so that these are counted first.
async function categoryCounts(db: Database, where: Piece): Promise<GroupCount[]> {
  const rows = await run<{ value: string; count: number }>(db, {
    sql: /* sql */ `
    with recursive ${ABOVE},
    given as (select c.category_ids as ids, count(*) as count from conversation as c where ${where.sql} group by 1)
    select category::text as value, sum(count)::int as count
    from given cross join lateral ${allAbove("given.ids")} as under
    group by category
    union all select '', count::int from given where ids = '{}'`,
    values: where.values,
  });
  return rows
    .toSorted((a, b) => b.count - a.count)
    .map(({ value, count }) => ({ key: groupKey("category", value), name: "", count }));
}

/** The first rows of some groups, each with its key: one statement, however many there are. */
export async function firstRows(
  db: Database,
  grant: TrayGrant,
  query: ListQuery,
  view: Pick<SheetView, "order" | "reversed">,
  groups: Groups,
  wanted: readonly { readonly key: string; readonly limit: number }[],
): Promise<Map<string, ListedRow[]>> {
  const found = new Map<string, ListedRow[]>(wanted.map(({ key }) => [key, []]));
  if (wanted.length === 0) return found;
  const parts = wanted.map(({ key, limit }, at) => rowsOf(grant, query, view, groups, { key, limit, after: null, at }));
  const rows = await runUsual<RawListed>(
    db,
    query,
    {
      sql: parts.map(({ sql }) => `(${sql})`).join(" union all "),
      values: Object.assign({}, ...parts.map(({ values }) => values)),
    },
    parts.length,
  );
  for (const row of rows) found.get(row.group_key)?.push(listedOf(row));
  return found;
}

/** The next rows of one group after a row. */
export async function nextRows(
  db: Database,
  grant: TrayGrant,
  query: ListQuery,
  view: Pick<SheetView, "order" | "reversed">,
  groups: Groups,
  page: { readonly key: string; readonly after: Cursor; readonly limit: number },
): Promise<ListedRow[]> {
  const rows = await run<RawListed>(db, rowsOf(grant, query, view, groups, { ...page, at: 0 }));
  return rows.map(listedOf);
}

/** Those of some conversations that a list shows, in no order. */
export async function rowsAmong(
  db: Database,
  grant: TrayGrant,
  query: ListQuery,
  view: Pick<SheetView, "order" | "reversed">,
  ids: readonly ConversationId[],
): Promise<ListedRow[]> {
  const where = whereOf(grant, query);
  const rows = await runUsual<RawListed>(db, query, {
    sql: /* sql */ `select ${SHEET_COLUMNS}, ${sortKeySql(view.order)} as sort_key from conversation as c
      where ${where.sql} and c.id = any(cast(:ids as uuid[]))`,
    values: { ...where.values, ids: [...ids] },
  });
  return rows.map(listedOf);
}

/** The ids of all that a list shows, or of one of its groups, at most `limit`, in the order of the list. */
export async function idsOfList(
  db: Database,
  grant: TrayGrant,
  query: ListQuery,
  view: Pick<SheetView, "order" | "reversed">,
  groups: Groups & { readonly key: string | null },
  limit: number,
): Promise<ConversationId[]> {
  const where = whereOf(grant, query);
  const group = groupCondition(groups.key === null ? null : groups.grouping, groups.key ?? "", groups.bands);
  const rows = await run<{ id: string }>(db, {
    sql: /* sql */ `select c.id from conversation as c where ${where.sql} and ${group.sql}
      order by ${orderOf(view, null).sql} limit :limit`,
    values: { ...where.values, ...group.values, limit },
  });
  return rows.map(({ id }) => trustedId<ConversationId>(id));
}

function rowsOf(
  grant: TrayGrant,
  query: ListQuery,
  view: Pick<SheetView, "order" | "reversed">,
  { grouping, bands }: Groups,
  { key, limit, after, at }: { key: string; limit: number; after: Cursor | null; at: number },
): Piece {
  const where = whereOf(grant, query);
  const group = groupCondition(grouping, key, bands, at);
  const order = orderOf(view, after);
  return {
    sql: /* sql */ `
    select ${SHEET_COLUMNS}, ${sortKeySql(view.order)} as sort_key, cast(:laneKey${at} as text) as group_key
    from conversation as c
    where ${where.sql} and ${group.sql} and ${order.after}
    order by ${order.sql} limit :limit${at}`,
    values: { ...where.values, ...group.values, ...order.values, [`laneKey${at}`]: key, [`limit${at}`]: limit },
  };
}

function listedOf(row: RawListed): ListedRow {
  return { ...sheetRowOf(row), sortKey: row.sort_key };
}

// Lists are mostly looked at as they are; however one filters them, or of many groups, there would be a plan of each.
const MOST_PARTS = 3;

function runUsual<Row extends object>(db: Database, { filter }: ListQuery, piece: Piece, parts = 1): Promise<Row[]> {
  const isUsual = Object.keys(filter).length === 0 && parts <= MOST_PARTS;
  return isUsual ? runPrepared(db, piece.sql, piece.values) : run(db, piece);
}

async function run<Row>(db: Database, { sql, values }: Piece): Promise<Row[]> {
  const found = await ask<Row>(db, sql, values);
  return found;
}

/** True once a tray has had mail, whatever became of it. */
export async function everHadMail(db: Database, { tray }: TrayGrant): Promise<boolean> {
  return (await knexOf(db)("conversation").where({ tray_id: tray.id }).first("id")) !== undefined;
}
