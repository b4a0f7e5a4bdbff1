import { lazy, type ReactNode, Suspense, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Outlet, useFetcher, useLocation } from "react-router";
import { filterParams, isFiltered, type ListFilter } from "../../../core/lists/filter";
import { isInScope, type Scope } from "../../../core/lists/scope";
import type { ColumnKey, SheetView } from "../../../core/lists/sheet-view";
import { Opening, Opens } from "../../keys/key-desk";
import type { RowView } from "../../server/base/row-view.server";
import type { ListStart, ReadList } from "../../server/list/list-view.server";
import { useDecisions, usePending } from "../deciding/decisions";
import type { DialogKind } from "../deciding/dialog-props";
import { postedResultingStanding, withPending } from "../deciding/foreseen";
import { DecisionDialogs, useDialogsSoon } from "../deciding/lazy-dialogs";
import type { DecisionTarget, Pending, PostedDecision } from "../deciding/posted-decision";
import { useSaidOf } from "../deciding/use-said-of";
import { useShelfPut } from "../frame/shelf-drop";
import { useTray } from "../frame/tray-data";
import { BinLine } from "./bin-line";
import { EmptyList } from "./empty-list";
import { FilterBar } from "./filter-bar";
import { HeldLines } from "./held-lines";
import { useDecidingCommands, useMovingCommands } from "./list-commands";
import { type ListCursor, type ShownList, useListCursor, useShownList } from "./list-places";
import { ListRail } from "./list-rail";
import { NewRows } from "./new-rows";
import { type BareDecision, RowQuick } from "./row-actions";
import { type Selection, useSelection } from "./selection";
import { SelectionBar } from "./selection-bar";
import { Sheet, useReadingWatch } from "./sheet";
import { useDrops } from "./use-drops";
import { type OpenList, useList } from "./use-list";

// Of a list without groups the rest of its rows.
function moreOf({ lanes, loadMore }: OpenList): (() => void) | null {
  const lane = lanes.find(({ rows, count }) => rows.length < count);
  return lane === undefined ? null : () => loadMore(lane, MARGIN_PAGE);
}

const MARGIN_PAGE = 1_000;

/** What the open conversation is given by the list it was opened from. */
export type ConversationDesk = {
  readonly place: { readonly at: number; readonly of: number } | null;
  readonly ask: (dialog: DialogKind) => void;
  readonly act: (decision: PostedDecision) => void;
  /** Tells the list which row the open conversation is, so that keys and dialogs mean it. */
  readonly present: (row: RowView) => void;
  readonly goOn: () => void;
  readonly answering: boolean;
  readonly setAnswering: (answering: boolean) => void;
};

const RowMenu = lazy(() => import("./row-menu"));
// Seen once in the life of a tray.
const FirstSteps = lazy(() => import("./first-steps"));

const NOTHING_OWN: ReadonlySet<string> = new Set();

