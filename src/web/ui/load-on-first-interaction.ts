import { useSyncExternalStore } from "react";

/** A part of the program that is fetched with the first thing that somebody does on a page. */
export type Deferred<T> = {
  /** The part, or null until it is there. */
  readonly use: () => T | null;
  /** Fetches it now. */
  readonly ask: () => void;
};

const FIRST_THINGS = ["pointermove", "keydown", "touchstart"] as const;

let isPressed = false;
let isWatching = false;

function watchPresses(): void {
  if (isWatching) return;
  isWatching = true;
  const set = (pressed: boolean) => () => {
    isPressed = pressed;
  };
  document.addEventListener("pointerdown", set(true), { capture: true, passive: true });
  for (const end of ["pointerup", "pointercancel"] as const)
    document.addEventListener(end, set(false), { capture: true, passive: true });
}

/** Done once no pointer is pressed: what is exchanged between press and release loses its click. */
function released(): Promise<void> {
  if (!isPressed) return Promise.resolve();
  return new Promise((resolve) => {
    // The click comes with the release, before anything else has its turn.
    for (const end of ["pointerup", "pointercancel"] as const)
      document.addEventListener(end, () => setTimeout(resolve), { once: true, passive: true });
  });
}

/** Leaves a part out of what a page needs to be drawn; it is there before anybody has found what to click. */
export function loadOnFirstInteraction<T>(load: () => Promise<T>): Deferred<T> {
  let part: T | null = null;
  let isAsked = false;
  const waiting = new Set<() => void>();
  const ask = () => {
    if (isAsked) return;
    isAsked = true;
    load()
      .then(async (loaded) => {
        await released();
        part = loaded;
        for (const tell of waiting) tell();
      })
      .catch(() => {
        // The line may be down; the next thing that somebody does tries again.
        isAsked = false;
        listen();
      });
  };
  const listen = () => {
    watchPresses();
    for (const thing of FIRST_THINGS) document.addEventListener(thing, ask, { once: true, passive: true });
  };
  const subscribe = (tell: () => void) => {
    if (part === null) listen();
    waiting.add(tell);
    return () => waiting.delete(tell);
  };
  return {
    ask,
    use: () =>
      useSyncExternalStore(
        subscribe,
        () => part,
        () => null,
      ),
  };
}
