import { type Covering, isCovered } from "../../../core/cover/covering";
import type { MemberId } from "../../../core/kernel/ids";
import type { Instant } from "../../../core/kernel/instant";
import { firstWords } from "../../../core/text/new-text";
import { ageInWords } from "../../../core/time/age-in-words";
import { dayAndTime, dayInWords, overdueInWords } from "../../../core/time/day-words";
import type { Member, SheetRow } from "../../../operations/index.server";
import { speak } from "./say.server";

/** Who reads, where and when: what every word on a screen depends on. */
export type Reading = {
  readonly memberId: MemberId;
  readonly zone: string;
  readonly now: Instant;
  /** What the reader covers for absent colleagues, where rows of a tray are read. */
  readonly covering: readonly Covering[];
};

/** The circumstances of a member at a moment. */
export function readingOf(member: Member, now: Instant, covering: readonly Covering[] = []): Reading {
  return { memberId: member.id, zone: member.timeZone, now, covering };
}

/** What a row says of its time: until when, or since when. */
type DueView = { readonly words: string; readonly over: boolean };

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
  | "followerIds"
  | "categoryIds"
  | "recordCodes"
  | "marks"
  | "turn"
  | "turnSince"
  | "standing"
  | "expectedAt"
  | "unread"
  | "hasDraft"
  | "urgency"
  | "hasAttachment"
  | "listedAt"
> & {
  readonly due: DueView | null;
  readonly when: string;
  /** True for what the reader covers for its owner. */
  readonly isCovered: boolean;
};

// So much of the newest words has room in a row of a wide window.
const SEEN_CHARACTERS = 120;

/** Rows with their dates in words, for this reader. */
export function rowView(row: SheetRow, reading: Reading): RowView {
  const { now, zone } = reading;
  const { id, version, subject, who, newestText, messageCount, ownerId, categoryIds, recordCodes } = row;
  const { followerIds } = row;
  const { marks, turn, turnSince, standing, expectedAt, unread, hasDraft, urgency, hasAttachment, listedAt } = row;
  return {
    id,
    version,
    subject,
    who,
    newestText: firstWords(newestText, SEEN_CHARACTERS),
    messageCount,
    ownerId,
    followerIds,
    categoryIds,
    recordCodes,
    marks,
    turn,
    turnSince,
    standing,
    expectedAt,
    unread,
    hasDraft,
    urgency,
    hasAttachment,
    listedAt,
    due: dueView(row, reading),
    isCovered: isCovered(reading.covering, row),
    when: speak(dayAndTime(row.lastMessageAt, now, zone)),
  };
}

function dueView(
  { standing, standingSince, expectedAt, restingUntil }: SheetRow,
  { now, zone }: Reading,
): DueView | null {
  switch (standing) {
    case "waiting": {
      const over = expectedAt === null ? null : overdueInWords(expectedAt, now, zone);
      if (over !== null) return { words: speak(over), over: true };
      return {
        words: expectedAt === null ? speak("waiting.someDay") : speak(dayInWords(expectedAt, now, zone)),
        over: false,
      };
    }
    case "resting":
      return restingUntil === null ? null : { words: speak(dayInWords(restingUntil, now, zone)), over: false };
    case "to-sort":
    case "our-move":
      return { words: speak(ageInWords(now - standingSince)), over: false };
    default:
      return { words: speak(dayInWords(standingSince, now, zone)), over: false };
  }
}
