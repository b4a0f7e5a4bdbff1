import type { Instant } from "../../../core/kernel/instant";
import { err, ok, type Result } from "../../../core/kernel/result";
import { calendarDay, dayAtTime } from "../../../core/time/calendar-day";
import { zonedDay } from "../../../core/time/zoned-day";
import { readTimeOfDay, writtenTimeOfDay } from "../../../core/worktime/working-hours";
import { speak } from "./say.server";

/** A moment as a field for a day and a time has it, by the clock of a zone; empty for none. */
export function writtenMoment(at: Instant | null, zone: string): string {
  if (at === null) return "";
  const { hour, minute } = zonedDay(at, zone);
  return `${calendarDay(at, zone)}T${writtenTimeOfDay(hour * 60 + minute)}`;
}

/** What stands in a field for a day and a time, read by the clock of a zone: null where it is empty, or what is wrong with it. */
export function readMoment(text: string, zone: string): Result<Instant | null, string> {
  if (text === "") return ok(null);
  const [day = "", time = ""] = text.split("T");
  const at = dayAtTime(day, readTimeOfDay(time) ?? -1, zone);
  return at === null ? err(speak("server.isNoDateAndTime")) : ok(at);
}
