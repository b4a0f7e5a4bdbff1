import { createContext, useContext, useEffect, useRef } from "react";
import type { ListChanges } from "../../../core/lists/lanes";
import type { ListedRowView } from "../../server/list/list-view.server";

/** What became of conversations as far as a list shows them. */
export type RowChanges = ListChanges<ListedRowView>;

/** Asks what changed in the list that is followed, with everything else that did, in one question. */
export type AskNews = () => Promise<RowChanges | null>;

/**
 * What a screen does when conversations changed; null means any of them. Where `ask` is given, it is asked what changed in
 * the list that the screen follows: in its turn, as what was asked before something is older than that. It may take time to
 * have it shown.
 */
export type OnChange = (ids: readonly string[] | null, ask: AskNews | null) => Promise<void> | void;

/** Hears which conversations others have open. */
export type OnPresence = (ids: readonly string[] | null) => void;

/** Where changes are told to the screens that show them. */
export class ChangeHub {
  readonly #listeners = new Set<OnChange>();
  readonly #watchers = new Set<OnPresence>();
  /** The list that is open, as a URL names it; null where none is. */
  followed: string | null = null;
  /** The conversation that is open beside it. */
  opened: string | null = null;

  subscribe(listener: OnChange): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** For those who want to know who has conversations open. */
  subscribeToPresence(watcher: OnPresence): () => void {
    this.#watchers.add(watcher);
    return () => this.#watchers.delete(watcher);
  }

  /** Tells those who want to know that other people have these open. */
  announcePresence(ids: readonly string[] | null): void {
    for (const watcher of this.#watchers) watcher(ids);
  }

  /** Tells every screen; done when all of them show what changed. */
  async announce(ids: readonly string[] | null, ask: AskNews | null = null): Promise<void> {
    await Promise.all([...this.#listeners].map((listener) => listener(ids, ask)));
  }
}

export const ChangeHubContext = createContext<ChangeHub>(new ChangeHub());

/** Says which conversation is open beside a list, so that it is loaded anew when something becomes of it. */
export function useOpened(id: string): void {
  const hub = useContext(ChangeHubContext);
  useEffect(() => {
    hub.opened = id;
    return () => {
      if (hub.opened === id) hub.opened = null;
    };
  }, [hub, id]);
}

/** Hears of changes while the screen is there; `followed` is the list that it shows, as a URL names it. */
export function useChanges(followed: string, onChange: OnChange): void {
  const hub = useContext(ChangeHubContext);
  const current = useRef(onChange);
  current.current = onChange;
  useEffect(() => hub.subscribe((ids, ask) => current.current(ids, ask)), [hub]);
  useEffect(() => {
    hub.followed = followed;
    return () => {
      if (hub.followed === followed) hub.followed = null;
    };
  }, [hub, followed]);
}
