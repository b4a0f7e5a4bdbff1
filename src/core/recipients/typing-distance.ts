/**
 * How many letters have to be typed, left out, exchanged or swapped with their neighbour to make one text of another
 * (Damerau 1964, in its restricted form); anything over `most` is given as `most + 1`.
 */
export function typingDistance(one: string, other: string, most: number): number {
  const far = most + 1;
  if (Math.abs(one.length - other.length) > most) return far;
  let before: readonly number[] = [];
  let last: readonly number[] = Array.from({ length: other.length + 1 }, (_, at) => at);
  for (let i = 1; i <= one.length; i++) {
    const row = rowOf(one, other, i, { before, last });
    if (Math.min(...row) > most) return far;
    [before, last] = [last, row];
  }
  return Math.min(last[other.length] ?? far, far);
}

type Rows = { readonly before: readonly number[]; readonly last: readonly number[] };

// The distances of the first `i` letters of one text from each beginning of the other.
function rowOf(one: string, other: string, i: number, { before, last }: Rows): number[] {
  const row = [i];
  const of = (values: readonly number[], at: number) => values[at] ?? Number.POSITIVE_INFINITY;
  for (let j = 1; j <= other.length; j++) {
    const exchanged = of(last, j - 1) + (one[i - 1] === other[j - 1] ? 0 : 1);
    const isSwap = i > 1 && one[i - 1] === other[j - 2] && one[i - 2] === other[j - 1];
    const swapped = isSwap ? of(before, j - 2) + 1 : Number.POSITIVE_INFINITY;
    row.push(Math.min(of(last, j) + 1, of(row, j - 1) + 1, exchanged, swapped));
  }
  return row;
}
