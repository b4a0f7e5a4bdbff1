import { useContext, useEffect, useRef, useState } from "react";
import { useRevalidator } from "react-router";
import { ChangeHubContext } from "./live-hub";

// Several changes in a row are one reload of what is shown.
const GATHER_MS = 80;
// A line that comes back within this was hardly gone; saying so would only disturb.
const LOST_AFTER_MS = 2_500;

/**
 * Tells the screens whenever the server says that something changed, and loads anew what they share; also what changed
 * between the reading of the page, in the state that `seen` names, and the connection, or while that was lost. True
 * while it is lost.
 */
export function useLiveChanges(url: string, seen: string): boolean {
  const { revalidate } = useRevalidator();
  const hub = useContext(ChangeHubContext);
  const [isLost, setLost] = useState(false);
  const reload = useRef(revalidate);
  reload.current = revalidate;
  const state = useRef(seen);
  state.current = seen;
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let losing: ReturnType<typeof setTimeout> | undefined;
    let changed: Set<string> | null = new Set();
    const tell = () => {
      const ids = changed === null ? null : [...changed];
      changed = new Set();
      timer = undefined;
      void hub.announce(ids);
      void reload.current();
    };
    const soon = (ids: readonly string[] | null) => {
      changed = ids === null || changed === null ? null : new Set([...changed, ...ids]);
      timer ??= setTimeout(tell, GATHER_MS);
    };
    const source = new EventSource(`${url}?seen=${encodeURIComponent(state.current)}`);
    document.documentElement.dataset.ready = "true";
    source.addEventListener("change", (event) => soon(JSON.parse(event.data)));
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
  }, [url, hub]);
  return isLost;
}
