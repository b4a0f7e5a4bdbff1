import { defaultRangeExtractor, type Range, useVirtualizer } from "@tanstack/react-virtual";
import { ChevronDown, ChevronRight } from "lucide-react";
import { type ReactNode, useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from "react";
import { linesOf } from "../../../core/lists/lanes";
import { type Scope, scopeName } from "../../../core/lists/scope";
import type { ColumnKey, SheetView } from "../../../core/lists/sheet-view";
import { listTexts } from "../../../texts/en/list";
import { useSay } from "../../ui/texts/use-say";
import { useMedia } from "../frame/use-media";
import { useCollapsedGroups } from "./collapsed-groups";
import type { Selection } from "./selection";
import { ColumnHeadings, gridOf } from "./sheet-columns";
import { SheetRow } from "./sheet-row";
import type { OpenList, RowLane } from "./use-list";

const HEADING_HEIGHT = 25;
// Twenty rows fit on a window of 1280 by 800 with all that surrounds them.
const ROW_HEIGHTS = { dense: 27, roomy: 44 } as const;
const PHONE_HEIGHT = 48;
// Rows are asked for when the last that is loaded is this close; sooner once somebody is on her way through them.
const AHEAD = 150;
const AHEAD_ON_THE_WAY = 400;
const OVERSCAN = 24;
const MAX_BLANK = 5_000;
const mostBlank = () => MAX_BLANK;
// Nobody scrolls in what the server has drawn.
const firstBlank = () => 50;
const never = () => () => {};
// What a server that has no window draws at first.
const FIRST_WINDOW = { width: 1280, height: 594 };

/** A point of the window, in pixels. */
export type Point = { readonly x: number; readonly y: number };

type SheetProps = {
  readonly scope: Scope;
  readonly list: OpenList;
  readonly view: SheetView;
  readonly now: number;
  /** The line under the cursor, by `placeOf`. */
  readonly cursor: string | null;
  readonly onCursor: (place: string) => void;
  readonly selection: Selection;
  readonly base: string;
  readonly query: string;
  readonly onWidth: (key: ColumnKey, width: number) => void;
  /** The menu of the row under the cursor, at a point of the window. */
  readonly menu: (at: Point, onClose: () => void) => ReactNode;
  /** What a row offers of itself when it is pointed at. */
  readonly quick: ReactNode;
  /** Says whether somebody reads or points at the list, so that it keeps still. */
  readonly onReading: (isReading: boolean) => void;
};

/** The ruled list: as many rows drawn as there is room for, however many there are. */
export function Sheet(props: SheetProps) {
  const say = useSay(listTexts);
  const { scope, list, view, now, cursor, onCursor, selection, base, query, onWidth, menu, quick, onReading } = props;
  const scroll = useRef<HTMLDivElement>(null);
  const [menuAt, setMenuAt] = useState<Point | null>(null);
  const isWide = useMedia("(min-width: 768px)", true);
  const [folded, fold] = useCollapsedGroups(`${base}/${view.grouping}`);
  const blank = useSyncExternalStore(never, mostBlank, firstBlank);
  const lines = useMemo(() => linesOf(list.lanes, folded, blank), [list.lanes, folded, blank]);
  const rowHeight = isWide ? ROW_HEIGHTS[view.density] : PHONE_HEIGHT;
  const cursorAt = lines.findIndex((line) => line.kind === "row" && placeOf(line.lane, line.row) === cursor);
  // The server cannot know how wide the screen is; rows of the wrong height would lie over each other.
  const [isDrawn, setDrawn] = useState(false);
  useEffect(() => setDrawn(true), []);
  const virtualizer = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroll.current,
    estimateSize: (at) => (lines[at]?.kind === "heading" ? HEADING_HEIGHT : rowHeight),
    getItemKey: (at) => keyOfLine(lines[at], at),
    overscan: isDrawn ? OVERSCAN : 1,
    initialRect: FIRST_WINDOW,
    // The row that has the focus stays there when it is scrolled out of sight.
    rangeExtractor: useCallback(
      (range: Range) => {
        const drawn = defaultRangeExtractor(range);
        return cursorAt >= 0 && !drawn.includes(cursorAt) ? [...drawn, cursorAt].toSorted((a, b) => a - b) : drawn;
      },
      [cursorAt],
    ),
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: heights are measured anew when they change
  useEffect(() => virtualizer.measure(), [rowHeight]);

  const drawn = virtualizer.getVirtualItems();
  const { loadMore } = list;
  useEffect(() => {
    const ahead = (scroll.current?.scrollTop ?? 0) > 0 ? AHEAD_ON_THE_WAY : AHEAD;
    const indexes = drawn.map(({ index }) => index);
    for (const { lane, wanted } of wantedLanes(lines, indexes, ahead)) loadMore(lane, wanted);
  }, [drawn, lines, loadMore]);

  // The row under the cursor has the focus, so that Enter and screen readers mean the same one.
  // biome-ignore lint/correctness/useExhaustiveDependencies: moves with the cursor, not with the rows
  useEffect(() => {
    if (cursor === null || cursorAt < 0) return;
    virtualizer.scrollToIndex(cursorAt, { align: "auto" });
    const focus = () => {
      const row = scroll.current?.querySelector<HTMLElement>(`[data-row="${cursor}"]`);
      const busy = document.activeElement?.closest("input, textarea, [role=dialog], [role=menu], [role=toolbar]");
      if (row !== undefined && row !== null && row !== document.activeElement && !busy)
        row.focus({ preventScroll: true });
    };
    focus();
  }, [cursor]);

  const inOrder = () => lines.flatMap((line) => (line.kind === "row" ? [line.row] : []));
  return (
    <>
      <main
        aria-label={say(scopeName(scope))}
        className="mx-2 flex min-h-0 flex-1 flex-col rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4"
      >
        <ColumnHeadings scope={scope} columns={view.columns} onWidth={onWidth} />
        {/* biome-ignore lint/a11y/noStaticElementInteractions: the menu key raises this on the row that has the focus */}
        <div
          ref={scroll}
          className="min-h-0 flex-1 overflow-y-auto [scrollbar-gutter:stable] [scrollbar-width:thin] focus-visible:outline-none"
          // Not "enter": a pointer that was here before the list came enters nothing.
          onPointerMove={() => onReading(true)}
          onPointerLeave={() => onReading((scroll.current?.scrollTop ?? 0) > 0)}
          onScroll={() => onReading(true)}
          onContextMenu={(event) => {
            if (!(event.target instanceof Element) || event.target.closest("li")?.querySelector("[data-row]") == null)
              return;
            event.preventDefault();
            setMenuAt({ x: event.clientX, y: event.clientY });
          }}
        >
          <ul
            className={`relative ${isDrawn ? "" : "max-lg:invisible"}`}
            style={
              {
                height: virtualizer.getTotalSize(),
                "--row-height": `${rowHeight}px`,
                "--sheet-columns": gridOf(view.columns),
              } as never
            }
          >
            {drawn.map((item) => {
              const line = lines[item.index];
              const place = { height: item.size, transform: `translateY(${item.start}px)` };
              if (line === undefined) return null;
              if (line.kind === "heading") {
                return (
                  <LaneHeading
                    key={item.key}
                    lane={line.lane}
                    folded={line.folded}
                    place={place}
                    onFold={() => fold(line.lane.key)}
                    onChoose={() => selection.chooseLane(line.lane)}
                  />
                );
              }
              if (line.kind === "blank") {
                return (
                  <li key={item.key} aria-hidden className="absolute inset-x-0 border-b border-hair" style={place} />
                );
              }
              return (
                <SheetRow
                  key={item.key}
                  row={line.row}
                  columns={view.columns}
                  roomy={view.density === "roomy"}
                  start={item.start}
                  now={now}
                  to={`${base}/${line.row.id}${query}`}
                  spot={placeOf(line.lane, line.row)}
                  isCursor={placeOf(line.lane, line.row) === cursor}
                  isSelected={selection.has(line.row, line.lane.key)}
                  isChoosing={selection.count > 0}
                  isGone={list.gone.has(line.row.id)}
                  onCursor={onCursor}
                  onToggle={selection.toggle}
                  onExtend={(row) => selection.extend(row, inOrder())}
                  quick={quick}
                />
              );
            })}
          </ul>
          {list.problem !== null && (
            <p role="alert" className="px-4 py-2 text-late">
              {list.problem}
            </p>
          )}
        </div>
      </main>
      {menuAt !== null && menu(menuAt, () => setMenuAt(null))}
    </>
  );
}

/** Where a row stands: with several categories it stands in several groups. */
export function placeOf(lane: { readonly key: string }, row: { readonly id: string }): string {
  return `${lane.key} ${row.id}`;
}

function keyOfLine(line: ReturnType<typeof linesOf>[number] | undefined, at: number): string {
  if (line === undefined) return `${at}`;
  if (line.kind === "heading") return `h ${line.lane.key}`;
  return line.kind === "row" ? placeOf(line.lane, line.row) : `b ${line.lane.key} ${line.at}`;
}

/** The lanes of which more rows are needed soon, so many before they are looked at, and how many. */
function wantedLanes(
  lines: ReturnType<typeof linesOf>,
  drawn: readonly number[],
  ahead: number,
): { lane: RowLane; wanted: number }[] {
  const wanted = new Map<string, { lane: RowLane; wanted: number }>();
  const last = (drawn.at(-1) ?? 0) + ahead;
  for (let at = drawn[0] ?? 0; at <= Math.min(last, lines.length - 1); at += 1) {
    const line = lines[at];
    if (line?.kind === "blank") {
      wanted.set(line.lane.key, { lane: line.lane as RowLane, wanted: line.at + 1 });
    }
  }
  return [...wanted.values()];
}

type LaneHeadingProps = {
  readonly lane: RowLane | { readonly key: string; readonly name: string; readonly count: number };
  readonly folded: boolean;
  readonly place: { readonly height: number; readonly transform: string };
  readonly onFold: () => void;
  readonly onChoose: () => void;
};

function LaneHeading({ lane, folded, place, onFold, onChoose }: LaneHeadingProps) {
  const say = useSay(listTexts);
  const Mark = folded ? ChevronRight : ChevronDown;
  return (
    <li
      className="group absolute inset-x-0 flex items-center gap-2 border-b border-rule bg-ground px-3 text-sm"
      style={place}
    >
      <button
        type="button"
        aria-expanded={!folded}
        onClick={onFold}
        className="-ml-1 flex min-w-0 items-center gap-2 rounded-control pr-2 pl-0.5 hover:text-act"
      >
        <Mark size={15} aria-hidden className="shrink-0 text-soft" />
        <h2 className="truncate font-semibold">{lane.name}</h2>
        <span className="text-soft">{say({ figure: lane.count })}</span>
      </button>
      <button
        type="button"
        onClick={onChoose}
        className="rounded-control px-1.5 text-xs text-act opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
      >
        {say("list.selectAll", { count: lane.count })}
      </button>
    </li>
  );
}

/** For the parts that keep themselves: whether somebody points at the list or has scrolled it. */
export function useReadingWatch(): [() => boolean, (isReading: boolean) => void] {
  const [watch] = useState(() => ({ isReading: false }));
  return [
    useCallback(() => watch.isReading, [watch]),
    useCallback(
      (isReading: boolean) => {
        watch.isReading = isReading;
      },
      [watch],
    ),
  ];
}
