import type { MemberId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { dayAndTime, dayHeading, dayInWords, overdueInWords } from "../../core/standing/day-words";
import type { StandingKind } from "../../core/standing/standing";
import type { Member, SheetRow } from "../../operations/index.server";

/** Who reads, where and when: what every word on a screen depends on. */
export type Reading = { readonly memberId: MemberId; readonly zone: string; readonly now: Instant };

/** The circumstances of a member at a moment. */
export function readingOf(member: Member, now: Instant): Reading {
  return { memberId: member.id, zone: member.timeZone, now };
}

/** A date in the Due column. */
export type DueView = { readonly words: string; readonly over: boolean };

/** A row of the sheet, ready to be drawn. */
export type RowView = Pick<
  SheetRow,
  | "id"
  | "version"
  | "subject"
  | "who"
  | "newestText"
  | "messageCount"
  | "ownerId"
  | "categoryIds"
  | "recordCodes"
  | "marks"
  | "turn"
  | "turnSince"
  | "standing"
  | "expectedAt"
  | "unread"
> & { readonly due: DueView | null; readonly day: string; readonly when: string };

/** Rows with their dates in words, for this reader. */
export function rowView(row: SheetRow, { now, zone }: Reading): RowView {
  const { id, version, subject, who, newestText, messageCount, ownerId, categoryIds, recordCodes } = row;
  const { marks, turn, turnSince, standing, expectedAt, unread } = row;
  return {
    ...{ id, version, subject, who, newestText, messageCount, ownerId, categoryIds, recordCodes },
    ...{ marks, turn, turnSince, standing, expectedAt, unread },
    due: dueView(row.standing, row.expectedAt, row.restingUntil, now, zone),
    day: dayHeading(row.lastMessageAt, now, zone),
    when: dayAndTime(row.lastMessageAt, now, zone),
  };
}

function dueView(
  standing: StandingKind,
  expectedAt: Instant | null,
  restingUntil: Instant | null,
  now: Instant,
  zone: string,
): DueView | null {
  if (standing === "waiting" && expectedAt !== null) {
    const over = overdueInWords(expectedAt, now, zone);
    return { words: over ?? dayInWords(expectedAt, now, zone), over: over !== null };
  }
  if (standing === "resting" && restingUntil !== null) {
    return { words: dayAndTime(restingUntil, now, zone), over: false };
  }
  return null;
}
