import { chanceUntil, type UsualTime, usualSpan } from "../../core/flow/answer-times";
import type { EmailAddress } from "../../core/kernel/email-address";
import type { Instant } from "../../core/kernel/instant";
import { closesToday, type WorkingHours, workingTimeAgo, workingTimeBetween } from "../../core/worktime/working-hours";
import { hoursOfTray, type TrayGrant } from "../../storage/access/index";
import { type SheetRow, type WaitingPart, type WaitingRows, waitingRows } from "../../storage/lists/index";
import type { Deps } from "../base/deps";
import { responseTimesOf } from "../reading/response-times";

/** A conversation in which a reply is awaited, with how its correspondent usually answers. */
export type WaitingRow = {
  readonly row: SheetRow;
  /** The lane that it stands in, by name, and how much stands there. */
  readonly lane: string;
  readonly inLane: number;
  /** When we last wrote, which is what is to be answered. */
  readonly askedAt: Instant;
  /** Working time since its date, in milliseconds; 0 while it is not past. */
  readonly over: number;
  /** How long answers take: hers, or the tray's where she has given too few; null where even those are. */
  readonly usual: (Pick<UsualTime, "count" | "median" | "ninetieth"> & { readonly isHers: boolean }) | null;
  /** When the answer usually is there. */
  readonly span: { readonly from: Instant; readonly to: Instant } | null;
  /** How likely it still comes today, from 0 to 1; null where that cannot be said. */
  readonly chanceToday: number | null;
};

/** A part of what a tray waits for, with how much that is in all and how much of it is overdue. */
export type Waiting = {
  readonly rows: readonly WaitingRow[];
  readonly total: number;
  readonly overdue: number;
};

/** What a page of it begins with; more than a screen has. */
export const WAITING_FIRST = { lanes: "none", from: 0, limit: 20 } as const;

/** What a tray waits for. */
export async function getWaiting(
  deps: Deps,
  grant: TrayGrant,
  part: Omit<WaitingPart, "overBefore"> = WAITING_FIRST,
): Promise<Waiting> {
  const now = deps.now();
  const hours = await hoursOfTray(deps.db, grant.tray);
  // Over by any working time at all.
  const overBefore = workingTimeAgo(now, 1, hours) ?? now;
  const { rows, total, overdue } = await waitingRows(deps.db, grant, { ...part, overBefore });
  const people = rows.map(({ row }) => row.whoAddress as EmailAddress);
  const usual = await responseTimesOf(deps, grant, people, hours);
  return { total, overdue, rows: rows.map((row) => waitingRow(row, usual, hours, now)) };
}

function waitingRow(
  { row, lane, inLane }: WaitingRows["rows"][number],
  usual: ReadonlyMap<string, UsualTime | null>,
  hours: WorkingHours,
  now: Instant,
): WaitingRow {
  const hers = usual.get(row.whoAddress) ?? null;
  const time = hers ?? usual.get("") ?? null;
  const askedAt = (row.marks.findLast(([, kind]) => kind === "w")?.[0] ?? row.standingSince) as Instant;
  const closes = closesToday(now, hours);
  return {
    row,
    lane,
    inLane,
    askedAt,
    over: row.expectedAt === null ? 0 : workingTimeBetween(row.expectedAt, now, hours),
    usual:
      time === null
        ? null
        : { count: time.count, median: time.median, ninetieth: time.ninetieth, isHers: hers !== null },
    span: time === null ? null : usualSpan(askedAt, time, hours),
    chanceToday: time === null || closes === null ? null : chanceUntil(time, askedAt, { now, until: closes }, hours),
  };
}
