import { useCallback, useEffect, useRef, useState } from "react";
import { filterParams } from "../../../core/lists/filter";
import { arrivalsAmong, type Lane, NOTHING_HELD, withChanges, withPage } from "../../../core/lists/lanes";
import { isDescending } from "../../../core/lists/sheet-view";
import { listTexts } from "../../../texts/en/list";
import type { ListedRowView, ListStart, ReadList } from "../../server/list/list-view.server";
import { useSay } from "../../ui/texts/use-say";
import { fetchPart } from "../filter/fetch-part";
import { type AskNews, type RowChanges, useChanges } from "../frame/live-hub";
import { useSerialQueue } from "./use-serial-queue";

const PAGE = 200;
// A scrollbar dragged far down asks for all rows up to there, so many at a time.
const MAX_PAGE = 1_000;

export type RowLane = Lane<ListedRowView>;

/** A list that is open: what of it is loaded, and what has changed since that its reader is not shown yet. */
export type OpenList = {
  readonly lanes: readonly RowLane[];
  /** How many conversations it shows, however many groups each stands in. */
  readonly total: number;
  /** How many new rows wait to be shown. */
  readonly arrived: number;
  /** Rows that have left the list and are still shown where they were. */
  readonly gone: ReadonlySet<string>;
  /** Why the last rows could not be had; null when they could. */
  readonly problem: string | null;
  readonly loadMore: (lane: RowLane, wanted: number) => void;
  /** Shows everything as it is now. */
  readonly show: () => void;
};

/** A list as the URL that asks for news of it names it. */
export function followedAs({ scope, filter }: Pick<ListStart, "scope" | "filter">): string {
  return new URLSearchParams([["scope", scope], ...filterParams(filter)]).toString();
}

/** What became of some conversations in a list. */
export function fetchChanges(
  slug: string,
  list: Pick<ListStart, "scope" | "filter">,
  ids: readonly string[],
): Promise<RowChanges> {
  return fetchPart(slug, list, "changes", new URLSearchParams(ids.map((id) => ["changed", id])));
}

/** The rows of a lane after those that are loaded, at most so many. */
function fetchMore(slug: string, list: ListStart, lane: RowLane, wanted: number): Promise<ListedRowView[]> {
  const last = lane.rows.at(-1);
  const params = new URLSearchParams({ lane: lane.key, limit: String(Math.min(MAX_PAGE, wanted)) });
  if (last !== undefined) {
    params.set("key", String(last.sortKey));
    params.set("id", last.id);
  }
  return fetchPart(slug, list, "more", params);
}

/** A lane with so many rows loaded, as far as it has them: whoever is far down in it does not see it empty. */
async function asLong(slug: string, list: ListStart, lane: RowLane, length: number): Promise<RowLane> {
  let filled = lane;
  while (filled.rows.length < Math.min(length, filled.count)) {
    const rows = await fetchMore(slug, list, filled, length - filled.rows.length);
    const [longer = filled] = withPage([filled], lane.key, rows);
    if (longer.rows.length === filled.rows.length) return longer;
    filled = longer;
  }
  return filled;
}

/**
 * Keeps a list up to date row by row. While `isReading` says that somebody has her eyes or her pointer on it, rows of
 * others neither come nor go nor move: they are counted, and `show` shows them. What is among `own` goes at once.
 */
