import type { MemberId } from "../../../core/kernel/ids";
import { wentLate } from "../../../core/later-letters/later-letter";
import { dayAndTime, dayAndTimeInFull, dayInWords } from "../../../core/time/day-words";
import type { HeldBy, LetterInList } from "../../../operations/index.server";
import { writingTexts } from "../../../texts/en/writing";
import type { Said } from "../../../texts/said";
import { saidOf } from "../../../texts/said";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

const said = saidOf(writingTexts);

/** A letter that is to go, was held, or is over, for this reader. */
export function letterToGoView(
  letter: LetterInList,
  nameOf: (id: MemberId | null) => string,
  { memberId, now, zone }: Reading,
) {
  const { id, conversationId, standing, to, subject, text, state, heldBy, ifSilent, untilSettled, at, endedAt } =
    letter;
  const { part, parts } = letter.series;
  const isOver = state === "sent" || state === "stopped";
  return {
    id,
    to,
    subject,
    text,
    state,
    ifSilent,
    untilSettled,
    /** Which one of how many; null for a letter by itself. */
    series: parts === 1 ? null : { part, parts },
    /** Where its conversation is read, below the tray's own; null where there is none yet. */
    place: conversationId === null || standing === null ? null : `${standing}/${conversationId}`,
    writer: nameOf(letter.memberId),
    isMine: letter.memberId === memberId,
    when: speak(dayAndTimeInFull(at, now, zone)),
    day: speak(dayInWords(at, now, zone)),
    /** Of the day that it is listed under; of what is over, the day and time. */
    time: speak(endedAt === null ? { at, zone, form: "time" } : dayAndTime(endedAt, now, zone)),
    held: heldBy === null ? null : speak(heldInWords(heldBy, nameOf)),
    isLate: isOver ? state === "sent" && endedAt !== null && wentLate(at, endedAt) : wentLate(at, now),
  };
}

export type LetterToGoView = ReturnType<typeof letterToGoView>;

function heldInWords(by: HeldBy, nameOf: (id: MemberId | null) => string): Said {
  switch (by.kind) {
    case "answered":
      return said("writing.heldAsAnswered", { who: by.who });
    case "bounced":
      return said("writing.heldAsBounced", { who: by.who });
    case "colleague-wrote":
      return said("writing.heldAsColleagueWrote", { who: nameOf(by.memberId) });
    case "refused":
      return said("writing.heldAsRefused", { why: by.why });
  }
}
