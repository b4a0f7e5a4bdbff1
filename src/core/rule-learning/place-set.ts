/** Which of so many things, by their places: as bits, since a search meets thousands of such sets. */
export type PlaceSet = Uint32Array;

/** The set of these places among `size` things. */
export function placeSet(size: number, places: Iterable<number>): PlaceSet {
  const set = new Uint32Array(Math.ceil(size / 32));
  for (const place of places) set[place >>> 5] = (set[place >>> 5] ?? 0) | (1 << (place & 31));
  return set;
}

/** What is in both. */
export function both(one: PlaceSet, other: PlaceSet): PlaceSet {
  return one.map((bits, at) => bits & (other[at] ?? 0));
}

/** What is in either. */
export function either(one: PlaceSet, other: PlaceSet): PlaceSet {
  return one.map((bits, at) => bits | (other[at] ?? 0));
}

/** What is in the first and not in the second. */
export function without(one: PlaceSet, other: PlaceSet): PlaceSet {
  return one.map((bits, at) => bits & ~(other[at] ?? 0));
}

/** How many places are in it. */
export function countOf(set: PlaceSet): number {
  let count = 0;
  for (const bits of set) count += ones(bits);
  return count;
}

/** How many places are in both. */
export function countOfBoth(one: PlaceSet, other: PlaceSet): number {
  let count = 0;
  for (let at = 0; at < one.length; at += 1) count += ones((one[at] ?? 0) & (other[at] ?? 0));
  return count;
}

/** The places in it, in order. */
export function placesOf(set: PlaceSet): number[] {
  const places: number[] = [];
  for (const [at, bits] of set.entries())
    for (let bit = 0; bit < 32; bit += 1) if (((bits >>> bit) & 1) === 1) places.push(at * 32 + bit);
  return places;
}

// Warren, Hacker's Delight, section 5-1: the ones of each pair, of each four, of each byte, and their sum.
function ones(bits: number): number {
  const pairs = bits - ((bits >>> 1) & 0x55555555);
  const fours = (pairs & 0x33333333) + ((pairs >>> 2) & 0x33333333);
  return Math.imul((fours + (fours >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}
