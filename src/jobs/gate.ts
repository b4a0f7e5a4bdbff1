/** Lets many work together, or one alone; whoever waits to be alone lets nobody else in before. */
export type Gate = {
  readonly together: <T>(work: () => Promise<T>) => Promise<T>;
  readonly alone: <T>(work: () => Promise<T>) => Promise<T>;
};

export function gate(): Gate {
  let lastAlone: Promise<unknown> = Promise.resolve();
  const inside = new Set<Promise<unknown>>();
  const settled = (work: Promise<unknown>) => work.catch(() => {});
  return {
    together(work) {
      const working = lastAlone.then(work);
      const noted = settled(working);
      inside.add(noted);
      void noted.then(() => inside.delete(noted));
      return working;
    },
    alone(work) {
      const before = [lastAlone, ...inside];
      const working = Promise.all(before).then(work);
      lastAlone = settled(working);
      return working;
    },
  };
}
