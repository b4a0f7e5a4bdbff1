import { type KeyboardEvent, useRef } from "react";

/** The keys of a letter's form: Ctrl and Enter send it, Esc leaves it. */
export function useLetterKeys(onLeave: () => void) {
  // Whether something above the letter, a sheet or a menu, took the key that is pressed.
  const isTaken = useRef(false);
  return {
    onKeyDownCapture: (event: KeyboardEvent<HTMLFormElement>) => {
      // Asked on the way in: on the way out the text editor has marked every Esc as taken.
      isTaken.current = event.defaultPrevented;
    },
    onKeyDown: (event: KeyboardEvent<HTMLFormElement>) => {
      if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) event.currentTarget.requestSubmit();
      if (event.key === "Escape" && !isTaken.current && isWithin(event)) onLeave();
    },
  };
}

/** Whether a key was pressed in the letter itself and not in a sheet above it, which stands elsewhere on the page. */
function isWithin({ currentTarget, target }: KeyboardEvent<HTMLElement>): boolean {
  return target instanceof Node && currentTarget.contains(target);
}
