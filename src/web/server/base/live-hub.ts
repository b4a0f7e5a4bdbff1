import type { ConversationId, MemberId, TrayId } from "../../../core/kernel/ids";
import type { TrayChange } from "../../../operations/index.server";

/** A screen that wants to know when something in its tray changed. */
type LiveListener = {
  readonly trayId: TrayId;
  readonly memberId: MemberId;
  /** Whether it may still be open: its session is good, and its member may look into the tray. */
  readonly mayStay: () => Promise<boolean>;
  readonly hear: (change: Pick<TrayChange, "conversationIds" | "only">) => void;
  readonly end: () => void;
};

/** Where screens subscribe; the function that `subscribe` returns ends the subscription. */
export type LiveHub = {
  readonly subscribe: (listener: LiveListener) => () => void;
  /** A word that is another one after every change of the tray; what was read after asking is at least that new. */
  readonly state: (trayId: TrayId) => string;
  /** What changed since a state that `state` gave: no conversations when nothing did, null for anything. */
  readonly changedSince: (trayId: TrayId, state: string) => readonly ConversationId[] | null;
};
