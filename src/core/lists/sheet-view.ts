/** What a sheet can be ordered by; `waiting` is the time in the standing. */
export const ORDERS = ["date", "due", "urgency", "person", "subject", "waiting"] as const;
export type Order = (typeof ORDERS)[number];

/** What a sheet can be grouped by. */
export const GROUPINGS = ["day", "owner", "category", "record", "person", "urgency", "due", "standing"] as const;
export type Grouping = (typeof GROUPINGS)[number];

export const COLUMN_KEYS = ["pace", "who", "subject", "turns", "time", "categories", "record", "owner"] as const;
export type ColumnKey = (typeof COLUMN_KEYS)[number];
/** A column that is shown, and how wide it is in pixels; null takes what is left. */
export type Column = { readonly key: ColumnKey; readonly width: number | null };

const DENSITIES = ["dense", "roomy"] as const;
type Density = (typeof DENSITIES)[number];
/** Where an open conversation stands to its list: beside it, below it, or in its place. */
const READINGS = ["beside", "below", "alone"] as const;
type Reading = (typeof READINGS)[number];

/** How a member looks at a list; remembered for each member and scope. */
export type SheetView = {
  readonly order: Order;
  /** True turns the order's natural direction round. */
  readonly reversed: boolean;
  readonly grouping: Grouping | null;
  readonly columns: readonly Column[];
  readonly density: Density;
  readonly reading: Reading;
};

export const USUAL_WIDTHS: Readonly<Record<ColumnKey, number | null>> = {
  pace: 62,
  who: 150,
  subject: null,
  turns: 148,
  time: 104,
  categories: 172,
  record: 84,
  owner: 54,
};
export const MIN_WIDTH = 30;
export const MAX_WIDTH = 480;

/** The view of whoever has chosen none. */
export const USUAL_VIEW: SheetView = {
  order: "date",
  reversed: false,
  grouping: "day",
  columns: COLUMN_KEYS.map((key) => ({ key, width: USUAL_WIDTHS[key] })),
  density: "dense",
  reading: "beside",
};

/** The orders in which the first row is the greatest: newest, most urgent. The others begin with the least. */
export function isDescending(view: Pick<SheetView, "order" | "reversed">): boolean {
  return (view.order === "date" || view.order === "urgency") !== view.reversed;
}

/** A stored or posted view, mended where it is not one: unknown words give the usual ones, columns are each there once. */
export function readView(stored: unknown): SheetView {
  if (typeof stored !== "object" || stored === null) return USUAL_VIEW;
  const { order, reversed, grouping, columns, density, reading } = stored as Record<string, unknown>;
  return {
    order: oneOf(ORDERS, order) ?? USUAL_VIEW.order,
    reversed: reversed === true,
    grouping: grouping === null ? null : (oneOf(GROUPINGS, grouping) ?? USUAL_VIEW.grouping),
    columns: readColumns(columns),
    density: oneOf(DENSITIES, density) ?? USUAL_VIEW.density,
    reading: oneOf(READINGS, reading) ?? USUAL_VIEW.reading,
  };
}

function oneOf<T>(all: readonly T[], value: unknown): T | null {
  return all.find((one) => one === value) ?? null;
}

function readColumns(stored: unknown): readonly Column[] {
  const columns: Column[] = [];
  for (const one of Array.isArray(stored) ? stored : []) {
    const key = oneOf(COLUMN_KEYS, (one as { key?: unknown })?.key);
    if (key === null || columns.some((column) => column.key === key)) continue;
    columns.push({ key, width: widthOf(key, (one as { width?: unknown }).width) });
  }
  // Without the subject there would be nothing to open.
  return columns.some(({ key }) => key === "subject") ? columns : USUAL_VIEW.columns;
}

function widthOf(key: ColumnKey, stored: unknown): number | null {
  if (key === "subject") return null;
  return typeof stored === "number" && Number.isFinite(stored)
    ? Math.round(Math.min(MAX_WIDTH, Math.max(MIN_WIDTH, stored)))
    : USUAL_WIDTHS[key];
}
