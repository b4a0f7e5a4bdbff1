import type { ConversationId } from "../../core/kernel/ids";
import { ageBands, type Band, dayBands, dueBands } from "../../core/lists/bands";
import { type ListFilter, type MenuDimension, MINE, THEIRS } from "../../core/lists/filter";
import type { Lane, ListChanges } from "../../core/lists/lanes";
import { laneKeysOf } from "../../core/lists/lanes-of-row";
import type { Scope } from "../../core/lists/scope";
import type { SheetView } from "../../core/lists/sheet-view";
import type { Member, TrayGrant } from "../../storage/access/index";
import {
  type Cursor,
  countOfList,
  everHadMail,
  filterCounts,
  firstRows,
  type GroupCount,
  groupCounts,
  idsOfList,
  type ListedRow,
  type ListQuery,
  nextRows,
  rowsAmong,
} from "../../storage/lists/index";
import { listTexts } from "../../texts/en/list";
import { type Sayable, saidOf } from "../../texts/said";
import type { Deps } from "../base/deps";
import { categoriesInMenu, namedGroups } from "./group-names";

const said = saidOf(listTexts);

/** Which list a member looks at, and how. */
export type ListRequest = {
  readonly scope: Scope;
  readonly filter: ListFilter;
  readonly view: Pick<SheetView, "order" | "reversed" | "grouping">;
};

/** The beginning of a list: how many conversations it shows, and its lanes, the first of them with their first rows. */
export type List = {
  readonly total: number;
  readonly lanes: readonly Lane<ListedRow, Sayable>[];
  /** True while no mail has come into the tray yet. */
  readonly isUntouched: boolean;
};

/** The rows that a list begins with: somewhat more than a window of 800 pixels has. */
export const FIRST_ROWS = 22;
const MAX_PAGE = 1_000;

/** Opens a list: two questions to the database, the groups with their counts and the first rows of the first groups. */
export async function listConversations(
  deps: Deps,
  grant: TrayGrant,
  member: Member,
  request: ListRequest,
): Promise<List> {
  const around = circumstances(deps, member, request);
  const groups = await groupsOf(deps, grant, request, around);
  const wanted: { key: string; limit: number }[] = [];
  let left = FIRST_ROWS;
  for (const { key, count } of groups) {
    if (left <= 0) break;
    wanted.push({ key, limit: Math.min(left, count) });
    left -= count;
  }
  const rows = await firstRows(deps.db, grant, around.query, request.view, around.groups, wanted);
  const lanes = groups.map(({ key, name, count }) => ({ key, name, count, rows: rows.get(key) ?? [] }));
  const total = await totalOf(deps, grant, request, around, groups);
  return { total, lanes, isUntouched: total === 0 && !(await everHadMail(deps.db, grant)) };
}

// One conversation stands in several of these groups, or there are more groups than are listed.
const NO_SUM: ReadonlySet<SheetView["grouping"]> = new Set(["category", "record", "person"]);

async function totalOf(
  deps: Deps,
  grant: TrayGrant,
  { view }: ListRequest,
  { query }: Circumstances,
  groups: readonly GroupCount[],
): Promise<number> {
  if (groups.length > 0 && NO_SUM.has(view.grouping)) return countOfList(deps.db, grant, query);
  return groups.reduce((sum, { count }) => sum + count, 0);
}

/** The next rows of a lane after one that is there; from its beginning where `after` is null. */
export async function moreOfList(
  deps: Deps,
  grant: TrayGrant,
  member: Member,
  request: ListRequest,
  page: { readonly lane: string; readonly after: Cursor | null; readonly limit: number },
): Promise<ListedRow[]> {
  const { query, groups } = circumstances(deps, member, request);
  const limit = Math.min(page.limit, MAX_PAGE);
  if (page.after !== null) {
    return nextRows(deps.db, grant, query, request.view, groups, { key: page.lane, after: page.after, limit });
  }
  const rows = await firstRows(deps.db, grant, query, request.view, groups, [{ key: page.lane, limit }]);
  return rows.get(page.lane) ?? [];
}

/** How many conversations a list shows. */
export function countInList(deps: Deps, grant: TrayGrant, member: Member, request: ListRequest): Promise<number> {
  return countOfList(deps.db, grant, circumstances(deps, member, request).query);
}