/** One list: the sheet, or with an open conversation what the member reads beside it; the keys and dialogs of all. */
export function ListScreen({ list: start, openId }: { list: ReadList; openId: string | null }) {
  const tray = useTray();
  useDialogsSoon();
  const pending = usePending();
  const { search } = useLocation();
  const [isReading, setReading] = useReadingWatch();
  const [dialog, setDialog] = useState<DialogKind | null>(null);
  // What was dragged to where a date has to be chosen for it; null decides about what has the cursor or is chosen.
  const [dropped, setDropped] = useState<DecisionTarget | null>(null);
  const [openRow, setOpenRow] = useState<RowView | null>(null);
  const [answering, setAnswering] = useState(false);
  const selection = useSelection();
  const { scope, filter } = start;
  const base = `/${tray.tray.slug}/${scope}`;
  const [view, chooseView] = useChosenView(start, tray.tray.slug);

  const own = useRef(NOTHING_OWN);
  own.current = useMemo(
    () => new Set([...own.current, ...pending.flatMap(({ rows }) => rows.map(({ id }) => id))]),
    [pending],
  );
  const list = useList(tray.tray.slug, start, own.current, () => isReading() || openId !== null);
  const shown = useShownList(list.lanes, list.total, pending, scope);
  const cursor = useListCursor(shown.places, openId, base, tray.preferences.afterDecision);
  const inSight = rowInSight(openId, openRow, cursor.underCursor, pending);
  const chosen =
    openId === null ? chosenTarget(selection, shown, scope, filter, (row) => withPending(row, pending)) : null;
  const decided = chosen ?? (inSight === null ? null : { rows: [inSight], everything: null });

  const { act, decideAbout } = useActing({
    scope,
    decided,
    isSelected: chosen !== null,
    dropped,
    over: () => {
      setDropped(null);
      setDialog((open) => (open === "categories" && dropped === null ? open : null));
    },
    clear: selection.clear,
    goOn: () => {
      setAnswering(false);
      cursor.goOn();
    },
  });
  const ask = (kind: DialogKind) => decided !== null && tray.mayDecide && setDialog(kind);
  const answer = () => {
    if (openId === null && inSight !== null) cursor.open(inSight);
    setAnswering(true);
  };
  useMovingCommands({
    shown,
    cursor,
    selection,
    answering,
    isOpen: openId !== null,
    stopAnswering: () => setAnswering(false),
    showNew: list.arrived > 0 ? list.show : null,
  });
  useDecidingCommands({ first: tray.mayDecide ? (decided?.rows[0] ?? null) : null, ask, act, answer });
  const drops = useDrops({
    decided,
    rows: shown.places.map(({ row }) => row),
    isSelected: (id) => chosen?.rows.some((row) => row.id === id) ?? false,
    decide: (decision, about) => {
      decideAbout(decision, about);
      selection.clear();
    },
    ask: (kind, about) => {
      setDropped(about);
      setDialog(kind);
    },
  });
  useShelfPut((place) => {
    if (chosen === null) return false;
    drops.put(place, chosen);
    return true;
  });

  const desk: ConversationDesk = {
    place: cursor.at < 0 ? null : { at: cursor.at + 1, of: shown.rowCount },
    present: useCallback((row: RowView) => setOpenRow(row), []),
    goOn: () => {
      setAnswering(false);
      cursor.goOn();
    },
    ask,
    act,
    answering,
    setAnswering,
  };
  const bare = (decision: BareDecision) => act({ kind: decision });
  const about = dropped ?? decided;
  return (
    <>
      {(openId === null || view.reading === "below") && (
        <ListPart
          {...{ start, list, shown, view, chooseView, selection, cursor, base, query: search }}
          isWhole={openId === null}
          isSelected={chosen !== null}
          about={tray.mayDecide ? inSight : null}
          actions={{ ask, act, bare, answer }}
          onReading={(reading) => {
            setReading(reading);
            if (!reading && openId === null) list.show();
          }}
        />
      )}
      {openId !== null && (
        <OpenPart beside={view.reading === "beside"}>
          {view.reading === "beside" && (
            <ListRail
              rows={shown.places.map(({ row }) => row)}
              gone={list.gone}
              arrived={list.arrived}
              onShow={list.show}
              openId={openId}
              base={base}
              query={search}
              loadMore={moreOf(list)}
            />
          )}
          <Outlet context={desk} />
        </OpenPart>
      )}
      {about !== null && dialog !== null && (
        <DecisionDialogs
          kind={dialog}
          target={about}
          onDecide={act}
          onClose={() => {
            setDialog(null);
            setDropped(null);
          }}
        />
      )}
      {drops.question}
      {answering && openId === null && <Opening />}
    </>
  );
}

type ListPartProps = {
  readonly start: ListStart;
  readonly list: OpenList;
  readonly shown: ShownList;
  readonly view: SheetView;
  readonly chooseView: (view: SheetView | null) => void;
  readonly selection: Selection;
  readonly cursor: ListCursor;
  readonly base: string;
  readonly query: string;
  readonly isWhole: boolean;
  readonly isSelected: boolean;
  /** The row that its menu would be about; null when there is none, or one may not decide. */
  readonly about: RowView | null;
  readonly actions: {
    readonly ask: (dialog: DialogKind) => void;
    readonly act: (decision: PostedDecision) => void;
    readonly bare: (decision: BareDecision) => void;
    readonly answer: () => void;
  };
  readonly onReading: (isReading: boolean) => void;
};

