import { between } from "./shares";

/** How much each piece of evidence says for or against something. */
export type Says<Piece extends string> = Readonly<Record<Piece, number>>;

/** How much each piece of evidence counts. */
export type Weights<Piece extends string> = Says<Piece>;

/** What all pieces say together. */
export function weighed<Piece extends string>(weights: Weights<Piece>, says: Says<Piece>): number {
  let sum = 0;
  for (const piece of Object.keys(weights) as Piece[]) sum += weights[piece] * says[piece];
  return sum;
}

const PACE = 0.01;
const TOWARDS_BEGINNING = 0.01;
const MOST_A_STEP = 4;

/**
 * Weights after one more outcome: a step along the gradient of the log likelihood, drawn towards where they began (logistic
 * regression by stochastic gradient ascent with a quadratic penalty; Bottou 2010). `off` has for each candidate what spoke
 * for it, and by how much its likelihood fell short of what came.
 */
export function stepped<Piece extends string>(
  weights: Weights<Piece>,
  beginning: Weights<Piece>,
  off: readonly { readonly says: Says<Piece>; readonly by: number }[],
): Weights<Piece> {
  const next = { ...weights } as Record<Piece, number>;
  for (const piece of Object.keys(weights) as Piece[]) {
    const slope = off.reduce((sum, { says, by }) => sum + by * says[piece], 0);
    const back = TOWARDS_BEGINNING * (weights[piece] - beginning[piece]);
    next[piece] = weights[piece] + PACE * (between(-MOST_A_STEP, slope, MOST_A_STEP) - back);
  }
  return next;
}

/** Weights as they were stored, with what is not among them as it was in the beginning, and without what is no piece any more. */
export function storedWeights<Piece extends string>(
  stored: Readonly<Record<string, number>> | undefined,
  beginning: Weights<Piece>,
): Weights<Piece> {
  const pieces = Object.keys(beginning) as Piece[];
  return Object.fromEntries(pieces.map((piece) => [piece, stored?.[piece] ?? beginning[piece]])) as Weights<Piece>;
}
