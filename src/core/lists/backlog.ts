import { listTexts } from "../../texts/en/list";
import { type Said, saidOf } from "../../texts/said";
import { DAY, type Instant, later } from "../kernel/instant";
import { calendarDay, dayAtHour } from "../time/calendar-day";
import type { ListFilter } from "./filter";

const said = saidOf(listTexts);

/** How long ago something must have come to be older mail. */
export const BACKLOG_AGES = ["month", "quarter", "half-year", "year"] as const;
export type BacklogAge = (typeof BACKLOG_AGES)[number];

export const BACKLOG_AGE_NAMES: Readonly<Record<BacklogAge, Said>> = {
  month: said("list.aMonth"),
  quarter: said("list.threeMonths"),
  "half-year": said("list.halfAYear"),
  year: said("list.aYear"),
};

const DAYS: Readonly<Record<BacklogAge, number>> = { month: 30, quarter: 91, "half-year": 182, year: 365 };

export function isBacklogAge(text: string): text is BacklogAge {
  return (BACKLOG_AGES as readonly string[]).includes(text);
}

/** The day, as 2026-11-26 in UTC, before which mail is older than an age. */
export function backlogDay(age: BacklogAge, now: Instant): string {
  return calendarDay(later(now, -DAYS[age] * DAY), "UTC");
}

/** Conversations of one list, of one person, or all that are older than a day, still to be sorted. */
export type BacklogGroup = {
  readonly kind: "list" | "person" | "age";
  /** The id of the list, the address of the person, or the day. */
  readonly key: string;
  readonly name: string;
  readonly count: number;
  /** How many of them have a person's message that nobody here answered. */
  readonly unanswered: number;
  readonly oldestAt: Instant;
  readonly newestAt: Instant;
  /** When this list or person last wrote in any conversation; null where that is not asked. */
  readonly lastWroteAt: Instant | null;
  /** Subjects of some of them, the newest first. */
  readonly samples: readonly string[];
};

/** Something that can be settled in one go. */
export type BacklogProposal = BacklogGroup & {
  readonly filter: ListFilter;
  readonly reason: "list" | "nobody-asks" | "wrote-since" | "unanswered" | "old";
};

const ORDER: readonly BacklogProposal["reason"][] = ["list", "nobody-asks", "wrote-since", "unanswered", "old"];
// One of a kind is decided about where it stands.
const FEWEST = 2;

/**
 * What can be settled in one go of the mail before `day` (UTC, as 2026-11-26): what is safest first, the greater first
 * among equals. Lists ask nothing; a person who has written since has asked again what still mattered; of one who has
 * not, the unanswered ones are worth a look.
 */
export function backlogProposals(groups: readonly BacklogGroup[], day: string): BacklogProposal[] {
  const from = dayAtHour(day, 0, "UTC");
  if (from === null) return [];
  const proposals = groups
    .filter(({ count }) => count >= FEWEST)
    .map((group) => ({ ...group, filter: filterOf(group, day), reason: reasonOf(group, from) }));
  const place = ({ reason }: BacklogProposal) => ORDER.indexOf(reason);
  return proposals.toSorted((a, b) => place(a) - place(b) || b.count - a.count || (a.key < b.key ? -1 : 1));
}

function filterOf({ kind, key }: BacklogGroup, day: string): ListFilter {
  switch (kind) {
    case "list":
      return { list: [key], before: [day] };
    case "person":
      return { person: [key], before: [day] };
    case "age":
      return { before: [key] };
  }
}

function reasonOf({ kind, unanswered, lastWroteAt }: BacklogGroup, from: Instant): BacklogProposal["reason"] {
  if (kind === "age") return "old";
  if (kind === "list") return "list";
  if (unanswered === 0) return "nobody-asks";
  return lastWroteAt !== null && lastWroteAt >= from ? "wrote-since" : "unanswered";
}