/** The sheet with the line above it: what it is filtered by, or what can be done with what is chosen. */
function ListPart(props: ListPartProps) {
  const { start, list, shown, view, chooseView, selection, cursor, base, query, actions, about } = props;
  const { mayDecide } = useTray();
  const { scope, filter } = start;
  return (
    <>
      {props.isSelected ? (
        <SelectionBar selection={selection} total={shown.total} scope={scope} {...actions} />
      ) : (
        <FilterBar list={{ ...start, view }} base={base} onView={chooseView} />
      )}
      {start.bin !== null && <BinLine bin={start.bin} />}
      {start.held !== null && <HeldLines rounds={start.held} />}
      <NewRows count={list.arrived} onShow={list.show} />
      <div className={`flex min-h-0 flex-col ${props.isWhole ? "flex-1" : "h-2/5"}`}>
        {shown.rowCount === 0 ? (
          start.isUntouched ? (
            <Suspense fallback={null}>
              <FirstSteps />
            </Suspense>
          ) : (
            <EmptyList scope={scope} isFiltered={isFiltered(filter)} base={base} />
          )
        ) : (
          <Sheet
            {...{ scope, view, selection, base, query }}
            list={{ ...list, lanes: shown.lanes }}
            now={start.now}
            cursor={cursor.cursor}
            onCursor={cursor.setCursor}
            onWidth={(key, width) => chooseView(withWidth(view, key, width))}
            menu={(at, onClose) =>
              about !== null && (
                <Opens>
                  <RowMenu row={about} at={at} onClose={onClose} {...actions} />
                </Opens>
              )
            }
            quick={mayDecide && <RowQuick scope={scope} {...actions} />}
            onReading={props.onReading}
          />
        )}
      </div>
    </>
  );
}

function OpenPart({ beside, children }: { beside: boolean; children: ReactNode }) {
  const columns = beside ? "lg:grid-cols-[240px_minmax(0,1fr)]" : "";
  return (
    <div
      className={`mx-2 mt-2 grid min-h-0 flex-1 grid-cols-1 border-rule sm:mx-4 sm:mt-2.5 lg:rounded-t-sheet lg:border lg:border-b-0 ${columns}`}
    >
      {children}
    </div>
  );
}

type Acting = {
  readonly scope: Scope;
  readonly decided: DecisionTarget | null;
  readonly isSelected: boolean;
  readonly dropped: DecisionTarget | null;
  /** The dialog that asked is over with this decision. */
  readonly over: () => void;
  readonly clear: () => void;
  readonly goOn: () => void;
};

/** Carries decisions out about what was dropped, is chosen, or has the cursor, and goes on where that leads away. */
function useActing({ scope, decided, isSelected, dropped, over, clear, goOn }: Acting) {
  const saidOf = useSaidOf();
  const tray = useTray();
  const { decide } = useDecisions();
  const decideAbout = (decision: PostedDecision, about: DecisionTarget) =>
    decide(decision, about, saidOf(decision, tray, about));
  const act = (decision: PostedDecision) => {
    const about = dropped ?? decided;
    const [first] = about?.rows ?? [];
    if (about === null || first === undefined) return;
    over();
    decideAbout(decision, about);
    const leads = postedResultingStanding(decision, first.standing);
    const leaves = leads !== null && !isInScope(leads, scope);
    if (dropped !== null || (leaves && isSelected)) clear();
    else if (leaves) goOn();
  };
  return { act, decideAbout };
}

/** The open conversation's row, or the one under the cursor. */
function rowInSight(
  openId: string | null,
  openRow: RowView | null,
  underCursor: RowView | null,
  pending: readonly Pending[],
): RowView | null {
  const row = openId !== null && openRow?.id === openId ? openRow : underCursor;
  return row === null ? null : withPending(row, pending);
}

/** What is chosen, as it is decided about; null when nothing is. */
function chosenTarget(
  { chosen, count }: Selection,
  { places }: ShownList,
  scope: Scope,
  filter: ListFilter,
  asShown: (row: RowView) => RowView,
): DecisionTarget | null {
  if (count === 0) return null;
  if (chosen.kind === "some") return { rows: [...chosen.rows.values()].map(asShown), everything: null };
  const { lane } = chosen;
  const of = lane === null ? places : places.filter(({ place }) => place.startsWith(`${lane} `));
  const query = filterParams(filter).toString();
  return { rows: of.map(({ row }) => row), everything: { scope, query, lane, count } };
}

function withWidth(view: SheetView, key: ColumnKey, width: number): SheetView {
  return { ...view, columns: view.columns.map((column) => (column.key === key ? { ...column, width } : column)) };
}

/** The view of a list, shown at once and remembered; null goes back to the usual one. */
function useChosenView(start: ListStart, slug: string): [SheetView, (view: SheetView | null) => void] {
  const settings = useFetcher();
  const [view, setView] = useState<SheetView>(start.view);
  useEffect(() => setView(start.view), [start.view]);
  const choose = (chosen: SheetView | null) => {
    if (chosen !== null) setView(chosen);
    const body = { name: `view/${start.scope}`, value: JSON.stringify(chosen) };
    void settings.submit(body, { method: "post", action: `/${slug}/settings` });
  };
  return [view, choose];
}
