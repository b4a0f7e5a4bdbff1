import { randomUUID } from "node:crypto";
import type { MemberId, TrayId } from "../core/kernel/ids";
import type { TrayChange } from "../operations/index.server";
import type { LiveHub } from "../web/server/base/live-hub";

type Listener = Parameters<LiveHub["subscribe"]>[0];

// A page is connected moments after it was read; whoever missed more than these loads everything anew.
const KEPT_CHANGES = 100;

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
  const logs = new Map<TrayId, TrayChange[]>();
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
    state: (trayId) => `${since}.${logs.get(trayId)?.at(-1)?.id ?? ""}`,
    changedSince(trayId, seen) {
      const log = logs.get(trayId) ?? [];
      const [generationSeen, id] = seen.split(".");
      const at = id === "" && log.length < KEPT_CHANGES ? 0 : log.findIndex((change) => change.id === id) + 1;
      if (generationSeen !== since || (at === 0 && id !== "")) return null;
      const missed = log.slice(at).map(({ conversationIds }) => conversationIds);
      return missed.includes(null) ? null : missed.flatMap((ids) => ids ?? []);
    },
    spread(change) {
      // Who looks at what is in no page that is read: it makes none older.
      if (change.only === undefined)
        logs.set(change.trayId, [...(logs.get(change.trayId) ?? []), change].slice(-KEPT_CHANGES));
      for (const listener of listeners) if (listener.trayId === change.trayId) listener.hear(change);
    },
    spreadGap() {
      since = randomUUID();
      logs.clear();
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
