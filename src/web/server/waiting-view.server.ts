import { HOUR } from "../../core/kernel/instant";
import { dayAndTime, dayInWords } from "../../core/standing/day-words";
import type { WaitingRow } from "../../operations/index.server";
import { type Reading, rowView } from "./words.server";

/** What is waited for, ready to be drawn: moments as numbers for the axis, and everything in words. */
export function waitingViews(rows: readonly WaitingRow[], reading: Reading) {
  const { now, zone } = reading;
  return rows.map(({ row, askedAt, over, usual, span, chanceToday }) => ({
    row: rowView(row, reading),
    askedAt,
    span,
    whoAddress: row.whoAddress,
    asked: dayAndTime(askedAt, now, zone),
    expected: row.expectedAt === null ? "some day" : dayInWords(row.expectedAt, now, zone),
    overWords: over === 0 ? null : overInWords(over),
    usual: usual === null ? null : usualInWords(usual),
    chance: chanceToday === null ? null : Math.round(chanceToday * 100),
  }));
}

export type WaitingView = ReturnType<typeof waitingViews>[number];

// A working day as one speaks of it: what is over is told in the tray's own hours.
const WORKING_DAY = 8 * HOUR;

function overInWords(over: number): string {
  const hours = Math.round(over / HOUR);
  if (hours < 8) return hours <= 1 ? "1 working hour over" : `${hours} working hours over`;
  const days = Math.round(over / WORKING_DAY);
  return days === 1 ? "1 working day over" : `${days} working days over`;
}

function usualInWords({ count, median, ninetieth, isHers }: NonNullable<WaitingRow["usual"]>): string {
  const whose = isHers ? `from ${count} answers of theirs` : "from the tray’s answers";
  return `usually ${inHours(median)}, nine in ten within ${inHours(ninetieth)} of working time, ${whose}`;
}

function inHours(time: number): string {
  const hours = Math.max(1, Math.round(time / HOUR));
  if (hours < 16) return hours === 1 ? "1 hour" : `${hours} hours`;
  return `${Math.round(time / WORKING_DAY)} days`;
}
