import { useEffect, useRef } from "react";
import { useRevalidator } from "react-router";

// Several changes in a row are one reload of what is shown.
const GATHER_MS = 80;

/** Loads what is shown anew whenever the server says that something changed, and after the connection was lost. */
export function useLiveChanges(url: string): void {
  const { revalidate } = useRevalidator();
  const reload = useRef(revalidate);
  reload.current = revalidate;
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let lost = false;
    const soon = () => {
      clearTimeout(timer);
      timer = setTimeout(() => void reload.current(), GATHER_MS);
    };
    const source = new EventSource(url);
    document.documentElement.dataset.ready = "true";
    source.addEventListener("change", soon);
    source.addEventListener("error", () => {
      lost = true;
    });
    source.addEventListener("open", () => {
      if (lost) soon();
      lost = false;
    });
    return () => {
      clearTimeout(timer);
      source.close();
    };
  }, [url]);
}
