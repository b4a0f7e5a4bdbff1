import { useRouteLoaderData } from "react-router";
import type { loader } from "../routes/tray";

/** What the tray's own loader gave: its people, categories and name, for every screen below it. */
export function useTray() {
  const tray = useRouteLoaderData<typeof loader>("routes/tray");
  if (tray === undefined) throw new Error("this screen stands outside a tray");
  return tray;
}
