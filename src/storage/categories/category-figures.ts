import type { CategoryId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { OPEN_STANDINGS } from "../../core/lists/scope";
import type { StandingKind } from "../../core/standing/standing";
import { SEEN } from "../access/record-access";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { param } from "../base/rows";
import { ABOVE, allAbove, withAllUnder } from "../facts/category-tree-sql";

/** How many conversations of a tray have a category or one under it: those in an open standing, and in all. */
export type CategoryCount = { readonly id: CategoryId; readonly open: number; readonly all: number };

/** How many conversations of a tray each category has, with those under it. */
export async function countsByCategory(db: Database, grant: TrayGrant): Promise<CategoryCount[]> {
  const found = await ask<CategoryCount>(
    db,
    /* sql */ `
    with recursive ${ABOVE},
    given as (
      select category_ids, count(*) filter (where standing = any(:open)) as open, count(*) as "all"
      from conversation where tray_id = :trayId and joined_to is null and category_ids <> '{}' group by 1
    )
    select category as id, sum(open)::int as open, sum("all")::int as "all"
    from given cross join lateral ${allAbove("category_ids")} as under group by category`,
    { trayId: grant.tray.id, open: [...OPEN_STANDINGS] },
  );
  return found;
}

/** A cell of the matrix: the open conversations of a category (null: those without) that have this owner or standing. */
export type MatrixCell = {
  readonly category: CategoryId | null;
  readonly against: string | null;
  readonly count: number;
};

/** How many open conversations there are of each category, with those under it, against their owner or their standing. */
export async function matrixOfCategories(
  db: Database,
  grant: TrayGrant,
  against: "owner" | "standing",
): Promise<MatrixCell[]> {
  const column = { owner: "owner_id::text", standing: "standing" }[against];
  const found = await ask<MatrixCell>(
    db,
    /* sql */ `
    with recursive ${ABOVE},
    given as (
      select category_ids, ${column} as against, count(*) as count
      from conversation where tray_id = :trayId and standing = any(:open) and joined_to is null group by 1, 2
    )
    select category, against, sum(count)::int as count
    from given cross join lateral ${allAbove("category_ids")} as under group by 1, 2
    union all select null, against, count::int from given where category_ids = '{}'`,
    { trayId: grant.tray.id, open: [...OPEN_STANDINGS] },
  );
  return found;
}

/** What a category, with those under it, comes to in a tray. */
export type CategoryFigures = {
  readonly standings: readonly { readonly standing: StandingKind; readonly count: number }[];
  readonly records: readonly { readonly code: string; readonly title: string; readonly count: number }[];
  readonly people: readonly { readonly address: string; readonly name: string; readonly count: number }[];
  /** For each of the weeks up to `until`, oldest first: the conversations that began in it, and those settled in it. */
  readonly weeks: readonly { readonly began: number; readonly settled: number }[];
};

const MOST = 8;

/** The figures of a category, with those under it, in a tray; `weeks` weeks of seven days up to `until`. */
export async function figuresOfCategory(
  db: Database,
  grant: TrayGrant,
  id: CategoryId,
  { until, weeks }: { readonly until: Instant; readonly weeks: number },
): Promise<CategoryFigures> {
  const found = await ask<CategoryFigures>(
    db,
    /* sql */ `
    with given as materialized (
      select standing, standing_since, created_at, record_ids, who, who_address from conversation
      where tray_id = :trayId and joined_to is null and category_ids <> '{}'
        and category_ids && ${withAllUnder("array[:id]")}
    ),
    week as (select generate_series(:weeks - 1, 0, -1) as ago),
    bounds as (
      select ago, cast(:until as timestamptz) - (ago + 1) * interval '7 days' as opens,
        cast(:until as timestamptz) - ago * interval '7 days' as closes from week
    )
    select
      (select coalesce(jsonb_agg(one), '[]') from (select standing, count(*)::int as count from given group by 1) as one) as standings,
      (select coalesce(jsonb_agg(one), '[]') from (
        select code, title, count(*)::int as count from given, unnest(record_ids) as filed join record on record.id = filed and ${SEEN}
        group by 1, 2 order by 3 desc, 1 limit ${MOST}) as one) as records,
      (select coalesce(jsonb_agg(one), '[]') from (
        select who_address as address, max(who) as name, count(*)::int as count from given where who_address <> ''
        group by 1 order by 3 desc, 1 limit ${MOST}) as one) as people,
      (select jsonb_agg(one) from (
        select (select count(*)::int from given where created_at >= opens and created_at < closes) as began,
          (select count(*)::int from given
            where standing = 'settled' and standing_since >= opens and standing_since < closes) as settled
        from bounds order by ago desc) as one) as weeks`,
    { trayId: grant.tray.id, memberId: grant.memberId, id, until: param(until), weeks },
  );
  const [figures] = found;
  if (figures === undefined) throw new Error("counting gave no row");
  return figures;
}
