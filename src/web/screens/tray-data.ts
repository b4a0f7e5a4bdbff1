import { useRouteLoaderData } from "react-router";
import type { TrayData } from "../server/tray-view.server";

/** What the tray's own loader gave: its people, categories and name, for every screen below it. */
export function useTray(): TrayData {
  const tray = useRouteLoaderData<TrayData>("routes/tray");
  if (tray === undefined) throw new Error("this screen stands outside a tray");
  return tray as TrayData;
}
