/** How often something was said within a band of confidence, and how often it was right, the older the less. */
type Band = { readonly said: number; readonly right: number };

/** What came of what was said, by bands of equal width from 0 to 1. */
export type TrackRecord = readonly Band[];

export const BANDS = 10;
export const NO_RECORD: TrackRecord = Array.from({ length: BANDS }, () => ({ said: 0, right: 0 }));

// A band with nothing in it is believed as it says itself; this many outcomes weigh as much as its own word.
const OWN_WORD = 5;
const OWN_RANK = 0.001;

/** The band that a confidence is in, from 0 to 9. */
export function bandOfConfidence(confidence: number): number {
  return Math.min(BANDS - 1, Math.max(0, Math.floor(confidence * BANDS)));
}

// What came of fifty proposals of a band is about what is remembered of it: how well one judges changes, and soon.
export const REMEMBERED = 0.98;

/** The record with one more outcome; older ones of the same band count a little less with each. */
export function withOutcome(record: TrackRecord, confidence: number, right: boolean): TrackRecord {
  const at = bandOfConfidence(confidence);
  return record.map((band, place) =>
    place === at ? { said: band.said * REMEMBERED + 1, right: band.right * REMEMBERED + (right ? 1 : 0) } : band,
  );
}

/**
 * How a confidence has to be taken, as the record says: the share right in its band, drawn towards its own word where little
 * is known, and never less than in a band below (isotonic regression by pooling adjacent violators; Zadrozny and Elkan 2002).
 */
export function calibration(record: TrackRecord): (confidence: number) => number {
  const points = record.map(({ said, right }, at) => {
    const middle = (at + 0.5) / BANDS;
    return { share: (right + OWN_WORD * middle) / (said + OWN_WORD), weight: said + OWN_WORD };
  });
  const rising = pooled(points);
  return (confidence) => {
    // Between the middles of two bands it rises evenly, and with what is said a little where they are level, so that two
    // proposals are still told apart.
    const place = Math.min(BANDS - 1, Math.max(0, confidence * BANDS - 0.5));
    const [below, above] = [Math.floor(place), Math.ceil(place)];
    const [from, to] = [rising[below] ?? confidence, rising[above] ?? confidence];
    return (1 - OWN_RANK) * (from + (to - from) * (place - below)) + OWN_RANK * confidence;
  };
}

function pooled(points: readonly { readonly share: number; readonly weight: number }[]): number[] {
  const blocks: { share: number; weight: number; length: number }[] = [];
  for (const point of points) {
    let block = { ...point, length: 1 };
    for (let last = blocks.at(-1); last !== undefined && last.share > block.share; last = blocks.at(-1)) {
      blocks.pop();
      const weight = last.weight + block.weight;
      const share = (last.share * last.weight + block.share * block.weight) / weight;
      block = { share, weight, length: last.length + block.length };
    }
    blocks.push(block);
  }
  return blocks.flatMap(({ share, length }) => Array.from({ length }, () => share));
}
