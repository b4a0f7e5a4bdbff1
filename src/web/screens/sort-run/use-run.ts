import { startTransition, useCallback, useEffect, useRef, useState } from "react";
import type { ListFilter } from "../../../core/lists/filter";
import { isInScope, type Scope } from "../../../core/lists/scope";
import { sortRunTexts } from "../../../texts/en/sort-run";
import type { ListedRowView } from "../../server/list/list-view.server";
import type { RunPartView, RunView } from "../../server/list/run-view.server";
import { useSay } from "../../ui/texts/use-say";
import { useDecisions } from "../deciding/decisions";
import { withPending } from "../deciding/foreseen";
import { fetchPart } from "../filter/fetch-part";
import { type AskNews, useChanges } from "../frame/live-hub";
import { fetchChanges, followedAs } from "../list/use-list";
import { useSerialQueue } from "../list/use-serial-queue";

// So many are fetched before their turn, so that the next is there when the key goes down.
const AHEAD = 4;
const MOST_ASKED = 50;
// With so few left of what was fetched, the next part is asked for.
const FEW = 50;

export type RunStart = {
  readonly scope: Scope;
  readonly filter: ListFilter;
  readonly order: string;
  readonly rows: readonly ListedRowView[];
  /** How many conversations there are in all; `rows` are the first of them. */
  readonly total: number;
  /** The state of the tray in which they were read. */
  readonly readIn: string;
};

/** A run under way. */
export type Run = {
  /** What is still to be decided, in order; the first is the one to decide now unless one looks back. */
  readonly queue: readonly ListedRowView[];
  readonly current: ListedRowView | null;
  /** Null while it is being fetched. */
  readonly view: RunView | null;
  readonly decided: number;
  /** How many are still to be decided, also those that are not fetched yet. */
  readonly left: number;
  /** How long a decision took of late, in milliseconds; null before there are some. */
  readonly paceMs: number | null;
  /** Somebody else decided about the current one meanwhile. */
  readonly isTaken: boolean;
  readonly problem: string | null;
  /** The current one is decided: on to the next. */
  readonly goOn: () => void;
  readonly skip: () => void;
  /** Back to the one decided last, to look at it or to undo. */
  readonly back: () => void;
};

// The middle of the last ones: one that took a phone call must not make the rest look long.
const PACED_BY = 9;

function median(values: readonly number[]): number | null {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? null;
}

/** Does something once what was drawn last is in sight, unless that is called off. */
function afterPaint(work: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const frame = requestAnimationFrame(() => {
    timer = setTimeout(work);
  });
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(timer);
  };
}