export function useList(slug: string, start: ReadList, own: ReadonlySet<string>, isReading: () => boolean): OpenList {
  const say = useSay(listTexts);
  // What is shown is changed by answers that come at any time, each on top of the last. It is therefore never read from
  // what React has drawn: a drawing that something more urgent made necessary may still be of the state before.
  const state = useRef<ListState>(atItsStart(start));
  const [shown, setShown] = useState(state.current);
  const now = useRef({ start, own, isReading });
  now.current = { start, own, isReading };
  const loading = useRef(new Set<string>());
  const [problem, setProblem] = useState<string | null>(null);
  const keep = useCallback((next: Partial<ListState>) => {
    state.current = { ...state.current, ...next };
    setShown(state.current);
  }, []);

  useEffect(() => keep(atItsStart(start)), [start, keep]);

  const loadMore = useCallback(
    (lane: RowLane, wanted: number) => {
      if (loading.current.has(lane.key)) return;
      loading.current.add(lane.key);
      const { start: list } = now.current;
      fetchMore(slug, list, lane, Math.max(PAGE, wanted))
        .then((rows) => {
          if (now.current.start !== list) return;
          keep({ lanes: withPage(state.current.lanes, lane.key, rows) });
          setProblem(null);
        })
        .catch(() => setProblem(say("list.theRestOfTheList")))
        .finally(() => loading.current.delete(lane.key));
    },
    [slug, keep, say],
  );

  const refresh = useCallback(
    async (ids: readonly string[], held: boolean, ask: AskNews | null = null) => {
      const { start: list } = now.current;
      const changes = (await ask?.()) ?? (await fetchChanges(slug, list, ids));
      if (now.current.start !== list) return;
      const { total } = changes;
      const { lanes: before, arrived, gone } = state.current;
      const { own: mine } = now.current;
      const descending = isDescending(list.view);
      if (!held) {
        const shownNow = new Set(ids);
        const others = (some: ReadonlySet<string>) => new Set([...some].filter((id) => !shownNow.has(id)));
        const lanes = withChanges(before, changes, descending, NOTHING_HELD);
        keep({ lanes, total, arrived: others(arrived), gone: others(gone) });
        return;
      }
      const notShown = new Set<string>([...arrived, ...arrivalsAmong(before, changes)].filter((id) => !mine.has(id)));
      const kept = new Set<string>(ids.filter((id) => !mine.has(id)));
      const still = new Set<string>(changes.rows.map(({ row }) => row.id));
      const seen = new Set<string>(before.flatMap(({ rows }) => rows.map(({ id }) => id)));
      keep({
        lanes: withChanges(before, changes, descending, { notShown, kept }),
        total,
        arrived: new Set([...notShown].filter((id) => still.has(id) || !ids.includes(id))),
        gone: new Set([...gone, ...[...kept].filter((id) => seen.has(id) && !still.has(id))]),
      });
    },
    [slug, keep],
  );

  const startAnew = useCallback(async () => {
    const { start: list } = now.current;
    const fresh = await fetchPart<ListStart>(slug, list, "start", new URLSearchParams());
    const lengths = new Map(state.current.lanes.map(({ key, rows }) => [key, rows.length]));
    const lanes: RowLane[] = [];
    for (const lane of fresh.lanes) lanes.push(await asLong(slug, list, lane, lengths.get(lane.key) ?? 0));
    if (now.current.start === list) keep({ lanes, total: fresh.total });
  }, [slug, keep]);

  // A list that could not be brought up to date begins anew with the next change, or when the line is back.
  const isBehind = useRef(false);
  const inTurn = useSerialQueue();
  useChanges(followedAs(start), start.readIn, (ids, ask) =>
    inTurn(async () => {
      try {
        await (ids === null || isBehind.current ? startAnew() : refresh(ids, now.current.isReading(), ask));
        isBehind.current = false;
      } catch {
        isBehind.current = true;
      }
    }),
  );

  const show = useCallback(() => {
    const ids = [...state.current.arrived, ...state.current.gone];
    if (ids.length > 0) void inTurn(() => refresh(ids, false)).catch(() => setProblem(say("list.whatIsNewCouldNot")));
  }, [refresh, inTurn, say]);

  const { lanes, total, arrived, gone } = shown;
  return { lanes, total, arrived: arrived.size, gone, problem, loadMore, show };
}

/** What of a list is shown, and what waits to be. */
type ListState = {
  readonly lanes: readonly RowLane[];
  readonly total: number;
  readonly arrived: ReadonlySet<string>;
  readonly gone: ReadonlySet<string>;
};

const atItsStart = ({ lanes, total }: ListStart): ListState => ({
  lanes,
  total,
  arrived: new Set(),
  gone: new Set(),
});
