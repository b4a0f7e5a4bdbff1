import { createContext, useContext, useEffect, useRef } from "react";
import { useRevalidator } from "react-router";
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

// A page on its way may miss so many changes; of what is older it is taken to know.
const KEPT_CHANGES = 1_000;

/** Where changes are told to the screens that show them. */
export class ChangeHub {
  /** What the server said, in its order, with the state of the tray after each. */
  #heard: { readonly state: string; readonly ids: readonly string[] | null }[] = [];
  /** So many of them the screens were told of. */
  #told = 0;
  readonly #listeners = new Set<OnChange>();
  readonly #watchers = new Set<OnPresence>();
  /** The list that is open, as a URL names it; null where none is. */
  followed: string | null = null;
  /** The conversation that is open beside it. */
  opened: string | null = null;

  /** The line to the server begins: the page was read in this state. */
  begin(state: string): void {
    this.#heard = [{ state, ids: [] }];
    this.#told = 1;
  }

  /** The server says that these changed, and is in this state since; null means any of them. */
  hear(state: string, ids: readonly string[] | null): void {
    this.#heard.push({ state, ids });
    const tooMany = Math.max(0, this.#heard.length - KEPT_CHANGES);
    this.#heard.splice(0, tooMany);
    this.#told = Math.max(0, this.#told - tooMany);
  }

  /** The screens are told of all that was heard. */
  tellAll(): void {
    this.#told = this.#heard.length;
  }

  /** What the screens were told of before what was read in this state was among them; null means any of them. */
  missedSince(state: string): readonly string[] | null {
    const at = this.#heard.findLastIndex((change) => change.state === state);
    // The server was further than what it had said.
    if (at === -1) return [];
    const missed = this.#heard.slice(at + 1, this.#told).map(({ ids }) => ids);
    return missed.includes(null) ? null : missed.flatMap((ids) => ids ?? []);
  }

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

/**
 * Says which conversation is open beside a list, so that it is loaded anew when something becomes of it; also when that
 * was while it was on its way, read in this state of the tray.
 */
export function useOpened(id: string, readIn: string): void {
  const hub = useContext(ChangeHubContext);
  const { revalidate } = useRevalidator();
  const again = useRef(revalidate);
  again.current = revalidate;
  useEffect(() => {
    hub.opened = id;
    return () => {
      if (hub.opened === id) hub.opened = null;
    };
  }, [hub, id]);
  useEffect(() => {
    const missed = hub.missedSince(readIn);
    if (missed === null || missed.includes(id)) void again.current();
  }, [hub, id, readIn]);
}

/**
 * Hears of changes while the screen is there, and of those while it was on its way, read in this state of the tray;
 * `followed` is the list that it shows, as a URL names it.
 */
export function useChanges(followed: string, readIn: string, onChange: OnChange): void {
  const hub = useContext(ChangeHubContext);
  const current = useRef(onChange);
  current.current = onChange;
  useEffect(() => hub.subscribe((ids, ask) => current.current(ids, ask)), [hub]);
  useEffect(() => {
    const missed = hub.missedSince(readIn);
    if (missed === null || missed.length > 0) void current.current(missed, null);
  }, [hub, readIn]);
  useEffect(() => {
    hub.followed = followed;
    return () => {
      if (hub.followed === followed) hub.followed = null;
    };
  }, [hub, followed]);
}
