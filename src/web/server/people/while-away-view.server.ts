import { later } from "../../../core/kernel/instant";
import { dayInWords } from "../../../core/time/day-words";
import type { WhileAway } from "../../../operations/index.server";
import type { Reading } from "../base/words.server";

/** The summary of a time off: its figures in a sentence, then conversation by conversation. */
export function whileAwayView({ timeOff: { from, until }, happened }: WhileAway, { now, zone }: Reading) {
  const count = (which: (one: WhileAway["happened"][number]) => boolean) => happened.filter(which).length;
  const parts = [
    counted(
      count(({ received }) => received > 0),
      "got new messages",
    ),
    counted(
      count(({ answered }) => answered > 0),
      "answered for you",
    ),
    counted(
      count(({ standing }) => standing === "settled"),
      "settled",
    ),
    counted(
      count(({ isOthers }) => isOthers),
      "given to somebody else",
    ),
  ].filter((part) => part !== null);
  const many = happened.length === 1 ? "1 conversation of yours" : `${happened.length} conversations of yours`;
  return {
    stretch: `${dayInWords(from, now, zone)} to ${dayInWords(later(until, -1), now, zone)}`,
    words:
      happened.length === 0
        ? "Nothing happened in what is yours."
        : `Something happened in ${many}: ${parts.join(", ")}.`,
    happened: happened.map((one) => ({
      id: one.id,
      subject: one.subject,
      who: one.who,
      standing: one.standing,
      ownerId: one.ownerId,
      by: one.by,
      words: inWords(one),
    })),
  };
}

function counted(count: number, what: string): string | null {
  return count === 0 ? null : `${count} ${what}`;
}

function inWords({ received, answered, isOthers }: WhileAway["happened"][number]): string {
  const parts = [
    received === 0 ? null : received === 1 ? "1 message came" : `${received} messages came`,
    answered === 0 ? null : answered === 1 ? "answered once" : `answered ${answered} times`,
    isOthers ? "no longer yours" : null,
  ].filter((part) => part !== null);
  return parts.length === 0 ? "decided about" : parts.join(", ");
}
