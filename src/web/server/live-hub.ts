import type { TrayId } from "../../core/kernel/ids";
import type { TrayChange } from "../../operations/index.server";

/** A screen that wants to know when something in its tray changed. */
export type LiveListener = {
  readonly trayId: TrayId;
  readonly hear: (change: TrayChange) => void;
  readonly end: () => void;
};

/** Where screens subscribe; the returned function ends the subscription. */
export type LiveHub = { readonly subscribe: (listener: LiveListener) => () => void };
