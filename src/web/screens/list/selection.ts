import { useCallback, useMemo, useState } from "react";
import type { ListedRowView } from "../../server/list/list-view.server";
import {
  countSelected,
  isSelected,
  type RowSelection,
  withLane,
  withStretch,
  withToggled,
} from "../frame/row-selection";
import type { RowLane } from "./use-list";

const NOTHING: RowSelection<ListedRowView> = { kind: "some", rows: new Map() };

export type Selection = {
  readonly chosen: RowSelection<ListedRowView>;
  readonly count: number;
  readonly has: (row: ListedRowView, laneKey: string) => boolean;
  readonly toggle: (row: ListedRowView) => void;
  /** From the last row that was chosen or let go, to this one. */
  readonly extend: (row: ListedRowView, inOrder: readonly ListedRowView[]) => void;
  readonly chooseLane: (lane: RowLane) => void;
  readonly chooseAll: (count: number) => void;
  readonly clear: () => void;
};

/** Choosing several conversations of a list. */
export function useSelection(): Selection {
  const [chosen, setChosen] = useState(NOTHING);
  const [anchor, setAnchor] = useState<string | null>(null);
  const toggle = useCallback((row: ListedRowView) => {
    setAnchor(row.id);
    setChosen((now) => withToggled(now, row));
  }, []);
  const extend = useCallback(
    (row: ListedRowView, inOrder: readonly ListedRowView[]) => {
      if (anchor === null) setAnchor(row.id);
      setChosen((now) => withStretch(now, row, anchor, inOrder));
    },
    [anchor],
  );
  const chooseLane = useCallback((lane: RowLane) => setChosen((now) => withLane(now, lane)), []);
  const chooseAll = useCallback((count: number) => {
    setChosen({ kind: "everything", lane: null, name: "", count });
  }, []);
  const clear = useCallback(() => setChosen(NOTHING), []);
  return useMemo(
    () => ({
      chosen,
      toggle,
      extend,
      chooseLane,
      chooseAll,
      clear,
      count: countSelected(chosen),
      has: (row, laneKey) => isSelected(chosen, row, laneKey),
    }),
    [chosen, toggle, extend, chooseLane, chooseAll, clear],
  );
}
