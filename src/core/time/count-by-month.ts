import type { Instant } from "../kernel/instant";
import { calendarDay } from "./calendar-day";

/** How much there was in a month, `YYYY-MM`. */
export type MonthCount = { readonly month: string; readonly count: number };

/** How many of some moments are in each month of the calendar of an IANA time zone; months without any are left out. */
export function countByMonth(moments: readonly Instant[], zone: string): MonthCount[] {
  const months = new Map<string, number>();
  for (const at of moments) {
    const month = calendarDay(at, zone).slice(0, "YYYY-MM".length);
    months.set(month, (months.get(month) ?? 0) + 1);
  }
  return [...months].map(([month, count]) => ({ month, count })).toSorted((a, b) => a.month.localeCompare(b.month));
}
