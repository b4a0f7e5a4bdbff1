/** Numbers that look random and are the same for the same seed (Tommy Ettinger's mulberry32): from 0 up to, not including, 1. */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** One of a list. Throws for an empty one. */
export function pick<T>(random: () => number, list: readonly T[]): T {
  const found = list[Math.floor(random() * list.length)];
  if (found === undefined) throw new Error("nothing to pick from");
  return found;
}
