import { createContext, useContext, useEffect, useRef } from "react";

/** What a screen does when conversations changed; null means any of them. It may take time to have it shown. */
export type OnChange = (ids: readonly string[] | null) => Promise<void> | void;

/** Where changes are told to the screens that show them. */
export class ChangeHub {
  readonly #listeners = new Set<OnChange>();
  readonly #watchers = new Set<OnChange>();

  subscribe(listener: OnChange): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** For those who want to know who has conversations open. */
  subscribeToPresence(watcher: OnChange): () => void {
    this.#watchers.add(watcher);
    return () => this.#watchers.delete(watcher);
  }

  /** Tells those who want to know that other people have these open. */
  announcePresence(ids: readonly string[] | null): void {
    for (const watcher of this.#watchers) void watcher(ids);
  }

  /** Tells every screen; done when all of them show what changed. */
  async announce(ids: readonly string[] | null): Promise<void> {
    await Promise.all([...this.#listeners].map((listener) => listener(ids)));
  }
}

export const ChangeHubContext = createContext<ChangeHub>(new ChangeHub());

/** Hears of changes while the screen is there. */
export function useChanges(onChange: OnChange): void {
  const hub = useContext(ChangeHubContext);
  const current = useRef(onChange);
  current.current = onChange;
  useEffect(() => hub.subscribe((ids) => current.current(ids)), [hub]);
}
