import { randomUUID } from "node:crypto";
import type { MemberId, TrayId } from "../core/kernel/ids";
import type { TrayChange } from "../operations/index.server";
import type { LiveHub } from "../web/server/live-hub";

type Listener = Parameters<LiveHub["subscribe"]>[0];

/**
 * Hands what the one listening connection hears to the open screens of this process. Processes of one `generation` say the
 * same of a state, as they began at one time and hear the same.
 */
export function liveHub(generation: string = randomUUID()): LiveHub & {
  spread: (change: TrayChange) => void;
  spreadGap: () => void;
  /** Has the screens of a tray ask for its counts, after so many milliseconds; once for all who want it meanwhile. */
  askForCounts: (trayId: TrayId, ms: number) => void;
  lookAgain: (memberId: MemberId) => void;
  end: () => void;
} {
  const listeners = new Set<Listener>();
  const changes = new Map<TrayId, string>();
  const asking = new Map<TrayId, NodeJS.Timeout>();
  // A page of an earlier process may have missed anything; so may every page when the connection broke.
  let since = generation;
  const endUnlessItMay = async (listener: Listener) => {
    const stays = await listener.mayStay().catch(() => false);
    if (!stays && listeners.delete(listener)) listener.end();
  };
  return {
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    state: (trayId) => `${since}.${changes.get(trayId) ?? ""}`,
    spread(change) {
      // Who looks at what is in no page that is read: it makes none older.
      if (change.only === undefined) changes.set(change.trayId, change.id);
      for (const listener of listeners) if (listener.trayId === change.trayId) listener.hear(change);
    },
    spreadGap() {
      since = randomUUID();
      for (const listener of listeners) listener.hear({ conversationIds: null });
    },
    askForCounts(trayId, ms) {
      if (asking.has(trayId)) return;
      const timer = setTimeout(() => {
        asking.delete(trayId);
        for (const listener of listeners) if (listener.trayId === trayId) listener.hear({ conversationIds: [] });
      }, ms);
      asking.set(trayId, timer.unref());
    },
    lookAgain(memberId) {
      for (const listener of listeners) if (listener.memberId === memberId) void endUnlessItMay(listener);
    },
    end() {
      for (const timer of asking.values()) clearTimeout(timer);
      for (const listener of listeners) listener.end();
      listeners.clear();
    },
  };
}
