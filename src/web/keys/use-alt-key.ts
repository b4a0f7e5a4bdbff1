import { useEffect, useRef } from "react";

/** Does something when a letter is pressed with Alt, also while one writes; by its place, as some keyboards write another letter with it. */
export function useAltKey(code: `Key${string}`, act: (() => void) | null): void {
  const latest = useRef(act);
  latest.current = act;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (latest.current === null || !event.altKey || event.ctrlKey || event.code !== code) return;
      event.preventDefault();
      latest.current();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [code]);
}
