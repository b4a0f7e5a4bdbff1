import { chanceUntil, type UsualTime, usualSpan } from "../core/flow/answer-times";
import type { EmailAddress } from "../core/kernel/email-address";
import type { Instant } from "../core/kernel/instant";
import { closesToday, type WorkingHours, workingTimeBetween } from "../core/worktime/working-hours";
import { hoursOfTray, type SheetRow, type TrayGrant, waitingRows } from "../storage/index";
import type { Deps } from "./deps";
import { usualTimesOf } from "./usual-answers";

/** A conversation in which a reply is awaited, with how its correspondent usually answers. */
export type WaitingRow = {
  readonly row: SheetRow;
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

/** What a tray waits for, with its hours. */
export async function lookAtWaiting(
  deps: Deps,
  grant: TrayGrant,
): Promise<{ readonly rows: readonly WaitingRow[]; readonly hours: WorkingHours }> {
  const [rows, hours] = await Promise.all([waitingRows(deps.db, grant), hoursOfTray(deps.db, grant.tray)]);
  const people = rows.map(({ whoAddress }) => whoAddress as EmailAddress);
  const usual = await usualTimesOf(deps, grant, people, hours);
  const now = deps.now();
  return { hours, rows: rows.map((row) => waitingRow(row, usual, hours, now)) };
}

function waitingRow(
  row: SheetRow,
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
