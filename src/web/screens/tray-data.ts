import { createContext, useContext } from "react";
import type { TrayData } from "../server/tray-view.server";

/** Not read from the router, whose every step of every request would draw all of these screens anew. */
export const TrayContext = createContext<TrayData | null>(null);

/** A colleague of the tray, as every screen knows her. */
export type Colleague = TrayData["members"][number];

/** What the tray's own loader gave: its people, categories and name, for every screen below it. */
export function useTray(): TrayData {
  const tray = useContext(TrayContext);
  if (tray === null) throw new Error("this screen stands outside a tray");
  return tray;
}
