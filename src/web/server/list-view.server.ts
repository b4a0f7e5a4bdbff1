import { readNarrowing } from "../../core/lists/narrowing";
import { isScope, type Scope } from "../../core/lists/scope";
import type { SheetView } from "../../core/lists/sheet-view";
import {
  type Deps,
  type ListedRow,
  type ListRequest,
  listConversations,
  type Member,
  type TrayGrant,
  viewOf,
} from "../../operations/index.server";
import { type Reading, type RowView, readingOf, rowView } from "./words.server";

/** A row of a list, ready to be drawn, with its place in the order. */
export type ListedRowView = RowView & { readonly sortKey: number | string };

/** A listed row with its dates in words. */
export function listedRowView(row: ListedRow, reading: Reading): ListedRowView {
  return { ...rowView(row, reading), sortKey: row.sortKey };
}

/** A list in the whole view that its member has chosen. */
export type RequestedList = ListRequest & { readonly scope: Scope; readonly view: SheetView };

/** The list that a URL asks for, in the view that the member has chosen for it; null for a scope that there is not. */
export async function listRequest(
  deps: Deps,
  grant: TrayGrant,
  scope: string,
  params: URLSearchParams,
): Promise<RequestedList | null> {
  if (!isScope(scope)) return null;
  return { scope, narrowing: readNarrowing(params), view: await viewOf(deps, grant, scope) };
}

/** A list as its screen begins with it. */
export async function listStart(deps: Deps, grant: TrayGrant, member: Member, list: RequestedList) {
  const { total, lanes } = await listConversations(deps, grant, member, list);
  const reading = readingOf(member, deps.now());
  const drawn = lanes.map((lane) => ({ ...lane, rows: lane.rows.map((row) => listedRowView(row, reading)) }));
  return { ...list, total, lanes: drawn, now: reading.now };
}

export type ListStart = Awaited<ReturnType<typeof listStart>>;
