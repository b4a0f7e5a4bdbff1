import type { TrayId } from "../../core/kernel/ids";
import type { TrayChange } from "../../operations/index.server";

/** A screen that wants to know when something in its tray changed. */
export type LiveListener = {
  readonly trayId: TrayId;
  readonly hear: (change: TrayChange) => void;
  readonly end: () => void;
};

/** Where screens subscribe; the function that `subscribe` returns ends the subscription. */
export type LiveHub = {
  readonly subscribe: (listener: LiveListener) => () => void;
  /** A word that is another one after every change of the tray; what was read after asking is at least that new. */
  readonly state: (trayId: TrayId) => string;
};