/** Goes through a list one conversation at a time, with the next ones at hand. */
export function useRun(slug: string, start: RunStart): Run {
  const say = useSay(sortRunTexts);
  const [queue, setQueue] = useState<readonly ListedRowView[]>(start.rows);
  // Those of the list that are not fetched yet.
  const [rest, setRest] = useState(Math.max(0, start.total - start.rows.length));
  const [done, setDone] = useState<readonly ListedRowView[]>([]);
  const [lookingAt, setLookingAt] = useState<ListedRowView | null>(null);
  const [views, setViews] = useState<ReadonlyMap<string, RunView>>(new Map());
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  const [times, setTimes] = useState<readonly number[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const current = lookingAt ?? queue[0] ?? null;
  const { underWay } = useDecisions();
  const state = useRef({ queue, done, views, current });
  state.current = { queue, done, views, current };
  const asked = useRef(new Set<string>());
  const shownAt = useRef(0);

  const fetchView = useCallback(
    async (id: string) => {
      asked.current.add(id);
      try {
        const response = await fetch(`/${slug}/run/${id}`);
        if (!response.ok) throw new Error(`the server answered ${response.status}`);
        const view: RunView = await response.json();
        // What is fetched ahead gives way to the key that is pressed now; what one waits for is drawn at once.
        const keep = () => {
          setViews((others) => new Map([...others, [id, view]]));
          setProblem(null);
        };
        if (state.current.current?.id === id) keep();
        else startTransition(keep);
      } catch {
        asked.current.delete(id);
        setProblem(say("sortRun.theConversationCouldNotBe"));
      }
    },
    [slug, say],
  );

  useEffect(
    () =>
      afterPaint(() => {
        for (const { id } of queue.slice(0, AHEAD)) if (!asked.current.has(id)) void fetchView(id);
      }),
    [queue, fetchView],
  );

  const currentId = current?.id ?? null;
  // What somebody else decided about goes once it is out of sight.
  // biome-ignore lint/correctness/useExhaustiveDependencies: with each step of the run, and not when more is taken
  useEffect(() => {
    setQueue((others) =>
      others.some(({ id }) => id !== currentId && taken.has(id))
        ? others.filter(({ id }) => id === currentId || !taken.has(id))
        : others,
    );
  }, [currentId]);
  useEffect(() => {
    shownAt.current = performance.now();
    if (currentId === null) return;
    // That it was read is worth no message when it could not be noted.
    return afterPaint(() => void fetch(`/${slug}/run/${currentId}`, { method: "POST" }).catch(() => undefined));
  }, [slug, currentId]);

  const goOn = useCallback(() => {
    const { current: now } = state.current;
    if (now === null) return;
    const took = performance.now() - shownAt.current;
    setTimes((others) => [...others, took].slice(-PACED_BY));
    setDone((others) => [...others.filter(({ id }) => id !== now.id), now]);
    setQueue((others) => others.filter(({ id }) => id !== now.id));
    setLookingAt(null);
  }, []);
  const skip = useCallback(() => {
    setLookingAt(null);
    setQueue(([first, ...others]) => (first === undefined ? [] : [...others, first]));
  }, []);
  const back = useCallback(() => {
    const last = state.current.done.at(-1);
    if (last !== undefined) setLookingAt(last);
  }, []);

  const fetchNext = async () => {
    const params = new URLSearchParams({ order: start.order });
    const part = await fetchPart<RunPartView>(slug, start, "run", params).catch(() => null);
    if (part === null) return;
    const { queue: waiting, done: decided } = state.current;
    const known = new Set<string>([...waiting, ...decided].map(({ id }) => id));
    setQueue((others) => [...others, ...part.rows.filter(({ id }) => !known.has(id))]);
    setRest(part.total - part.rows.length);
  };
  const bringUpToDate = async (told: readonly string[] | null, ask: AskNews | null) => {
    const { queue: waiting, done: decided } = state.current;
    // Where it may be any, it is asked about those that one has just seen, or sees next.
    const ids = told ?? [...waiting.slice(0, MOST_ASKED), ...decided.slice(-MOST_ASKED)].map(({ id }) => id);
    if (told === null) asked.current.clear();
    const answer = (async () => (await ask?.()) ?? fetchChanges(slug, start, ids))();
    const changes = await answer.catch(() => null);
    if (changes === null) return;
    const known = state.current;
    setRest((before) => (before === 0 ? 0 : Math.max(0, changes.total - known.queue.length)));
    // What is decided and on its way stands there only until the server has heard of it, drawn or not: with keys faster
    // than the screen it would come back, and have the key that was meant for the next.
    const leaves = (row: ListedRowView) => !isInScope(withPending(row, underWay()).standing, start.scope);
    const now = new Map<string, ListedRowView>(
      changes.rows.flatMap(({ row }) => (leaves(row) ? [] : [[row.id, row] as const])),
    );
    const isDone = (id: string) => known.done.some((row) => row.id === id);
    const shown = told ?? known.queue.slice(0, AHEAD).map(({ id }) => id);
    for (const id of shown) if (known.views.has(id)) void fetchView(id);
    setQueue((others) => {
      // What was undone comes back as the next; what is new comes last.
      const back = [...now.values()].filter((row) => isDone(row.id) && !others.some(({ id }) => id === row.id));
      const fresh = [...now.values()].filter((row) => !isDone(row.id) && !others.some(({ id }) => id === row.id));
      const stay = others.flatMap((row) => {
        if (!ids.includes(row.id)) return [row];
        return now.get(row.id) ?? (row.id === known.current?.id ? [row] : []);
      });
      return [...back, ...stay, ...fresh];
    });
    if (now.size > 0) {
      setDone((others) => others.filter(({ id }) => !now.has(id)));
      setLookingAt((row) => (row !== null && now.has(row.id) ? null : row));
    }
    setTaken((others) => {
      const left = ids.filter((id) => !now.has(id) && !isDone(id));
      return new Set([...[...others].filter((id) => !now.has(id)), ...left]);
    });
  };
  const inTurn = useSerialQueue();
  const isShort = rest > 0 && queue.length < FEW;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once each time it runs short
  useEffect(() => {
    if (isShort) void inTurn(fetchNext);
  }, [isShort]);
  useChanges(followedAs(start), start.readIn, (ids, ask) => inTurn(() => bringUpToDate(ids, ask)));

  const view = currentId === null ? null : (views.get(currentId) ?? null);
  const isTaken =
    currentId !== null && taken.has(currentId) && view !== null && !isInScope(view.row.standing, start.scope);
  // What somebody else decided about while it was in sight stays there, and is nothing to decide any more.
  const left = queue.length + rest - (isTaken && queue.some(({ id }) => id === currentId) ? 1 : 0);
  return {
    queue,
    current,
    view,
    decided: done.length,
    left,
    paceMs: median(times),
    isTaken,
    problem,
    goOn,
    skip,
    back,
  };
}
