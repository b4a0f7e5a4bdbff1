import { timeTexts } from "../../texts/en/time";
import { type Moment, type MomentForm, type Said, saidOf, type Wording } from "../../texts/said";
import type { Instant } from "../kernel/instant";
import { type ZonedDay, zonedDay } from "./zoned-day";

const said = saidOf(timeTexts);

/** The calendar day of `at` seen from `now` in an IANA time zone: today, yesterday, tomorrow, a weekday near by, else a date. */
export function dayInWords(at: Instant, now: Instant, zone: string): Wording {
  return dayOf({ at, zone }, zonedDay(at, zone), zonedDay(now, zone));
}

/** A day given as 2026-08-27 in words: "27 August 2026"; a text that is no day as it stands. */
export function calendarDayInWords(day: string): string | Moment {
  const at = /^\d{4}-\d\d-\d\d$/.test(day) ? Date.parse(day) : Number.NaN;
  return Number.isNaN(at) ? day : { at, zone: "UTC", form: "day-in-full" };
}

/** Day and time together: "today 10:14", "Tue 10:14", "3 Sept". Times of long ago are left out. */
export function dayAndTime(at: Instant, now: Instant, zone: string): Wording {
  const [then, today] = [zonedDay(at, zone), zonedDay(now, zone)];
  const day = dayOf({ at, zone }, then, today);
  return Math.abs(then.number - today.number) < 7
    ? said("time.dayAndTime", { day, time: { at, zone, form: "time" } })
    : day;
}

/** With weekday, date and time, for choosing: "Fri 28 Nov, 08:00"; the year where it is another. */
export function dayAndTimeInFull(at: Instant, now: Instant, zone: string): Said {
  const isOfYear = zonedDay(at, zone).year === zonedDay(now, zone).year;
  const as = (form: MomentForm): Moment => ({ at, zone, form });
  return said("time.weekdayDayAndTime", {
    weekday: as("weekday"),
    day: as(isOfYear ? "day" : "day-of-year"),
    time: as("time"),
  });
}

/** The heading of a group of days, coarser the longer ago: "Today", "Yesterday", "Earlier this week", "Last week", a month. */
export function dayHeading(at: Instant, now: Instant, zone: string): Wording {
  const [then, today] = [zonedDay(at, zone), zonedDay(now, zone)];
  const days = today.number - then.number;
  if (days <= 0) return said("time.todayAsHeading");
  if (days === 1) return said("time.yesterdayAsHeading");
  const monday = today.number - today.weekday;
  if (then.number >= monday) return said("time.earlierThisWeek");
  if (then.number >= monday - 7) return said("time.lastWeek");
  if (then.year === today.year && then.month === today.month) return said("time.earlierThisMonth");
  return { at, zone, form: then.year === today.year ? "month" : "month-of-year" };
}

/** How far past a day something is, counted in calendar days of the zone: "due today", "1 day overdue"; null when it is not due yet. */
export function overdueInWords(until: Instant, now: Instant, zone: string): Said | null {
  if (until > now) return null;
  const count = zonedDay(now, zone).number - zonedDay(until, zone).number;
  return count === 0 ? said("time.dueToday") : said("time.overdue", { count });
}

function dayOf(moment: Omit<Moment, "form">, then: ZonedDay, today: ZonedDay): Wording {
  const days = then.number - today.number;
  if (days === 0) return said("time.today");
  if (days === -1) return said("time.yesterday");
  if (days === 1) return said("time.tomorrow");
  if (days > -7 && days < 7) return { ...moment, form: "weekday" };
  return { ...moment, form: then.year === today.year ? "day" : "day-of-year" };
}
