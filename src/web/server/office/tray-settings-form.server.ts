import Joi from "joi";
import { err, ok, type Result } from "../../../core/kernel/result";
import { dayAtHour } from "../../../core/time/calendar-day";
import type { WorkingHours } from "../../../core/worktime/working-hours";
import { problemOf, speak } from "../base/say.server";
import { readWeek } from "../people/week-form.server";

const MAX_HOLIDAYS = 500;
const MAX_BIN_DAYS = 3_650;

export const NO_SUCH_PLACE = "office.nothingIsKnownOfThe";

/** What is wrong, by the name of the field. */
export type SettingsProblems = Readonly<Record<string, string>>;

type PostedHours = Pick<WorkingHours, "week" | "holidays"> & {
  readonly answerWithin: number;
  /** A calendar file whose days are holidays besides; null for none. */
  readonly calendar: File | null;
  /** A place whose public holidays are holidays besides; empty for none. */
  readonly place: string;
};

const PLACE = Joi.string().trim().allow("").max(20).default("");

const MAX_ANSWER_HOURS = 400;
const MAX_CALENDAR_BYTES = 2_000_000;
const ANSWER_WITHIN = Joi.number()
  .integer()
  .min(1)
  .max(MAX_ANSWER_HOURS)
  .required()
  .messages({ "*": "office.writeWorkingHours" });

const DAYS = Joi.number().integer().min(1).max(MAX_BIN_DAYS).messages({ "*": "office.writeDays" });

/** When a tray is staffed, as its form has it: open days, their hours, holidays one a line, and its time for an answer. */
export function readHours(form: FormData): Result<PostedHours, SettingsProblems> {
  const problems: Record<string, string> = {};
  const week = readWeek(form, problems);
  const holidays = holidaysOf(String(form.get("holidays") ?? ""), problems);
  const within = ANSWER_WITHIN.validate(form.get("answer-within") ?? undefined);
  if (within.error !== undefined) problems["answer-within"] = problemOf(within.error);
  if (Object.keys(problems).length === 0 && week.every((day) => day === null))
    problems.week = speak("office.thisTrayWouldNeverBe");
  const calendar = calendarOf(form, problems);
  const place = PLACE.validate(form.get("place") ?? undefined);
  if (place.error !== undefined) problems.place = NO_SUCH_PLACE;
  if (Object.keys(problems).length > 0) return err(problems);
  return ok({ week, holidays, answerWithin: within.value ?? 1, calendar, place: place.value });
}

type PostedPuttingAway = {
  readonly binDays: number | null;
  readonly junkDays: number | null;
  readonly filesFirst: boolean;
};

/** When what was thrown away goes, as its form has it (nothing for never), and whether only what is filed is settled. */
export function readPuttingAway(form: FormData): Result<PostedPuttingAway, SettingsProblems> {
  const problems: Record<string, string> = {};
  const [binDays, junkDays] = [daysOf(form, "bin-days", problems), daysOf(form, "junk-days", problems)];
  if (Object.keys(problems).length > 0) return err(problems);
  return ok({ binDays, junkDays, filesFirst: form.get("files-first") === "on" });
}

function daysOf(form: FormData, name: string, problems: Record<string, string>): number | null {
  const text = String(form.get(name) ?? "").trim();
  const { value, error } = DAYS.validate(text === "" ? undefined : text);
  if (error !== undefined) problems[name] = problemOf(error);
  return value ?? null;
}

function calendarOf(form: FormData, problems: Record<string, string>): File | null {
  const file = form.get("calendar");
  if (!(file instanceof File) || file.size === 0) return null;
  if (file.size > MAX_CALENDAR_BYTES) problems.calendar = speak("office.thatIsTooLargeFor");
  return file;
}

function holidaysOf(text: string, problems: Record<string, string>): string[] {
  const lines = text
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line !== "");
  const wrong = lines.find((line) => dayAtHour(line, 0, "UTC") === null);
  if (wrong !== undefined) problems.holidays = speak("office.isNoDayWriteDays", { wrong });
  if (lines.length > MAX_HOLIDAYS) problems.holidays = speak("office.atMostDays", { most: MAX_HOLIDAYS });
  return [...new Set(lines)].toSorted();
}
