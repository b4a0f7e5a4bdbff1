import { type Instant, later } from "../../../core/kernel/instant";
import { dayInWords } from "../../../core/time/day-words";
import type { KeptTimeOff, PeopleOfTray } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** A time off in words: who, from when to when, and who covers what. */
export function timeOffView(
  { id, memberId, from, until, covers }: KeptTimeOff,
  people: readonly PeopleOfTray[],
  { now, zone }: Reading,
) {
  const everybody = people.flatMap(({ members }) => members);
  const nameOf = (member: string) => everybody.find((one) => one.id === member)?.name ?? speak("people.aColleague");
  const trayOf = (tray: string) => people.find((one) => one.tray.id === tray)?.tray.name ?? speak("people.anotherTray");
  return {
    id,
    memberId,
    name: nameOf(memberId),
    isNow: from <= now && now < until,
    isOver: until <= now,
    stretch: stretchInWords(from, until, now, zone),
    covers: covers.map(({ trayId, recordId, memberId: cover }) => ({
      key: `${trayId} ${recordId}`,
      words: speak("people.coversWhat", {
        name: nameOf(cover),
        what: recordId === null ? trayOf(trayId) : speak("people.aRecordIn", { tray: trayOf(trayId) }),
      }),
    })),
  };
}

export type TimeOffView = ReturnType<typeof timeOffView>;

// The last day is one of hers; the moment of return is the morning after.
function stretchInWords(from: Instant, until: Instant, now: Instant, zone: string): string {
  const [first, last] = [speak(dayInWords(from, now, zone)), speak(dayInWords(later(until, -1), now, zone))];
  return first === last ? first : speak("people.firstToLast", { first, last });
}
