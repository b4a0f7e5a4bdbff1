import type { Instant } from "../../core/kernel/instant";
import { isUrgency, type Urgency, urgencyRank } from "../../core/kernel/urgency";
import type { Band } from "../../core/lists/bands";
import { type Dimension, type ListFilter, MINE, THEIRS, WITHOUT } from "../../core/lists/filter";
import { OPEN_STANDINGS, type Scope } from "../../core/lists/scope";
import { type Grouping, isDescending, type Order, type SheetView } from "../../core/lists/sheet-view";
import { dayAtHour } from "../../core/time/calendar-day";
import { SEEN, SEEN_IDS, UNFILED } from "../access/record-access";
import type { TrayGrant } from "../access/trays";
import { param } from "../base/rows";
import { withAllUnder } from "../facts/category-tree-sql";

/** A piece of SQL with the values of its `:named` parameters. */
export type Piece = { readonly sql: string; readonly values: Readonly<Record<string, unknown>> };

/** Which conversations a list is about. `now` and the bands are those of the viewer's clock. */
export type ListQuery = {
  readonly scope: Scope;
  readonly filter: ListFilter;
  readonly ageBands: readonly Band[];
};

/** Where a page of a list goes on: after the row with this key and id. */
export type Cursor = { readonly key: number | string; readonly id: string };

const UUID = /^[0-9a-f-]{36}$/;
const uuids = (values: readonly string[]) => values.filter((value) => UUID.test(value));

/** The conversations `c` of a tray that a list shows, whatever is left out of account when `without` is counted by. */
export function whereOf(grant: TrayGrant, { scope, filter, ageBands }: ListQuery, without?: Dimension): Piece {
  // Of one standing, so that the index gives its rows in their order and the first are found without the others.
  const standing = scope === "open" ? "c.standing = any(:standing)" : "c.standing = :standing";
  const conditions = ["c.tray_id = :trayId", standing, "c.joined_to is null"];
  const values: Record<string, unknown> = {
    trayId: grant.tray.id,
    memberId: grant.memberId,
    standing: scope === "open" ? [...OPEN_STANDINGS] : scope,
  };
  for (const [dimension, sqlOf] of Object.entries(FILTERS) as [Dimension, FilterSql][]) {
    const chosen = filter[dimension];
    if (chosen === undefined || dimension === without) continue;
    const piece = sqlOf(chosen, ageBands, grant);
    conditions.push(`(${piece.sql})`);
    Object.assign(values, piece.values);
  }
  return { sql: conditions.join(" and "), values };
}

type FilterSql = (values: readonly string[], ageBands: readonly Band[], grant: TrayGrant) => Piece;

// On one of these records, of those that she may know of: what she may not see finds nothing.
const filedOn = (ids: string) =>
  `c.record_ids && array(select record.id from record where record.id = any(${ids}) and ${SEEN})`;

/** The condition that the viewer has not read a conversation since its newest message came. */
export const UNREAD = /* sql */ `coalesce(c.last_in_at > coalesce((select read_at from reading
  where reading.member_id = :memberId and reading.conversation_id = c.id), '-infinity'), false)`;

const FILTERS: { readonly [D in Dimension]: FilterSql } = {
  owner: (values, _, grant) => {
    const mine = mineOf(grant);
    const parts = ["c.owner_id = any(cast(:owners as uuid[]))"];
    if (values.includes(WITHOUT)) parts.push("c.owner_id is null");
    if (values.includes(MINE)) parts.push(mine.sql);
    if (values.includes(THEIRS)) parts.push(`c.owner_id is not null and not (${mine.sql})`);
    return { sql: parts.join(" or "), values: { owners: uuids(values), ...mine.values } };
  },
  category: (values) => ({
    sql: `c.category_ids && ${withAllUnder(":categories")}${values.includes(WITHOUT) ? " or c.category_ids = '{}'" : ""}`,
    values: { categories: uuids(values) },
  }),
  record: (values) => ({
    sql: `${filedOn("cast(:records as uuid[])")}${values.includes(WITHOUT) ? ` or ${UNFILED}` : ""}`,
    values: { records: uuids(values) },
  }),
  person: (values) => ({ sql: "c.who_address = any(:people)", values: { people: [...values] } }),
  urgency: (values) => ({
    sql: "c.urgency = any(cast(:urgencies as smallint[]))",
    values: { urgencies: values.filter(isUrgency).map((urgency: Urgency) => urgencyRank(urgency)) },
  }),
  age: (values, bands) => {
    const chosen = bands.filter(({ key }) => values.includes(key));
    const parts = chosen.map((_, at) => `c.standing_since >= :ageFrom${at} and c.standing_since < :ageTo${at}`);
    const edges = chosen.flatMap(({ from, to }, at) => [
      [`ageFrom${at}`, edge(from, "-infinity")] as const,
      [`ageTo${at}`, edge(to, "infinity")] as const,
    ]);
    return { sql: parts.map((part) => `(${part})`).join(" or ") || "false", values: Object.fromEntries(edges) };
  },
  attachment: (values) => ({ sql: values.includes("yes") ? "c.has_attachment" : "not c.has_attachment", values: {} }),
  unread: (values) => ({ sql: values.includes("yes") ? UNREAD : `not ${UNREAD}`, values: {} }),
  list: (values) => ({ sql: "c.list_id = any(:lists)", values: { lists: [...values] } }),
  before: (values) => {
    const day = values.flatMap((value) => dayAtHour(value, 0, "UTC") ?? [])[0];
    // By the column of the index; what came back from a rest is looked at again, whenever its mail came.
    return day === undefined
      ? { sql: "false", values: {} }
      : { sql: "c.listed_at < cast(:beforeDay as timestamptz)", values: { beforeDay: param(day) } };
  },
};

