import { useCallback, useContext, useEffect, useRef, useState } from "react";
import { useNavigation, useRevalidator } from "react-router";
import type { TrayData } from "../../server/shell/tray-view.server";
import { ChangeHubContext, type RowChanges } from "./live-hub";

// Several changes in a row are one question; where one follows the other, one question a second, however many people decide
// at once.
const GATHER_MS = 80;
const SPACED_MS = 1_000;
// A line that comes back within this was hardly gone; saying so would only disturb.
const LOST_AFTER_MS = 2_500;

/** What became of conversations, as the server answers whoever has a list open. */
export type News = {
  readonly now: Pick<TrayData, "flow" | "bell"> & Partial<Pick<TrayData, "runs" | "zipExports" | "shelf">>;
  readonly looseEnds: number;
  readonly list: RowChanges | null;
};

async function fetchNews(slug: string, ids: readonly string[], followed: string, hasOwn: boolean): Promise<News> {
  const changed = new URLSearchParams(ids.map((id) => ["changed", id]));
  const response = await fetch(`/${slug}/news?${followed}&${changed}${hasOwn ? "&own=1" : ""}`);
  if (!response.ok || response.redirected) throw new Error(`the server answered ${response.status}`);
  return response.json();
}

/** Loads the page anew; where one is on the way to another, once that is there, so that the way is not cut off. */
function useReload(): () => void {
  const { revalidate } = useRevalidator();
  const { state } = useNavigation();
  const isOwed = useRef(false);
  const now = useRef({ revalidate, state });
  now.current = { revalidate, state };
  useEffect(() => {
    if (state !== "idle") return;
    if (isOwed.current) void now.current.revalidate();
    isOwed.current = false;
  }, [state]);
  return useCallback(() => {
    if (now.current.state === "idle") void now.current.revalidate();
    else isOwed.current = true;
  }, []);
}

/**
 * Tells the screens whenever the server says that something changed: a list that is open has one answer with its rows and
 * the counts around it, other pages are loaded anew. Also what changed between the reading of the page, in the state that
 * `seen` names, and the connection, or while that was lost. `hasOwn` says that what is the member's own, and may change by
 * that, is on the screen. True while the connection is lost.
 */
export function useLiveChanges(slug: string, seen: string, hasOwn: boolean, onNews: (news: News) => void): boolean {
  const hub = useContext(ChangeHubContext);
  const reload = useReload();
  const [isLost, setLost] = useState(false);
  const hear = useRef({ onNews, hasOwn });
  hear.current = { onNews, hasOwn };
  const state = useRef(seen);
  state.current = seen;
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let losing: ReturnType<typeof setTimeout> | undefined;
    let changed: Set<string> | null = new Set();
    let lastTold = Number.NEGATIVE_INFINITY;
    const everything = (ids: readonly string[] | null) => {
      void hub.announce(ids);
      reload();
    };
    const tell = () => {
      const ids = changed === null ? null : [...changed];
      changed = new Set();
      timer = undefined;
      lastTold = performance.now();
      hub.tellAll();
      const { followed, opened } = hub;
      if (ids === null || followed === null || (opened !== null && ids.includes(opened))) return everything(ids);
      void hub.announce(ids, async () => {
        const news = await fetchNews(slug, ids, followed, hear.current.hasOwn);
        hear.current.onNews(news);
        return hub.followed === followed ? news.list : null;
      });
    };
    const soon = (ids: readonly string[] | null) => {
      changed = ids === null || changed === null ? null : new Set([...changed, ...ids]);
      timer ??= setTimeout(tell, Math.max(GATHER_MS, lastTold + SPACED_MS - performance.now()));
    };
    hub.begin(state.current);
    const source = new EventSource(`/${slug}/live?seen=${encodeURIComponent(state.current)}`);
    document.documentElement.dataset.ready = "true";
    source.addEventListener("change", (event) => {
      const ids: readonly string[] | null = JSON.parse(event.data);
      hub.hear(event.lastEventId, ids);
      soon(ids);
    });
    source.addEventListener("presence", (event) => hub.announcePresence(JSON.parse(event.data)));
    source.addEventListener("error", () => {
      losing ??= setTimeout(() => setLost(true), LOST_AFTER_MS);
    });
    source.addEventListener("open", () => {
      clearTimeout(losing);
      losing = undefined;
      setLost(false);
    });
    // A browser that knows that it has no network says so long before the connection notices.
    const offline = () => setLost(true);
    const online = () => {
      setLost(false);
      soon(null);
    };
    window.addEventListener("offline", offline);
    window.addEventListener("online", online);
    return () => {
      window.removeEventListener("offline", offline);
      window.removeEventListener("online", online);
      clearTimeout(timer);
      clearTimeout(losing);
      source.close();
    };
  }, [slug, hub, reload]);
  return isLost;
}
