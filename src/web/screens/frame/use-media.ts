import { useSyncExternalStore } from "react";

/** Whether a media query holds; `onServer` is what it is taken for until the browser can say. */
export function useMedia(query: string, onServer: boolean): boolean {
  return useSyncExternalStore(
    (changed) => {
      const media = window.matchMedia(query);
      media.addEventListener("change", changed);
      return () => media.removeEventListener("change", changed);
    },
    () => window.matchMedia(query).matches,
    () => onServer,
  );
}
