import { AGE_BUCKET_ENDS } from "../../core/flow/age-buckets";
import { type Instant, later } from "../../core/kernel/instant";
import type { FLOW } from "../../core/standing/standing";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { atOrNull, param } from "../base/rows";

type FlowStanding = (typeof FLOW)[number] | "held";

/** One segment of the flow bar. */
export type FlowSegment = {
  readonly standing: FlowStanding;
  /** How many stand there; of settled ones, how many were settled today. */
  readonly count: number;
  readonly oldestSince: Instant | null;
  /** By time in this standing, youngest first; of settled ones, by the last five days. */
  readonly ages: readonly number[];
  readonly overdue: number;
  readonly nextWake: Instant | null;
};

type SegmentRow = {
  standing: FlowStanding;
  count: number;
  oldest: Date | null;
  b0: number;
  b1: number;
  b2: number;
  b3: number;
  b4: number;
  overdue: number;
  next_wake: Date | null;
};

/**
 * The gauge of a tray: counts and ages of the open standings from an index of those alone, and what was settled in the
 * last five days; and beside them what is held. `dayStart` is the beginning of today for the viewer. Standings without conversations are left out.
 */
export async function standingCounts(
  db: Database,
  grant: TrayGrant,
  now: Instant,
  dayStart: Instant,
): Promise<FlowSegment[]> {
  const ends = AGE_BUCKET_ENDS.map((age) => param(later(now, -age)));
  const days = [0, 1, 2, 3, 4].map((back) => param(later(dayStart, -back * 24 * 3_600_000)));
  const found = await ask<SegmentRow>(
    db,
    /* sql */ `
    select standing, count(*)::int as count, min(standing_since) as oldest,
      count(*) filter (where standing_since > :end0)::int as b0,
      count(*) filter (where standing_since <= :end0 and standing_since > :end1)::int as b1,
      count(*) filter (where standing_since <= :end1 and standing_since > :end2)::int as b2,
      count(*) filter (where standing_since <= :end2 and standing_since > :end3)::int as b3,
      count(*) filter (where standing_since <= :end3)::int as b4,
      count(*) filter (where standing = 'waiting' and expected_at < :now)::int as overdue,
      min(resting_until) as next_wake
    from conversation
    where tray_id = :trayId and standing in ('to-sort', 'our-move', 'waiting', 'resting')
    group by standing
    union all
    select 'settled', count(*) filter (where standing_since >= :day0)::int, null,
      count(*) filter (where standing_since >= :day0)::int,
      count(*) filter (where standing_since < :day0 and standing_since >= :day1)::int,
      count(*) filter (where standing_since < :day1 and standing_since >= :day2)::int,
      count(*) filter (where standing_since < :day2 and standing_since >= :day3)::int,
      count(*) filter (where standing_since < :day3)::int, 0, null
    from conversation
    where tray_id = :trayId and standing = 'settled' and standing_since >= :day4
    union all
    select 'held', count(*)::int, min(standing_since), 0, 0, 0, 0, 0, 0, null
    from conversation where tray_id = :trayId and standing = 'held'`,
    {
      trayId: grant.tray.id,
      now: param(now),
      end0: ends[0],
      end1: ends[1],
      end2: ends[2],
      end3: ends[3],
      day0: days[0],
      day1: days[1],
      day2: days[2],
      day3: days[3],
      day4: days[4],
    },
  );
  return found.map((row) => ({
    standing: row.standing,
    count: row.count,
    oldestSince: atOrNull(row.oldest),
    ages: [row.b0, row.b1, row.b2, row.b3, row.b4],
    overdue: row.overdue,
    nextWake: atOrNull(row.next_wake),
  }));
}
