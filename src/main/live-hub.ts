import type { TrayChange } from "../operations/index.server";
import type { LiveHub } from "../web/server/live-hub";

/** Hands what the one listening connection hears to the open screens of this process. */
export function liveHub(): LiveHub & { spread: (change: TrayChange) => void; spreadGap: () => void; end: () => void } {
  const listeners = new Set<Parameters<LiveHub["subscribe"]>[0]>();
  return {
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    spread(change) {
      for (const listener of listeners) if (listener.trayId === change.trayId) listener.hear(change);
    },
    spreadGap() {
      for (const listener of listeners) listener.hear({ trayId: listener.trayId, conversationIds: null });
    },
    end() {
      for (const listener of listeners) listener.end();
      listeners.clear();
    },
  };
}
