import Joi from "joi";
import { type DayPart, type OpenHours, writtenTimeOfDay } from "../../../core/worktime/working-hours";
import { problemOf, speak } from "../base/say.server";

const DAYS = 7;

/** A time of day as it is posted. */
export const TIME = Joi.string()
  .pattern(/^([01]\d|2[0-3]):[0-5]\d$/)
  .messages({ "string.pattern.base": "Write a time as 08:30.", "string.empty": "Write a time as 08:30." });
/** A week as its form shows it. */
export function weekView(week: readonly (OpenHours | null)[]) {
  return week.map((open) => {
    if (open === null) return null;
    const [pause] = open.breaks ?? [];
    return { ...clocks(open), pause: pause === undefined ? null : clocks(pause) };
  });
}

function clocks({ from, to }: DayPart) {
  return { from: writtenTimeOfDay(from), to: writtenTimeOfDay(to) };
}

/** The days of a week as their form has them: null for one off; what is wrong goes to `problems` by the name of the field. */
export function readWeek(form: FormData, problems: Record<string, string>): (OpenHours | null)[] {
  return Array.from({ length: DAYS }, (_, day) => hoursOf(form, day, problems));
}

function hoursOf(form: FormData, day: number, problems: Record<string, string>): OpenHours | null {
  if (form.get(`open-${day}`) === null) return null;
  const open = partOf(form, day, "", problems);
  if (open === null) return null;
  if (open.to <= open.from) problems[`day-${day}`] = speak("people.itClosesBeforeItOpens");
  const hasPause = ["from", "to"].some((edge) => String(form.get(`pause-${edge}-${day}`) ?? "").trim() !== "");
  const pause = hasPause ? partOf(form, day, "pause-", problems) : null;
  if (pause === null) return open;
  if (pause.to <= pause.from || pause.from <= open.from || pause.to >= open.to)
    problems[`day-${day}`] = speak("people.theBreakHasToBegin");
  return { ...open, breaks: [pause] };
}

function partOf(form: FormData, day: number, what: string, problems: Record<string, string>): DayPart | null {
  const [from, to] = ["from", "to"].map((edge) => TIME.required().validate(form.get(`${what}${edge}-${day}`) ?? ""));
  const wrong = from?.error ?? to?.error;
  if (wrong !== undefined) problems[`day-${day}`] = problemOf(wrong);
  return wrong === undefined ? { from: minutesOf(from?.value), to: minutesOf(to?.value) } : null;
}

/** A checked time of day in minutes after midnight. */
export function minutesOf(time: string): number {
  const [hours, minutes] = time.split(":").map(Number);
  return (hours ?? 0) * 60 + (minutes ?? 0);
}
