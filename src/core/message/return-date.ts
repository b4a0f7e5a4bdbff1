import { type Instant, later, WEEK } from "../kernel/instant";
import { datesIn } from "../worktime/dates-in-text";
import type { WorkingHours } from "../worktime/working-hours";

// How people say that they are back, in the languages that dates are read in; the date stands right after it, or as the
// end of "from … to …".
const BACK = [
  /\b(?:back|return(?:ing)?|again|reachable|available|read (?:my )?mail(?: again)?)\b[^.!?\n]{0,40}?\b(?:on|from|by|at|until|after)?\b/giu,
  /\b(?:until|till|through|up to)\b/giu,
  /\b(?:wieder|zurück|bis(?: zum| einschließlich)?|ab(?: dem)?)\b/giu,
  /\b(?:de retour|absente? jusqu['’ ]?(?:au|à|en)|jusqu['’](?:au|à))\b/giu,
  /\b(?:weer|terug|tot(?: en met)?|vanaf)\b/giu,
  /\b(?:de vuelta|hasta(?: el)?|regreso)\b/giu,
];
const LOOKED_AFTER = 60;
// Nobody is away for longer than this without somebody else reading her mail.
const LONGEST = 26 * WEEK;

/**
 * When the writer of an automatic reply says that she is back: the end of that day by the tray's hours, as an answer is
 * hardly there when she comes in. Null where she names no day, one that is past, or one in half a year. `writtenAt` is
 * what "tomorrow" and "Monday" are seen from.
 */
export function returnDateIn(text: string, writtenAt: Instant, hours: WorkingHours): Instant | null {
  const found: Instant[] = [];
  for (const pattern of BACK) {
    for (const match of text.matchAll(pattern)) {
      const after =
        text
          .slice(match.index, match.index + match[0].length + LOOKED_AFTER)
          .split(/(?<!\d)[.!?](?:\s|$)|\n\s*\n/u)[0] ?? "";
      for (const { at } of datesIn(after, writtenAt, hours, "closes")) found.push(at);
    }
  }
  const coming = found.filter((at) => at > writtenAt && at < later(writtenAt, LONGEST));
  return coming.length === 0 ? null : (Math.max(...coming) as Instant);
}
