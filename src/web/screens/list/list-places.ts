import { useEffect, useMemo, useRef, useState } from "react";
import { useLocation } from "react-router";
import { isInScope, type Scope } from "../../../core/lists/scope";
import type { AfterDecision } from "../../../operations/index.server";
import { useGo } from "../../keys/key-desk";
import type { ListedRowView } from "../../server/list/list-view.server";
import { withPending } from "../deciding/foreseen";
import type { Pending } from "../deciding/posted-decision";
import { placeOf } from "./sheet";
import type { RowLane } from "./use-list";

/** A row and where it stands: with several categories it stands in several groups. */
export type PlacedRow = { readonly place: string; readonly row: ListedRowView };

/** A list as it is shown: with what is under way done to it already. */
export type ShownList = {
  readonly lanes: readonly RowLane[];
  readonly places: readonly PlacedRow[];
  /** How many conversations, however many groups each stands in. */
  readonly total: number;
  /** How many rows, with those that are not loaded. */
  readonly rowCount: number;
};

/** The lanes of a list with the decisions that are on their way. */
export function useShownList(
  lanes: readonly RowLane[],
  total: number,
  pending: readonly Pending[],
  scope: Scope,
): ShownList {
  return useMemo(() => {
    const leaving = new Set<string>();
    const shown = lanes.map((lane) => {
      const rows = lane.rows.flatMap((row) => {
        const next = withPending(row, pending);
        if (isInScope(next.standing, scope)) return [{ ...next, sortKey: row.sortKey }];
        leaving.add(row.id);
        return [];
      });
      return { ...lane, rows, count: lane.count - (lane.rows.length - rows.length) };
    });
    const filled = shown.filter(({ count }) => count > 0);
    return {
      lanes: filled,
      places: filled.flatMap((lane) => lane.rows.map((row) => ({ place: placeOf(lane, row), row }))),
      total: Math.max(0, total - leaving.size),
      rowCount: filled.reduce((sum, { count }) => sum + count, 0),
    };
  }, [lanes, total, pending, scope]);
}

/** Where one is in a list, and the ways on from there. */
export type ListCursor = {
  readonly cursor: string | null;
  readonly setCursor: (place: string) => void;
  /** The place of the open conversation, or of the cursor, from 0; -1 when there is none. */
  readonly at: number;
  readonly underCursor: ListedRowView | null;
  readonly neighbour: (step: 1 | -1) => PlacedRow | null;
  readonly go: (to: PlacedRow | null) => void;
  readonly open: (row: { readonly id: string }) => void;
  readonly close: () => void;
  /** After a decision that led away: to where the member wants to be then. */
  readonly goOn: () => void;
};

/** Keeps the cursor of a list, through rows that come and go. */
export function useListCursor(
  places: readonly PlacedRow[],
  openId: string | null,
  base: string,
  afterDecision: AfterDecision,
): ListCursor {
  const goTo = useGo();
  const { search } = useLocation();
  const [cursor, setCursor] = useState<string | null>(null);
  const at = places.findIndex(({ place, row }) => (openId === null ? place === cursor : row.id === openId));
  const lastAt = useRef(0);
  if (at >= 0) lastAt.current = at;
  const neighbour = (step: 1 | -1) => {
    // Its row is gone: what has moved up into its place is the next.
    const from = at >= 0 ? at + step : step === 1 ? lastAt.current : lastAt.current - 1;
    return places[from] ?? null;
  };
  const open = ({ id }: { readonly id: string }) => goTo(`${base}/${id}${search}`);
  const close = () => goTo(`${base}${search}`);
  const go = (to: PlacedRow | null) => {
    if (to === null) return;
    setCursor(to.place);
    if (openId !== null) open(to.row);
  };
  const goOn = () => {
    const steps = afterDecision === "previous" ? ([-1, 1] as const) : ([1, -1] as const);
    const to = neighbour(steps[0]) ?? neighbour(steps[1]);
    if (openId !== null && (afterDecision === "list" || to === null)) close();
    else go(to);
  };
  useEffect(() => {
    const shown = openId === null ? undefined : places.find(({ row }) => row.id === openId);
    if (shown !== undefined) setCursor((now) => (now?.endsWith(shown.row.id) === true ? now : shown.place));
  }, [openId, places]);
  return { cursor, setCursor, at, underCursor: places[at]?.row ?? null, neighbour, go, open, close, goOn };
}
