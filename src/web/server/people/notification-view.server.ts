import { EVENT_NAMES, NOTIFICATION_EVENTS } from "../../../core/notifications/events";
import type { NotificationSettings } from "../../../core/notifications/notification-settings";
import { dayAndTime, dayHeading } from "../../../core/time/day-words";
import { writtenTimeOfDay } from "../../../core/worktime/working-hours";
import type { KeptWatch, ListedNotification } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak, worded } from "../base/say.server";

/** What a member is told, ready to be drawn; names of colleagues are left to the screen. */
export function notificationsView(told: readonly ListedNotification[], { now, zone }: Reading) {
  return told.map((one) => ({
    id: one.id,
    by: one.by,
    event: one.event,
    count: one.count,
    words: worded(one.words),
    isRead: one.isRead,
    conversationId: one.conversationId,
    subject: one.subject,
    standing: one.standing,
    day: speak(dayHeading(one.at, now, zone)),
    when: speak(dayAndTime(one.at, now, zone)),
  }));
}

export type NotificationsView = ReturnType<typeof notificationsView>;

/** What a member wants to be told of, how and when not, ready to be drawn. */
export function notificationSettingsView(
  { events, quiet, digestAt }: NotificationSettings,
  watches: readonly KeptWatch[],
) {
  return {
    settings: {
      events: NOTIFICATION_EVENTS.map((event) => ({ event, name: speak(EVENT_NAMES[event]), ...events[event] })),
      quietFrom: quiet === null ? "" : writtenTimeOfDay(quiet.from),
      quietTo: quiet === null ? "" : writtenTimeOfDay(quiet.to),
      digestAt: digestAt === null ? "" : writtenTimeOfDay(digestAt),
    },
    watches: watches.map(({ id, kind, value }) => ({ id, kind, value })),
  };
}

export type NotificationSettingsView = ReturnType<typeof notificationSettingsView>;
