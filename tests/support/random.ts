/** A linear congruential generator (Knuth, MMIX): the same whole numbers below a limit for the same seed. */
export function randomFrom(seed: bigint): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (state * 6_364_136_223_846_793_005n + 1_442_695_040_888_963_407n) & 0xffff_ffff_ffff_ffffn;
    return Number((state >> 33n) % BigInt(below));
  };
}
