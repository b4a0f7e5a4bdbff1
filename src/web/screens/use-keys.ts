import { useEffect, useRef } from "react";

/** What each key does; a key is `KeyboardEvent.key`. */
export type Keys = Readonly<Record<string, (() => void) | undefined>>;

const TYPING = "input, textarea, select, [contenteditable=true], [role=dialog], [role=menu]";

/** Works the keys of a screen, except while one types, a dialog is open, or a modifier is held. */
export function useKeys(keys: Keys): void {
  const current = useRef(keys);
  current.current = keys;
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      if (event.target instanceof Element && event.target.closest(TYPING) !== null) return;
      if (document.querySelector("[role=dialog]") !== null) return;
      const act = current.current[event.key];
      if (act === undefined) return;
      event.preventDefault();
      act();
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, []);
}
