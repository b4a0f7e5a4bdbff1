import { EVENT_NAMES, TOLD_EVENTS } from "../../../core/telling/events";
import type { Telling } from "../../../core/telling/telling";
import { dayAndTime, dayHeading } from "../../../core/time/day-words";
import type { KeptWatch, ListedNotification } from "../../../operations/index.server";
import type { Reading } from "../base/words.server";
import { clock } from "./week-form.server";

/** What a member is told and wants to be told, ready to be drawn; names of colleagues are left to the screen. */
export function toldView(
  told: readonly ListedNotification[],
  telling: Telling,
  watches: readonly KeptWatch[],
  { now, zone }: Reading,
) {
  return {
    told: told.map((one) => ({
      id: one.id,
      by: one.by,
      event: one.event,
      count: one.count,
      words: one.words,
      isRead: one.isRead,
      conversationId: one.conversationId,
      subject: one.subject,
      standing: one.standing,
      day: dayHeading(one.at, now, zone),
      when: dayAndTime(one.at, now, zone),
    })),
    telling: {
      events: TOLD_EVENTS.map((event) => ({ event, name: EVENT_NAMES[event], ...telling.events[event] })),
      quietFrom: telling.quiet === null ? "" : clock(telling.quiet.from),
      quietTo: telling.quiet === null ? "" : clock(telling.quiet.to),
      digestAt: telling.digestAt === null ? "" : clock(telling.digestAt),
    },
    watches: watches.map(({ id, kind, value }) => ({ id, kind, value })),
  };
}

export type ToldPage = ReturnType<typeof toldView>;
