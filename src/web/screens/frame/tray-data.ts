import { createContext, useContext, useState } from "react";
import type { TrayData } from "../../server/shell/tray-view.server";

/** What most screens of a tray draw: its people, its categories, what the member may do and likes. */
export type SharedTray = Omit<TrayData, "flow" | "runs" | "shelf" | "now">;

/**
 * Not read from the router, whose every step of every request would draw all of these screens anew; and without the counts
 * that are others after every decision.
 */
export const TrayContext = createContext<SharedTray | null>(null);

/** The places of the shelf, whose counts change with every decision. */
export const ShelfContext = createContext<TrayData["shelf"]>([]);

/** A colleague of the tray, as every screen knows her. */
export type Colleague = TrayData["members"][number];

/** What the tray's own loader gave: its people, categories and name, for every screen below it. */
export function useTray(): SharedTray {
  const tray = useContext(TrayContext);
  if (tray === null) throw new Error("this screen stands outside a tray");
  return tray;
}

/** The places of the member's shelf. */
export function useShelf(): TrayData["shelf"] {
  return useContext(ShelfContext);
}

/** What the loader gave, cut in two; each stays the same object as long as it says the same, so that nothing is drawn anew. */
export function useSharedTray({ flow: _f, runs: _r, shelf, now: _n, ...tray }: TrayData): {
  readonly tray: SharedTray;
  readonly shelf: TrayData["shelf"];
} {
  return { tray: useSame(tray), shelf: useSame(shelf) };
}

function useSame<T>(value: T): T {
  const [kept, setKept] = useState({ value, said: "" });
  const said = JSON.stringify(value);
  if (kept.said === said) return kept.value;
  setKept({ value, said });
  return value;
}
