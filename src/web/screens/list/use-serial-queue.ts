import { useCallback, useRef } from "react";

/**
 * Does things one after the other: what was asked of the server later is never overwritten by an answer to what was asked
 * before.
 */
export function useSerialQueue(): (work: () => Promise<void>) => Promise<void> {
  const last = useRef<Promise<void>>(Promise.resolve());
  return useCallback((work) => {
    const next = last.current.then(work);
    last.current = next.catch(() => undefined);
    return next;
  }, []);
}
