/** What a list can be filtered by in menus with counts. */
export const MENU_DIMENSIONS = [
  "owner",
  "category",
  "record",
  "person",
  "urgency",
  "age",
  "attachment",
  "unread",
] as const;

/**
 * What a list can be filtered by: the menus; besides, `list`, the id of a mailing list (RFC 2919), and `before`, a day as
 * 2026-11-26 since whose beginning (UTC) nothing has come.
 */
export const DIMENSIONS = [...MENU_DIMENSIONS, "list", "before"] as const;
export type MenuDimension = (typeof MENU_DIMENSIONS)[number];
export type Dimension = (typeof DIMENSIONS)[number];

/** The value that stands for "without one": no owner, no category, not filed. */
export const WITHOUT = "none";

/** The owners that are not named but meant: the viewer with those whom she covers for, and everybody else. */
export const MINE = "mine";
export const THEIRS = "theirs";

/** What is shown only: in each dimension one of the values, in all of them together. Ids, addresses, names of bands. */
export type ListFilter = { readonly [D in Dimension]?: readonly string[] };

// A URL with more than these was not made by choosing.
const MAX_VALUES = 50;

/** The filter that a query string asks for; names that are no dimension are left alone. */
export function readFilter(params: URLSearchParams): ListFilter {
  const filter: { -readonly [D in Dimension]?: readonly string[] } = {};
  for (const dimension of DIMENSIONS) {
    const values = [...new Set(params.getAll(dimension))].slice(0, MAX_VALUES);
    if (values.length > 0) filter[dimension] = values;
  }
  return filter;
}

/** A filter as the query string that `readFilter` reads, always in the same order. */
export function filterParams(filter: ListFilter): URLSearchParams {
  const params = new URLSearchParams();
  for (const dimension of DIMENSIONS) for (const value of filter[dimension] ?? []) params.append(dimension, value);
  return params;
}

/** The filter with a value put in where it was not, and taken out where it was. */
export function toggled(filter: ListFilter, dimension: Dimension, value: string): ListFilter {
  const values = filter[dimension] ?? [];
  const next = values.includes(value) ? values.filter((one) => one !== value) : [...values, value];
  const { [dimension]: _, ...others } = filter;
  return next.length === 0 ? others : { ...others, [dimension]: next };
}

/** A list's query string with one value of a dimension in the place of another, or without it (null). */
export function withValueReplaced(query: string, dimension: Dimension, value: string, by: string | null): string {
  const params = new URLSearchParams(query);
  const values = params.getAll(dimension).flatMap((one) => (one === value ? (by ?? []) : one));
  params.delete(dimension);
  for (const one of new Set(values)) params.append(dimension, one);
  return params.toString();
}

/** True when something is left out. */
export function isFiltered(filter: ListFilter): boolean {
  return DIMENSIONS.some((dimension) => filter[dimension] !== undefined);
}
