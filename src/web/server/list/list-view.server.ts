import { type ConversationId, readId } from "../../../core/kernel/ids";
import { DAY, later } from "../../../core/kernel/instant";
import { readFilter } from "../../../core/lists/filter";
import type { ListChanges } from "../../../core/lists/lanes";
import { isScope, type Scope } from "../../../core/lists/scope";
import type { SheetView } from "../../../core/lists/sheet-view";
import { dayAndTime, dayInWords } from "../../../core/time/day-words";
import {
  type Bin,
  changesInList,
  type Deps,
  getBin,
  getRounds,
  type ListedRow,
  type ListRequest,
  listConversations,
  type Member,
  type TrayGrant,
  viewOf,
} from "../../../operations/index.server";
import { type Reading, type RowView, readingOf, rowView } from "../base/row-view.server";
import { speak, worded } from "../base/say.server";

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
  return { scope, filter: readFilter(params), view: await viewOf(deps, grant, scope) };
}

const MAX_CHANGED = 500;

/** The conversations that a URL asks about. */
export function changedIds(params: URLSearchParams): ConversationId[] {
  const texts = params.getAll("changed").slice(0, MAX_CHANGED);
  return texts.flatMap((text) => {
    const id = readId<ConversationId>(text);
    return id.ok ? [id.value] : [];
  });
}

/** What became of some conversations as far as a list shows them. */
export async function changesView(
  deps: Deps,
  grant: TrayGrant,
  member: Member,
  list: RequestedList,
  ids: readonly ConversationId[],
): Promise<ListChanges<ListedRowView>> {
  const changes = await changesInList(deps, grant, member, list, ids);
  const reading = readingOf(member, deps.now(), grant.covering);
  return {
    ...changes,
    lanes: changes.lanes.map((lane) => ({ ...lane, name: worded(lane.name) })),
    rows: changes.rows.map(({ row, laneKeys }) => ({ row: listedRowView(row, reading), laneKeys })),
  };
}

/** What is said above what is held: for which rounds, how much, and until when. */
async function heldView(deps: Deps, grant: TrayGrant, { now, zone }: Reading) {
  const rounds = await getRounds(deps, grant);
  return rounds.map(({ id, name, count, next }) => ({
    id,
    name,
    count,
    next: next === null ? null : speak(dayAndTime(next, now, zone)),
  }));
}

/** What is said above the bin: when it is emptied of what, and whether it is used to keep things. */
function binView({ days, goes, stays, nextSince, takenBack, lookedBackDays, isUsedAsStorage }: Bin, reading: Reading) {
  const conversations = (count: number) => speak("common.conversations", { count });
  const next = nextSince === null || days === null ? null : later(nextSince, days * DAY);
  const term = days === null ? speak("list.nothingIsDeletedFromHere") : speak("list.whatHasLainHereFor", { days });
  return {
    term,
    next:
      next === null
        ? ""
        : next <= reading.now
          ? speak("list.theNextGoesWithinA")
          : speak("list.theNextGoes", { next: dayInWords(next, reading.now, reading.zone) }),
    stays:
      stays === 0 || goes + stays === 0
        ? ""
        : speak("list.filedOrToBeFollowed", { conversations: conversations(stays), stays }),
    warning: isUsedAsStorage
      ? speak("list.wereBroughtBackFromHere", { conversations: conversations(takenBack), lookedBackDays })
      : null,
  };
}

/** A list as its screen begins with it. */
export async function listStart(deps: Deps, grant: TrayGrant, member: Member, list: RequestedList) {
  const { total, lanes, isUntouched } = await listConversations(deps, grant, member, list);
  const reading = readingOf(member, deps.now(), grant.covering);
  const drawn = lanes.map((lane) => ({
    ...lane,
    name: worded(lane.name),
    rows: lane.rows.map((row) => listedRowView(row, reading)),
  }));
  const bin = list.scope === "bin" ? binView(await getBin(deps, grant), reading) : null;
  const held = list.scope === "held" ? await heldView(deps, grant, reading) : null;
  return { ...list, total, isUntouched, lanes: drawn, now: reading.now, bin, held };
}

export type ListStart = Awaited<ReturnType<typeof listStart>>;

/** A list as a page brought it, with the state of the tray in which it was read. */
export type ReadList = ListStart & { readonly readIn: string };
