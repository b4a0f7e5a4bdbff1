import { listTexts } from "../../texts/en/list";
import { type Said, saidOf } from "../../texts/said";
import type { Instant } from "../kernel/instant";
import { zonedDay } from "../time/zoned-day";
import { type WorkingHours, workingDayAfter } from "../worktime/working-hours";

const said = saidOf(listTexts);

export const FOLLOW_UP_GROUPS = ["past", "today", "next", "five", "further", "undated"] as const;
export type FollowUpGroup = (typeof FOLLOW_UP_GROUPS)[number];

export const FOLLOW_UP_GROUP_NAMES: Readonly<Record<FollowUpGroup, Said>> = {
  past: said("list.past"),
  today: said("list.today"),
  next: said("list.nextWorkingDay"),
  five: said("list.withinFiveWorkingDays"),
  further: said("list.furtherOut"),
  undated: said("list.withoutADate"),
};

/** In which group follow-ups stand, by when they are due, on the calendar of the tray's hours. */
export function followUpGrouper(now: Instant, hours: WorkingHours): (dueAt: Instant | null) => FollowUpGroup {
  const dayOf = (at: Instant) => zonedDay(at, hours.zone).number;
  const today = dayOf(now);
  const lastDay = (days: number) => {
    const span = workingDayAfter(now, days, hours);
    return span === null ? today : dayOf(span.opens);
  };
  const [next, five] = [lastDay(1), lastDay(5)];
  return (dueAt) => {
    if (dueAt === null) return "undated";
    if (dueAt <= now) return "past";
    const day = dayOf(dueAt);
    if (day === today) return "today";
    if (day <= next) return "next";
    return day <= five ? "five" : "further";
  };
}