// Her own, and what she covers for absent colleagues.
function mineOf({ covering }: TrayGrant): Piece {
  const parts = covering.map(
    (_, at) => `(c.owner_id = :covered${at} and c.record_ids @> cast(:coveredOn${at} as uuid[])
      and not c.record_ids && cast(:notCoveredOn${at} as uuid[]))`,
  );
  const values = covering.flatMap(({ ownerId, filedTo, notFiledTo }, at) => [
    [`covered${at}`, ownerId],
    [`coveredOn${at}`, [...filedTo]],
    [`notCoveredOn${at}`, [...notFiledTo]],
  ]);
  return { sql: ["c.owner_id = :memberId", ...parts].join(" or "), values: Object.fromEntries(values) };
}

/** The edges of bands as two arrays, open ones at infinity. */
export function bandEdges(bands: readonly Band[]): { froms: (Date | string)[]; tos: (Date | string)[] } {
  return { froms: bands.map(({ from }) => edge(from, "-infinity")), tos: bands.map(({ to }) => edge(to, "infinity")) };
}

function edge(at: Instant | null, open: "infinity" | "-infinity"): Date | string {
  return param(at) ?? open;
}

const ORDER_KEYS: Readonly<Record<Order, { readonly sql: string; readonly type: string }>> = {
  date: { sql: "c.listed_at", type: "timestamptz" },
  due: { sql: "coalesce(c.due_at, 'infinity')", type: "timestamptz" },
  urgency: { sql: "c.urgency", type: "smallint" },
  person: { sql: "lower(c.who)", type: "text" },
  subject: { sql: "lower(c.subject)", type: "text" },
  waiting: { sql: "c.standing_since", type: "timestamptz" },
};

/** The end of time as a number that JSON can carry. */
const NO_DATE = 9e15;

/** The order of a list, and where a page begins: always by one key and the id, so that an index or one sort gives it. */
export function orderOf(
  view: Pick<SheetView, "order" | "reversed">,
  after: Cursor | null,
): Piece & { readonly after: string } {
  const { sql, type } = ORDER_KEYS[view.order];
  const direction = isDescending(view) ? "desc" : "asc";
  const beyond = isDescending(view) ? "<" : ">";
  return {
    sql: `${sql} ${direction}, c.id ${direction}`,
    after: after === null ? "true" : `(${sql}, c.id) ${beyond} (cast(:afterKey as ${type}), cast(:afterId as uuid))`,
    values: after === null ? {} : { afterKey: cursorValue(type, after.key), afterId: after.id },
  };
}

function cursorValue(type: string, key: number | string): string | number {
  if (type === "smallint") return Number(key);
  if (type === "text") return String(key);
  return Number(key) >= NO_DATE ? "infinity" : new Date(Number(key)).toISOString();
}

/** The key of the order as every row carries it: milliseconds, pace marks, or text. */
export function sortKeySql(order: Order): string {
  const { sql, type } = ORDER_KEYS[order];
  if (type !== "timestamptz") return `to_jsonb(${sql})`;
  return `to_jsonb(case when isfinite(${sql}) then extract(epoch from ${sql}) * 1000 else ${NO_DATE} end)`;
}

/** The groups of a grouping: the column whose values they are, or the bands. */
export const GROUP_COLUMNS: Readonly<Record<Exclude<Grouping, "day" | "due">, string>> = {
  owner: "coalesce(c.owner_id::text, '')",
  category: "unnest(case when c.category_ids = '{}' then array[''] else c.category_ids::text[] end)",
  record: `unnest(case when ${UNFILED} then array[''] else (${SEEN_IDS})::text[] end)`,
  person: "c.who_address",
  urgency: "c.urgency::text",
  standing: "c.standing",
};

export const BAND_COLUMNS = { day: "c.listed_at", due: "c.due_at" } as const;

/**
 * The condition that a conversation stands in a group; null groups nothing. `bands` are those of a grouping by time; `at`
 * tells the parameters of several groups in one statement apart.
 */
export function groupCondition(grouping: Grouping | null, key: string, bands: readonly Band[], at = 0): Piece {
  const without = key === WITHOUT;
  const [keyName, toName] = [`groupKey${at}`, `groupTo${at}`];
  const is = (sql: string, value?: unknown): Piece => ({
    sql,
    values: value === undefined ? {} : { [keyName]: value },
  });
  const isId = (sql: string) => (UUID.test(key) ? is(sql, key) : is("false"));
  switch (grouping) {
    case null:
      return { sql: "true", values: {} };
    case "owner":
      return without ? is("c.owner_id is null") : isId(`c.owner_id = cast(:${keyName} as uuid)`);
    case "category":
      return without ? is("c.category_ids = '{}'") : isId(`c.category_ids @> array[cast(:${keyName} as uuid)]`);
    case "record":
      return without ? is(UNFILED) : isId(filedOn(`array[cast(:${keyName} as uuid)]`));
    case "person":
      return is(`c.who_address = :${keyName}`, without ? "" : key);
    case "urgency":
      return is(`c.urgency = :${keyName}`, isUrgency(key) ? urgencyRank(key) : -1);
    case "standing":
      return is(`c.standing = :${keyName}`, key);
    case "day":
    case "due": {
      const column = BAND_COLUMNS[grouping];
      if (without) return is(`${column} is null`);
      const band = bands.find((one) => one.key === key);
      if (band === undefined) return is("false");
      return {
        sql: `${column} >= cast(:${keyName} as timestamptz) and ${column} < cast(:${toName} as timestamptz)`,
        values: { [keyName]: edge(band.from, "-infinity"), [toName]: edge(band.to, "infinity") },
      };
    }
  }
}
