import Joi from "joi";
import type { OpenHours } from "../../core/worktime/working-hours";

const DAYS = 7;

/** A time of day as it is posted. */
export const TIME = Joi.string()
  .pattern(/^([01]\d|2[0-3]):[0-5]\d$/)
  .messages({ "string.pattern.base": "Write a time as 08:30.", "string.empty": "Write a time as 08:30." });
/** A week as its form shows it. */
export function weekView(week: readonly (OpenHours | null)[]) {
  return week.map((open) => (open === null ? null : { from: clock(open.from), to: clock(open.to) }));
}

/** Minutes after midnight as a time of day. */
export function clock(minutes: number): string {
  return [Math.floor(minutes / 60), minutes % 60].map((part) => String(part).padStart(2, "0")).join(":");
}

/** The days of a week as their form has them: null for one off; what is wrong goes to `problems` by the name of the field. */
export function readWeek(form: FormData, problems: Record<string, string>): (OpenHours | null)[] {
  return Array.from({ length: DAYS }, (_, day) => hoursOf(form, day, problems));
}

function hoursOf(form: FormData, day: number, problems: Record<string, string>): OpenHours | null {
  if (form.get(`open-${day}`) === null) return null;
  const [from, to] = ["from", "to"].map((edge) => TIME.required().validate(form.get(`${edge}-${day}`) ?? ""));
  const problem = from?.error?.message ?? to?.error?.message;
  if (problem !== undefined) {
    problems[`day-${day}`] = problem;
    return null;
  }
  const hours = { from: minutesOf(from?.value), to: minutesOf(to?.value) };
  if (hours.to <= hours.from) problems[`day-${day}`] = "It closes before it opens; a night shift is two days.";
  return hours;
}

/** A checked time of day in minutes after midnight. */
export function minutesOf(time: string): number {
  const [hours, minutes] = time.split(":").map(Number);
  return (hours ?? 0) * 60 + (minutes ?? 0);
}
