import type { Instant } from "../kernel/instant";
import { calendarDay } from "../time/calendar-day";
import { zonedDay } from "../time/zoned-day";
import { NOTIFICATION_EVENTS, type NotificationEvent } from "./events";

/** Whether an event is listed, and whether the browser shows it at once. */
export type Ways = { readonly list: boolean; readonly browser: boolean };

/** How a member wants to be told. Times are minutes after midnight in her zone. */
export type NotificationSettings = {
  readonly events: Readonly<Record<NotificationEvent, Ways>>;
  /** When the browser shows nothing; it may go over midnight. */
  readonly quiet: { readonly from: number; readonly to: number } | null;
  /** When the day is summed up; null for never. */
  readonly digestAt: number | null;
};

const MINUTES_A_DAY = 24 * 60;

/** What was kept of a member's choices, made whole: everything is listed, and the browser is silent, where she chose nothing. */
export function readNotificationSettings(kept: unknown): NotificationSettings {
  const given = (typeof kept === "object" && kept !== null ? kept : {}) as Record<string, unknown>;
  const events = (given.events ?? {}) as Record<string, Partial<Ways> | undefined>;
  const waysOf = (event: NotificationEvent): Ways => ({
    list: events[event]?.list !== false,
    browser: events[event]?.browser === true,
  });
  const quiet = given.quiet as { from?: unknown; to?: unknown } | null | undefined;
  return {
    events: Object.fromEntries(
      NOTIFICATION_EVENTS.map((event) => [event, waysOf(event)]),
    ) as NotificationSettings["events"],
    quiet: quiet != null && isMinute(quiet.from) && isMinute(quiet.to) ? { from: quiet.from, to: quiet.to } : null,
    digestAt: isMinute(given.digestAt) ? given.digestAt : null,
  };
}

function isMinute(value: unknown): value is number {
  return typeof value === "number" && Number.isInteger(value) && value >= 0 && value < MINUTES_A_DAY;
}

/** The events that are listed; `browser` those that the browser shows. */
export function eventsNotifiedBy(telling: NotificationSettings, way: keyof Ways): NotificationEvent[] {
  return NOTIFICATION_EVENTS.filter((event) => telling.events[event].list && telling.events[event][way]);
}

/** True in the quiet hours of a member, by the clock of her zone. From and to alike is the whole day. */
export function isQuiet({ quiet }: NotificationSettings, now: Instant, zone: string): boolean {
  if (quiet === null) return false;
  const minute = minuteOf(now, zone);
  if (quiet.from === quiet.to) return true;
  return quiet.from < quiet.to ? quiet.from <= minute && minute < quiet.to : quiet.from <= minute || minute < quiet.to;
}

/** The day (ISO 8601, in her zone) that has to be summed up by now; null before its time, or where she wants none. */
export function digestDue({ digestAt, events }: NotificationSettings, now: Instant, zone: string): string | null {
  if (digestAt === null || !events.digest.list) return null;
  return minuteOf(now, zone) >= digestAt ? calendarDay(now, zone) : null;
}

function minuteOf(at: Instant, zone: string): number {
  const { hour, minute } = zonedDay(at, zone);
  return hour * 60 + minute;
}
