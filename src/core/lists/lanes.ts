/** A row with its place in the order of the list. */
export type Placed = { readonly id: string; readonly sortKey: number | string };

/** A group of a list: how many stand in it, and those of them that are loaded, from its top without gaps. */
export type Lane<Row extends Placed, Name = string> = {
  readonly key: string;
  readonly name: Name;
  readonly count: number;
  readonly rows: readonly Row[];
};

/** What the server says of conversations that changed: those that the list shows, with the lanes each stands in now. */
export type LaneChanges<Row extends Placed, Name = string> = {
  /** All that changed; those without a row have left the list. */
  readonly ids: readonly string[];
  readonly rows: readonly { readonly row: Row; readonly laneKeys: readonly string[] }[];
  /** Every lane there is now, in order. */
  readonly lanes: readonly { readonly key: string; readonly name: Name; readonly count: number }[];
};

/** The same for a whole list, with how many conversations it shows now: fewer than its lanes hold where one stands in several. */
export type ListChanges<Row extends Placed, Name = string> = LaneChanges<Row, Name> & { readonly total: number };

/** What a reader's list does not do while she looks at it: show these, and lose or move those. */
export type Held = { readonly notShown: ReadonlySet<string>; readonly kept: ReadonlySet<string> };

export const NOTHING_HELD: Held = { notShown: new Set(), kept: new Set() };

/** Less than nothing when `a` stands above `b`: by the key, then by the id, both in the direction of the list. */
export function comparePlaced(a: Placed, b: Placed, descending: boolean): number {
  const order = compare(a.sortKey, b.sortKey) || compare(a.id, b.id);
  return descending ? -order : order;
}

function compare(a: number | string, b: number | string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

/** The lanes with the next page of one of them; rows that are there already stay as they are. */
export function withPage<Row extends Placed>(
  lanes: readonly Lane<Row>[],
  key: string,
  page: readonly Row[],
): Lane<Row>[] {
  return lanes.map((lane) => {
    if (lane.key !== key) return lane;
    const known = new Set(lane.rows.map(({ id }) => id));
    const rows = [...lane.rows, ...page.filter(({ id }) => !known.has(id))];
    // An empty page says that the end is reached, whatever was counted before.
    return { ...lane, rows, count: page.length === 0 ? rows.length : Math.max(lane.count, rows.length) };
  });
}

/**
 * The lanes after changes: rows replaced, moved, taken out and put in where they belong, as far as the lane is loaded. What
 * is held stays as it is seen: rows that are kept keep their place, rows that are not to be shown yet are counted only.
 */
export function withChanges<Row extends Placed>(
  lanes: readonly Lane<Row>[],
  changes: LaneChanges<Row>,
  descending: boolean,
  held: Held = NOTHING_HELD,
): Lane<Row>[] {
  const changed = new Set(changes.ids);
  const known = new Map(lanes.map((lane) => [lane.key, lane]));
  const merged = changes.lanes.map(({ key, name, count }) => {
    const before = known.get(key)?.rows ?? [];
    const isWhole = before.length >= (known.get(key)?.count ?? 0);
    const now = new Map(
      changes.rows.flatMap(({ row, laneKeys }) => (laneKeys.includes(key) ? [[row.id, row] as const] : [])),
    );
    const stay = before.flatMap((row) => {
      if (!changed.has(row.id)) return [row];
      if (!held.kept.has(row.id)) return [];
      const fresh = now.get(row.id);
      now.delete(row.id);
      return [fresh === undefined ? row : { ...fresh, sortKey: row.sortKey }];
    });
    const last = stay.at(-1);
    const rows = [...stay];
    for (const row of now.values()) {
      const wasThere = before.some(({ id }) => id === row.id);
      if (!wasThere && held.notShown.has(row.id)) continue;
      const within = last !== undefined && comparePlaced(row, last, descending) < 0;
      if (within || isWhole) insert(rows, row, descending);
    }
    return { key, name, count: Math.max(count, rows.length), rows };
  });
  // A lane that emptied goes, unless somebody still looks at a row of it.
  const gone = lanes.filter((lane) => !changes.lanes.some(({ key }) => key === lane.key));
  const lingering = gone.flatMap((lane) => {
    const rows = lane.rows.filter(({ id }) => held.kept.has(id));
    return rows.length === 0 ? [] : [{ ...lane, rows, count: rows.length }];
  });
  return [...merged, ...lingering];
}

function insert<Row extends Placed>(rows: Row[], row: Row, descending: boolean): void {
  const at = rows.findIndex((other) => comparePlaced(row, other, descending) < 0);
  rows.splice(at === -1 ? rows.length : at, 0, row);
}

/** The ids among changes that the list shows now and did not show before. */
export function arrivalsAmong<Row extends Placed>(lanes: readonly Lane<Row>[], changes: LaneChanges<Row>): string[] {
  const shown = new Set(lanes.flatMap(({ rows }) => rows.map(({ id }) => id)));
  return changes.rows.flatMap(({ row, laneKeys }) => (laneKeys.length > 0 && !shown.has(row.id) ? [row.id] : []));
}

/** One line of a drawn list. */
export type Line<Row extends Placed> =
  | { readonly kind: "heading"; readonly lane: Lane<Row>; readonly folded: boolean }
  | { readonly kind: "row"; readonly lane: Lane<Row>; readonly row: Row }
  /** A row that is not loaded yet. */
  | { readonly kind: "blank"; readonly lane: Lane<Row>; readonly at: number };

/**
 * The lines of a list from top to bottom. Of rows that are not loaded at most `maxBlank` are drawn in each lane, so that
 * a hundred thousand of them cost no more than some. A single lane without a name has no heading.
 */
export function linesOf<Row extends Placed>(
  lanes: readonly Lane<Row>[],
  folded: ReadonlySet<string>,
  maxBlank: number,
): Line<Row>[] {
  const lines: Line<Row>[] = [];
  for (const lane of lanes) {
    const isFolded = folded.has(lane.key);
    if (lane.name !== "") lines.push({ kind: "heading", lane, folded: isFolded });
    if (isFolded) continue;
    for (const row of lane.rows) lines.push({ kind: "row", lane, row });
    const blanks = Math.min(maxBlank, lane.count - lane.rows.length);
    for (let at = 0; at < blanks; at += 1) lines.push({ kind: "blank", lane, at });
  }
  return lines;
}
