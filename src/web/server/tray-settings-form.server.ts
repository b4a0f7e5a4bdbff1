import Joi from "joi";
import { err, ok, type Result } from "../../core/kernel/result";
import { dayAtHour } from "../../core/worktime/calendar-day";
import type { WorkingHours } from "../../core/worktime/working-hours";
import { readWeek } from "./week-form.server";

const MAX_HOLIDAYS = 500;
const MAX_BIN_DAYS = 3_650;

/** What is wrong, by the name of the field. */
export type SettingsProblems = Readonly<Record<string, string>>;

type Posted = Pick<WorkingHours, "week" | "holidays"> & { readonly binDays: number | null };

const BIN_DAYS = Joi.number()
  .integer()
  .min(1)
  .max(MAX_BIN_DAYS)
  .messages({ "*": `Write a number of days from 1 to ${MAX_BIN_DAYS.toLocaleString("en")}, or nothing for never.` });

/** The settings of a tray as its form has them: open days, their hours, holidays one a line, days until the bin is emptied. */
export function readTraySettings(form: FormData): Result<Posted, SettingsProblems> {
  const problems: Record<string, string> = {};
  const week = readWeek(form, problems);
  const holidays = holidaysOf(String(form.get("holidays") ?? ""), problems);
  const days = String(form.get("bin-days") ?? "").trim();
  const read = BIN_DAYS.validate(days === "" ? undefined : days);
  if (read.error !== undefined) problems["bin-days"] = read.error.message;
  return Object.keys(problems).length > 0 ? err(problems) : ok({ week, holidays, binDays: read.value ?? null });
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
