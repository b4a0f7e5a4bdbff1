import { useCallback, useMemo, useState } from "react";
import type { ListedRowView } from "../server/list-view.server";
import type { RowLane } from "./use-list";

/** What is chosen of a list: some rows, or everything that it shows or one of its groups holds, loaded or not. */
export type Chosen =
  | { readonly kind: "some"; readonly rows: ReadonlyMap<string, ListedRowView> }
  | { readonly kind: "everything"; readonly lane: string | null; readonly name: string; readonly count: number };

const NOTHING: Chosen = { kind: "some", rows: new Map() };

export type Selection = {
  readonly chosen: Chosen;
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
  const [chosen, setChosen] = useState<Chosen>(NOTHING);
  const [anchor, setAnchor] = useState<string | null>(null);
  const toggle = useCallback((row: ListedRowView) => {
    setAnchor(row.id);
    setChosen((now) => {
      const rows = new Map(now.kind === "some" ? now.rows : []);
      if (!rows.delete(row.id)) rows.set(row.id, row);
      return { kind: "some", rows };
    });
  }, []);
  const extend = useCallback(
    (row: ListedRowView, inOrder: readonly ListedRowView[]) => {
      const to = inOrder.findIndex(({ id }) => id === row.id);
      const from = Math.max(0, anchor === null ? to : inOrder.findIndex(({ id }) => id === anchor));
      const between = inOrder.slice(Math.min(from, to), Math.max(from, to) + 1);
      if (anchor === null) setAnchor(row.id);
      setChosen((now) => {
        const rows = new Map(now.kind === "some" ? now.rows : []);
        for (const one of between) rows.set(one.id, one);
        return { kind: "some", rows };
      });
    },
    [anchor],
  );
  const chooseLane = useCallback((lane: RowLane) => {
    if (lane.rows.length < lane.count) {
      setChosen({ kind: "everything", lane: lane.key, name: lane.name, count: lane.count });
      return;
    }
    setChosen((now) => {
      const rows = new Map(now.kind === "some" ? now.rows : []);
      const isWhole = lane.rows.every(({ id }) => rows.has(id));
      for (const row of lane.rows) isWhole ? rows.delete(row.id) : rows.set(row.id, row);
      return { kind: "some", rows };
    });
  }, []);
  const chooseAll = useCallback((count: number) => {
    setChosen({ kind: "everything", lane: null, name: "", count });
  }, []);
  const clear = useCallback(() => setChosen(NOTHING), []);
  return useMemo(
    () => ({
      chosen,
      count: chosen.kind === "some" ? chosen.rows.size : chosen.count,
      has: (row, laneKey) =>
        chosen.kind === "some" ? chosen.rows.has(row.id) : chosen.lane === null || chosen.lane === laneKey,
      ...{ toggle, extend, chooseLane, chooseAll, clear },
    }),
    [chosen, toggle, extend, chooseLane, chooseAll, clear],
  );
}
