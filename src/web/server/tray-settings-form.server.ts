import Joi from "joi";
import { err, ok, type Result } from "../../core/kernel/result";
import { dayAtHour } from "../../core/worktime/calendar-day";
import type { OpenHours, WorkingHours } from "../../core/worktime/working-hours";

const DAYS = 7;
const MAX_HOLIDAYS = 500;
const MAX_BIN_DAYS = 3_650;

/** What is wrong, by the name of the field. */
export type SettingsProblems = Readonly<Record<string, string>>;

type Posted = Pick<WorkingHours, "week" | "holidays"> & { readonly binDays: number | null };

const TIME = Joi.string()
  .pattern(/^([01]\d|2[0-3]):[0-5]\d$/)
  .messages({ "string.pattern.base": "Write a time as 08:30.", "string.empty": "Write a time as 08:30." });
const BIN_DAYS = Joi.number()
  .integer()
  .min(1)
  .max(MAX_BIN_DAYS)
  .messages({ "*": `Write a number of days from 1 to ${MAX_BIN_DAYS.toLocaleString("en")}, or nothing for never.` });

/** The settings of a tray as its form has them: open days, their hours, holidays one a line, days until the bin is emptied. */
export function readTraySettings(form: FormData): Result<Posted, SettingsProblems> {
  const problems: Record<string, string> = {};
  const week = Array.from({ length: DAYS }, (_, day) => hoursOf(form, day, problems));
  const holidays = holidaysOf(String(form.get("holidays") ?? ""), problems);
  const days = String(form.get("bin-days") ?? "").trim();
  const read = BIN_DAYS.validate(days === "" ? undefined : days);
  if (read.error !== undefined) problems["bin-days"] = read.error.message;
  return Object.keys(problems).length > 0 ? err(problems) : ok({ week, holidays, binDays: read.value ?? null });
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

function minutesOf(time: string): number {
  const [hours, minutes] = time.split(":").map(Number);
  return (hours ?? 0) * 60 + (minutes ?? 0);
}

function holidaysOf(text: string, problems: Record<string, string>): string[] {
  const lines = text
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line !== "");
  const wrong = lines.find((line) => dayAtHour(line, 0, "UTC") === null);
  if (wrong !== undefined) problems.holidays = `“${wrong}” is no day; write days as 2026-12-25, one a line.`;
  if (lines.length > MAX_HOLIDAYS) problems.holidays = `At most ${MAX_HOLIDAYS} days.`;
  return [...new Set(lines)].toSorted();
}