/** What became of some conversations as far as a list shows them, and all its lanes as they are now. */
export async function changesInList(
  deps: Deps,
  grant: TrayGrant,
  member: Member,
  request: ListRequest,
  ids: readonly ConversationId[],
): Promise<ListChanges<ListedRow, Sayable>> {
  const around = circumstances(deps, member, request);
  const [lanes, rows] = await Promise.all([
    groupsOf(deps, grant, request, around),
    rowsAmong(deps.db, grant, around.query, request.view, ids),
  ]);
  const { grouping } = request.view;
  return {
    ids,
    lanes,
    total: await totalOf(deps, grant, request, around, lanes),
    rows: rows.map((row) => ({ row, laneKeys: laneKeysOf(row, grouping, around.groups.bands) })),
  };
}

/** How many a list would show for each value of a dimension, with the names of the values. */
export async function countsForFilter(
  deps: Deps,
  grant: TrayGrant,
  member: Member,
  request: ListRequest,
  dimension: MenuDimension,
): Promise<GroupCount[]> {
  const { query } = circumstances(deps, member, request);
  const named = await namedGroups(deps, grant, dimension, await filterCounts(deps.db, grant, query, dimension));
  if (dimension === "owner") return [...(await meantOwners(deps, grant, query)), ...named];
  return dimension === "category" ? categoriesInMenu(deps, grant, named) : named;
}

async function meantOwners(deps: Deps, grant: TrayGrant, query: ListQuery): Promise<GroupCount[]> {
  const counted = (owner: string) =>
    countOfList(deps.db, grant, { ...query, filter: { ...query.filter, owner: [owner] } });
  const [mine, theirs] = await Promise.all([counted(MINE), counted(THEIRS)]);
  const own = grant.covering.length === 0 ? said("list.mineInMenu") : said("list.mineAndWhatICover");
  return [
    { key: MINE, name: own, count: mine },
    { key: THEIRS, name: said("list.myColleaguesInMenu"), count: theirs },
  ];
}

/** The ids of everything that a list shows, or that one of its lanes holds, in order. */
export function everythingInList(
  deps: Deps,
  grant: TrayGrant,
  member: Member,
  request: ListRequest,
  lane: string | null,
  limit: number,
): Promise<ConversationId[]> {
  const { query, groups } = circumstances(deps, member, request);
  return idsOfList(deps.db, grant, query, request.view, { ...groups, key: lane }, limit);
}

type Circumstances = {
  readonly query: ListQuery;
  readonly groups: { readonly grouping: SheetView["grouping"]; readonly bands: readonly Band[] };
};

function circumstances(deps: Deps, member: Member, { scope, filter, view }: ListRequest): Circumstances {
  const now = deps.now();
  const bands = { day: dayBands, due: dueBands }[view.grouping as "day" | "due"]?.(now, member.timeZone) ?? [];
  return { query: { scope, filter, ageBands: ageBands(now) }, groups: { grouping: view.grouping, bands } };
}

async function groupsOf(
  deps: Deps,
  grant: TrayGrant,
  { view }: ListRequest,
  { query, groups: { bands } }: Circumstances,
): Promise<GroupCount[]> {
  const { grouping } = view;
  const counted = () =>
    grouping === null ? countAsGroup(deps, grant, query) : groupCounts(deps.db, grant, query, { grouping, bands });
  // Without an age to filter by, the same list is the same question at any time.
  const ages = query.filter.age === undefined ? [] : query.ageBands;
  const name = `groups ${JSON.stringify([query.scope, query.filter, ages, grouping, bands])}`;
  const groups = await (isSameForAll(query, grouping)
    ? deps.memory.recall(grant.tray.id, "counts", name, counted)
    : counted());
  return grouping === null ? groups : namedGroups(deps, grant, grouping, groups);
}

async function countAsGroup(deps: Deps, grant: TrayGrant, query: ListQuery): Promise<GroupCount[]> {
  const count = await countOfList(deps.db, grant, query);
  return count === 0 ? [] : [{ key: "", name: "", count }];
}

// What somebody has read, has as their own or may know of makes the count theirs.
function isSameForAll({ filter }: ListQuery, grouping: SheetView["grouping"]): boolean {
  const isTheirs = filter.owner?.some((owner) => owner === MINE || owner === THEIRS) === true;
  return !isTheirs && filter.unread === undefined && filter.record === undefined && grouping !== "record";
}
