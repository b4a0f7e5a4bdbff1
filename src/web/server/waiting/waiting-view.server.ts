import Joi from "joi";
import { data } from "react-router";
import { HOUR } from "../../../core/kernel/instant";
import { dayAndTime, dayInWords } from "../../../core/time/day-words";
import {
  type Deps,
  getWaiting,
  type Member,
  remindersToGo,
  type TrayGrant,
  WAITING_FIRST,
  type WaitingRow,
} from "../../../operations/index.server";
import { type Reading, readingOf, rowView } from "../base/row-view.server";
import { problemOf, speak } from "../base/say.server";

const LANES = ["none", "person", "record", "owner"] as const;

const PART = Joi.object<{ by: (typeof LANES)[number]; from: number; limit: number }>({
  by: Joi.string()
    .valid(...LANES)
    .default("none"),
  from: Joi.number().integer().min(0).max(100_000).default(WAITING_FIRST.from),
  limit: Joi.number().integer().min(1).max(500).default(WAITING_FIRST.limit),
});

/** The part of what is waited for that a URL asks for, ready to be drawn; throws an answer of 400 for one that there cannot be. */
export async function waitingPart(deps: Deps, grant: TrayGrant, member: Member, query: URLSearchParams) {
  const asked = PART.validate(Object.fromEntries(query), { stripUnknown: true });
  if (asked.error !== undefined) throw data(problemOf(asked.error), { status: 400 });
  const { by, from, limit } = asked.value;
  const { rows, total, overdue } = await getWaiting(deps, grant, { lanes: by, from, limit });
  const reading = readingOf(member, deps.now(), grant.covering);
  const ids = rows.map(({ row }) => row.id);
  const reminders = new Map<string, string>(
    (await remindersToGo(deps, grant, ids)).map(({ conversationId, sendAt }) => [
      conversationId,
      speak(dayAndTime(sendAt, reading.now, reading.zone)),
    ]),
  );
  return { rows: waitingViews(rows, reminders, reading), total, overdue, now: reading.now };
}

export type WaitingPart = Awaited<ReturnType<typeof waitingPart>>;

// Moments as numbers for the axis, and everything in words.
function waitingViews(rows: readonly WaitingRow[], reminders: ReadonlyMap<string, string>, reading: Reading) {
  const { now, zone } = reading;
  return rows.map(({ row, lane, inLane, askedAt, over, usual, span, chanceToday }) => ({
    row: rowView(row, reading),
    lane,
    inLane,
    /** When it is reminded of; null when it is not going to be. */
    reminder: reminders.get(row.id) ?? null,
    askedAt,
    span,
    asked: speak(dayAndTime(askedAt, now, zone)),
    expected: row.expectedAt === null ? speak("waiting.someDay") : speak(dayInWords(row.expectedAt, now, zone)),
    overWords: over === 0 ? null : overInWords(over),
    usual: usual === null ? null : usualInWords(usual),
    chance: chanceToday === null ? null : Math.round(chanceToday * 100),
  }));
}

export type WaitingView = WaitingPart["rows"][number];

// A working day as one speaks of it: what is over is told in the tray's own hours.
const WORKING_DAY = 8 * HOUR;

function overInWords(over: number): string {
  const hours = Math.round(over / HOUR);
  if (hours < 8)
    return hours <= 1 ? speak("waiting.1WorkingHourOverdue") : speak("waiting.workingHoursOverdue", { hours });
  const days = Math.round(over / WORKING_DAY);
  return speak("waiting.workingDaysOverdue", { days });
}

function usualInWords({ count, median, ninetieth, isHers }: NonNullable<WaitingRow["usual"]>): string {
  const whose = isHers ? speak("waiting.fromAnswersOfTheirs", { count }) : speak("waiting.fromTheTraysAnswers");
  return speak("waiting.usuallyNineInTenWithin", { usual: inHours(median), most: inHours(ninetieth), whose });
}

function inHours(time: number): string {
  const hours = Math.max(1, Math.round(time / HOUR));
  if (hours < 16) return speak("waiting.hours", { hours });
  return speak("waiting.days", { time: Math.round(time / WORKING_DAY) });
}
