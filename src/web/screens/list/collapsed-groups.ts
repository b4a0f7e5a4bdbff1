import { useCallback, useEffect, useState } from "react";

/** Which groups of a place are folded, remembered while the window is open. */
export function useCollapsedGroups(place: string): [ReadonlySet<string>, (key: string) => void] {
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => {
    setFolded(new Set(JSON.parse(sessionStorage.getItem(`folded ${place}`) ?? "[]")));
  }, [place]);
  const fold = useCallback(
    (key: string) => {
      setFolded((now) => {
        const next = new Set(now);
        if (!next.delete(key)) next.add(key);
        sessionStorage.setItem(`folded ${place}`, JSON.stringify([...next]));
        return next;
      });
    },
    [place],
  );
  return [folded, fold];
}
