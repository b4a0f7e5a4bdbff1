import type { Blank } from "./blank";
import { type PassagePlace, placesIn } from "./places";

/** The blanks of a message that nobody has filled, in its order; those of a passage that is left out do not count. */
export function unfilledBlanks(html: string): Blank[] {
  const { blanks, passages } = placesIn(html);
  const isLeftOut = (at: number) => passages.some(({ start, end }) => start <= at && at < end);
  return blanks.filter(({ start }) => !isLeftOut(start)).map(({ blank }) => blank);
}

/** A message as it goes: without the passages that nobody took in. */
export function withoutPassages(html: string): string {
  const outer: PassagePlace[] = [];
  for (const place of placesIn(html).passages) if (place.start >= (outer.at(-1)?.end ?? 0)) outer.push(place);
  let [rest, at] = ["", 0];
  for (const { start, end } of outer) {
    rest += html.slice(at, start);
    at = end;
  }
  return rest + html.slice(at);
}
