import { later } from "../../../core/kernel/instant";
import { dayInWords } from "../../../core/time/day-words";
import type { AbsencePage } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** The summary of a time off: its figures in a sentence, then conversation by conversation. */
export function absenceView({ timeOff: { from, until }, happened }: AbsencePage, { now, zone }: Reading) {
  const count = (which: (one: AbsencePage["happened"][number]) => boolean) => happened.filter(which).length;
  const parts = [
    counted(
      count(({ received }) => received > 0),
      speak("people.gotNewMessages"),
    ),
    counted(
      count(({ answered }) => answered > 0),
      speak("people.answeredForYou"),
    ),
    counted(
      count(({ standing }) => standing === "settled"),
      "settled",
    ),
    counted(
      count(({ isOthers }) => isOthers),
      speak("people.givenToSomebodyElse"),
    ),
  ].filter((part) => part !== null);
  const many = speak("people.conversationsOfYours", { count: happened.length });
  return {
    stretch: speak("people.fromTo", {
      from: dayInWords(from, now, zone),
      to: dayInWords(later(until, -1), now, zone),
    }),
    words:
      happened.length === 0
        ? speak("people.nothingHappenedInWhatIs")
        : speak("people.somethingHappenedIn", { many, parts: parts.join(", ") }),
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

function inWords({ received, answered, isOthers }: AbsencePage["happened"][number]): string {
  const parts = [
    received === 0 ? null : speak("people.messagesCame", { received }),
    answered === 0 ? null : speak("people.answeredTimes", { answered }),
    isOthers ? speak("people.noLongerYours") : null,
  ].filter((part) => part !== null);
  return parts.length === 0 ? speak("people.decidedAbout") : parts.join(", ");
}
