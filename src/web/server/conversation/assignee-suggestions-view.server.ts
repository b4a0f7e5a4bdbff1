import type { AssigneeSuggestions, Share } from "../../../core/assigning/assignee-suggestions";
import { dayAndTime, dayInWords } from "../../../core/time/day-words";
import type { Member, SheetRow } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** A colleague in the comparison: what she has to do, and what speaks for and against her. */
export type AssigneeSuggestionsView = {
  readonly id: string;
  readonly name: string;
  readonly open: number;
  /** Her load against the greatest of all, from 0 to 1. */
  readonly load: number;
  readonly reasons: readonly string[];
  readonly isAway: boolean;
};

/** The comparison of colleagues in words, the likeliest first. */
export function assigneeSuggestionsView(
  could: readonly AssigneeSuggestions[],
  members: readonly Member[],
  row: Pick<SheetRow, "who">,
  { now, zone }: Reading,
): AssigneeSuggestionsView[] {
  const most = Math.max(1, ...could.map(({ load }) => load));
  return could.flatMap((one) => {
    const member = members.find(({ id }) => id === one.memberId);
    if (member === undefined) return [];
    const reasons = [
      share(one.withPerson, speak("conversation.with", { who: row.who })),
      share(one.withRecord, speak("conversation.onThisRecord")),
      share(one.withCategory, speak("conversation.inThisCategory")),
      one.hasLeast ? speak("conversation.leastToDoOfAll") : null,
      one.awayUntil === null ? null : speak("conversation.awayUntilDay", { day: dayInWords(one.awayUntil, now, zone) }),
      one.atWorkFrom === null || one.awayUntil !== null
        ? null
        : speak("conversation.atWork", { when: dayAndTime(one.atWorkFrom, now, zone) }),
    ].filter((reason) => reason !== null);
    return [
      {
        id: member.id,
        name: member.name,
        open: one.open,
        load: one.load / most,
        reasons,
        isAway: one.awayUntil !== null,
      },
    ];
  });
}

function share({ hers, all }: Share, what: string): string | null {
  return hers === 0 ? null : speak("conversation.theirsOfAll", { hers, all, what });
}
