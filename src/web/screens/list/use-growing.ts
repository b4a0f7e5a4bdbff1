import { useCallback, useEffect, useRef, useState } from "react";
import { listTexts } from "../../../texts/en/list";
import { useSay } from "../../ui/texts/use-say";
import { useSerialQueue } from "./use-serial-queue";

/** A part of a list, with how much there is in all. */
export type ListPart<T> = { readonly rows: readonly T[]; readonly total: number };

/** A list that is loaded part by part, as its reader comes to its end. */
export type Growing<T> = {
  readonly rows: readonly T[];
  readonly total: number;
  /** Why the rest could not be had; null when it could. */
  readonly problem: string | null;
  /** Has so many rows loaded, as far as there are, and gives them. */
  readonly load: (wanted: number) => Promise<readonly T[]>;
  /** To be put where the rows end: once that comes near, more are loaded. */
  readonly end: (element: Element | null) => void;
};

const PART = 100;
// So far before the end comes into sight.
const AHEAD = "600px";

/**
 * Loads a list that begins with `first`, from `url` with `from` and `limit`. When what it begins with is another, as much is
 * loaded as was, and shown at once with it: whoever is far down does not see it end.
 */
export function useGrowing<T>(first: ListPart<T>, url: string, keyOf: (row: T) => string): Growing<T> {
  const say = useSay(listTexts);
  const [shown, setShown] = useState({ ...first, about: first, url });
  const state = useRef(shown);
  const [problem, setProblem] = useState<string | null>(null);
  const inTurn = useSerialQueue();
  const keep = useCallback((next: typeof shown) => {
    state.current = next;
    setShown(next);
  }, []);
  const names = useRef(keyOf);
  names.current = keyOf;

  const filled = useCallback(async (begun: typeof shown, wanted: number): Promise<typeof shown> => {
    let grown = begun;
    while (grown.rows.length < Math.min(wanted, grown.total)) {
      const page = new URLSearchParams({ from: String(grown.rows.length), limit: String(PART) });
      const response = await fetch(`${grown.url}${grown.url.includes("?") ? "&" : "?"}${page}`);
      if (!response.ok || response.redirected) throw new Error(`the server answered ${response.status}`);
      const part: ListPart<T> = await response.json();
      const known = new Set(grown.rows.map(names.current));
      const rows = [...grown.rows, ...part.rows.filter((row) => !known.has(names.current(row)))];
      // What went meanwhile has moved the rest up: there is less than was said.
      const total = part.rows.length === 0 ? rows.length : part.total;
      grown = { ...grown, rows, total };
    }
    return grown;
  }, []);

  useEffect(() => {
    const { about, rows, url: before } = state.current;
    if (about === first && before === url) return;
    const begun = { ...first, about: first, url };
    if (before !== url || rows.length <= first.rows.length) return keep(begun);
    void inTurn(async () => {
      keep(await filled(begun, rows.length).catch(() => begun));
    });
  }, [first, url, keep, filled, inTurn]);

  const load = useCallback(
    async (wanted: number) => {
      await inTurn(async () => {
        try {
          const begun = state.current;
          const grown = await filled(begun, wanted);
          if (state.current === begun && grown !== begun) keep(grown);
          setProblem(null);
        } catch {
          setProblem(say("list.theRestOfTheList"));
        }
      });
      return state.current.rows;
    },
    [filled, inTurn, keep, say],
  );

  const watching = useRef<IntersectionObserver | null>(null);
  const end = useCallback(
    (element: Element | null) => {
      watching.current?.disconnect();
      if (element === null) return;
      watching.current = new IntersectionObserver(
        ([entry]) => {
          if (entry?.isIntersecting === true) void load(state.current.rows.length + PART);
        },
        { root: element.parentElement, rootMargin: AHEAD },
      );
      watching.current.observe(element);
    },
    [load],
  );
  return { rows: shown.rows, total: shown.total, problem, load, end };
}
