/** Room for the mail that is large: a few at a time, the others wait without being read. */
export type LargeMailRoom = {
  /** Resolves when it is one's turn, to the place; null where it is not within the patience, or too many wait already. */
  readonly enter: () => Promise<Place | null>;
};

/** A place in the room. `isTaken` turns true when others wait and it was held for too long: whoever has it gives up. */
export type Place = { readonly isTaken: () => boolean; readonly leave: () => void };

export type LargeMailLimits = {
  readonly atOnce: number;
  readonly mostWaiting: number;
  readonly patienceMs: number;
  /** For so long a place is one's own though others wait. */
  readonly undisturbedMs: number;
};

type Held = { taken: boolean; readonly since: number };

/** `now` tells milliseconds. */
export function largeMailRoom(limits: LargeMailLimits, now: () => number = Date.now): LargeMailRoom {
  const inside = new Set<Held>();
  const waiting: { readonly come: (place: Place | null) => void; readonly timer: NodeJS.Timeout }[] = [];
  const place = (): Place => {
    const held: Held = { taken: false, since: now() };
    inside.add(held);
    return {
      isTaken: () => held.taken,
      leave: () => {
        inside.delete(held);
        callNext();
      },
    };
  };
  function callNext(): void {
    if (inside.size >= limits.atOnce) return;
    const next = waiting.shift();
    if (next === undefined) return;
    clearTimeout(next.timer);
    next.come(place());
  }
  const takeSlowest = () => {
    const [slowest] = [...inside].filter((held) => !held.taken && now() - held.since >= limits.undisturbedMs);
    if (slowest !== undefined) slowest.taken = true;
  };
  return {
    enter() {
      if (inside.size < limits.atOnce && waiting.length === 0) return Promise.resolve(place());
      if (waiting.length >= limits.mostWaiting) return Promise.resolve(null);
      takeSlowest();
      return new Promise((come) => {
        const giveUp = () => {
          const at = waiting.findIndex((one) => one.timer === timer);
          if (at !== -1) waiting.splice(at, 1);
          come(null);
        };
        const timer = setTimeout(giveUp, limits.patienceMs).unref();
        waiting.push({ come, timer });
      });
    },
  };
}
