import type { Instant } from "../kernel/instant";

/**
 * Times for messages in the order of their file, of which some have no date: such a one was kept when the one before it was,
 * the first ones when the next one was. `before` is the last date of what came earlier; null where no message has a date.
 */
export function timesByNeighbours(dates: readonly (Instant | null)[], before: Instant | null): (Instant | null)[] {
  let last = before;
  const forward = dates.map((date) => {
    last = date ?? last;
    return last;
  });
  const first = dates.find((date) => date !== null) ?? null;
  return forward.map((time) => time ?? first);
}
