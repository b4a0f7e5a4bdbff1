import type { EmailAddress } from "../../core/kernel/email-address";
import type { Instant } from "../../core/kernel/instant";
import type { Mark } from "../../core/turn-line/marks";
import { SEEN } from "../access/record-access";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { param } from "../base/rows";
import { type RawSheetRow, SHEET_COLUMNS, type SheetRow, sheetRowOf } from "./sheet-row";

/** What the rows of what is awaited are put together by: nothing, or whom we wait for, the record, the owner. */
type WaitingLanes = "none" | "person" | "record" | "owner";

/** Which part of what is awaited is asked for; `overBefore` is what an expected day is past before. */
export type WaitingPart = {
  readonly lanes: WaitingLanes;
  readonly from: number;
  readonly limit: number;
  readonly overBefore: Instant;
};

/** A part of what is awaited, with how much there is in all. */
export type WaitingRows = {
  readonly rows: readonly { readonly row: SheetRow; readonly lane: string; readonly inLane: number }[];
  readonly total: number;
  readonly overdue: number;
};

const LANES: Readonly<Record<WaitingLanes, string>> = {
  none: "''",
  person: "coalesce(nullif(c.who, ''), c.who_address)",
  record: `coalesce((select min(record.code) from record where record.id = any(c.record_ids) and ${SEEN}), 'not filed')`,
  owner: "coalesce((select name from member where member.id = c.owner_id), 'nobody')",
};

/**
 * The conversations of a tray in which a reply is awaited, those first that should have come first, without a date last;
 * of lanes the one first that has the first of them.
 */
export async function waitingRows(db: Database, grant: TrayGrant, part: WaitingPart): Promise<WaitingRows> {
  const found = await ask<RawSheetRow & { lane: string; in_lane: number; total: number; overdue: number }>(
    db,
    /* sql */ `
    with waiting as (
      select c.id, c.expected_at, ${LANES[part.lanes]} as lane from conversation as c
      where c.tray_id = :trayId and c.standing = 'waiting' and c.joined_to is null
    ),
    counted as (
      select *, min(expected_at) over lane_of as lane_from, count(*) over lane_of as in_lane, count(*) over () as total,
        count(*) filter (where expected_at <= :overBefore) over () as overdue
      from waiting window lane_of as (partition by lane)
    ),
    part as (
      select *, row_number() over (order by lane_from nulls last, lane, expected_at nulls last, id) as place
      from counted order by place limit :limit offset :from
    )
    select ${SHEET_COLUMNS}, part.lane, part.in_lane::int, part.total::int, part.overdue::int
    from part join conversation as c on c.id = part.id order by part.place`,
    {
      trayId: grant.tray.id,
      memberId: grant.memberId,
      from: part.from,
      limit: part.limit,
      overBefore: param(part.overBefore),
    },
  );
  const [{ total, overdue } = { total: 0, overdue: 0 }] = found;
  return {
    total,
    overdue,
    rows: found.map((row) => ({ row: sheetRowOf(row), lane: row.lane, inLane: row.in_lane })),
  };
}

// Habits change: what somebody did long ago says little.
const EXCHANGES_EACH = 30;
const EXCHANGES_OF_ALL = 300;

/** The newest exchanges with each of some people, as marks; and under an empty text those with everybody. */
export async function exchangesWith(
  db: Database,
  grant: TrayGrant,
  people: readonly EmailAddress[],
): Promise<ReadonlyMap<string, readonly (readonly Mark[])[]>> {
  const found = await ask<{ who: string; exchanges: Mark[][] }>(
    db,
    /* sql */ `
    select person as who, (
      select coalesce(jsonb_agg(newest.marks), '[]') from (
        select marks from conversation
        where tray_id = :trayId and who_address = person order by last_message_at desc limit ${EXCHANGES_EACH}
      ) as newest
    ) as exchanges
    from unnest(cast(:people as text[])) as person
    union all
    select '', coalesce(jsonb_agg(newest.marks), '[]') from (
      select marks from conversation where tray_id = :trayId and standing = 'settled' and joined_to is null
      order by listed_at desc, id desc limit ${EXCHANGES_OF_ALL}
    ) as newest`,
    { trayId: grant.tray.id, people: [...new Set(people)] },
  );
  return new Map(found.map(({ who, exchanges }) => [who, exchanges]));
}
