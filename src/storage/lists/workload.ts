import type { Share } from "../../core/assigning/assignee-suggestions";
import { DESK_AGE_DAYS, type DeskAge, type DeskPart } from "../../core/assigning/load";
import { type ConversationId, type MemberId, type TrayId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import { urgencyOfRank } from "../../core/kernel/urgency";
import { OPEN_STANDINGS } from "../../core/lists/scope";
import { SEEN_IDS } from "../access/record-access";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { atOrNull, param } from "../base/rows";

/** What is open on the desks of a tray, in parts that weigh alike. */
export async function deskParts(db: Database, grant: Pick<TrayGrant, "tray">, now: Instant): Promise<DeskPart[]> {
  const found = await ask<{ owner_id: string; urgency: number; age: DeskAge; waits: boolean; count: number }>(
    db,
    /* sql */ `
    select owner_id, urgency, standing in ('waiting', 'resting') as waits,
      case when standing_since > :days then 'fresh' when standing_since > :old then 'days' else 'old' end as age,
      count(*)::int as count
    from conversation
    where tray_id = :trayId and standing in ('to-sort', 'our-move', 'waiting', 'resting') and owner_id is not null
    group by 1, 2, 3, 4`,
    {
      trayId: grant.tray.id,
      days: param(later(now, -DESK_AGE_DAYS.days * DAY)),
      old: param(later(now, -DESK_AGE_DAYS.old * DAY)),
    },
  );
  return found.map(({ owner_id, urgency, age, waits, count }) => ({
    ownerId: trustedId<MemberId>(owner_id),
    urgency: urgencyOfRank(urgency),
    age,
    waits,
    count,
  }));
}

/** What each colleague dealt with before of what a conversation is about. */
export type DealtWith = {
  readonly memberId: MemberId;
  readonly person: number;
  readonly record: number;
  readonly category: number;
};

// What somebody did years ago says little; and the question must not grow with the tray.
const NEWEST = 200;

/** Who owned the newest other conversations with the same person, on the same records, of the same categories. */
export async function dealtWith(db: Database, grant: TrayGrant, id: ConversationId): Promise<DealtWith[]> {
  const others = "other.tray_id = this.tray_id and other.owner_id is not null and other.id <> this.id";
  const newest = `order by other.last_message_at desc limit ${NEWEST}`;
  const found = await ask<{ owner_id: string; person: number; record: number; category: number }>(
    db,
    /* sql */ `
    with this as (select c.*, ${SEEN_IDS} as seen_ids from conversation as c where id = :id and tray_id = :trayId)
    select dealt.owner_id, count(*) filter (where by = 'person')::int as person,
      count(*) filter (where by = 'record')::int as record, count(*) filter (where by = 'category')::int as category
    from this cross join lateral (
      (select 'person' as by, other.owner_id from conversation as other
        where ${others} and this.who_address <> '' and other.who_address = this.who_address ${newest})
      union all (select 'record', other.owner_id from conversation as other
        where ${others} and other.record_ids && this.seen_ids and other.record_ids <> '{}' ${newest})
      union all (select 'category', other.owner_id from conversation as other
        where ${others} and other.category_ids && this.category_ids and other.category_ids <> '{}' ${newest})
    ) as dealt
    group by dealt.owner_id`,
    { id, trayId: grant.tray.id, memberId: grant.memberId },
  );
  return found.map(({ owner_id, person, record, category }) => ({
    memberId: trustedId<MemberId>(owner_id),
    person,
    record,
    category,
  }));
}

/** The share of one colleague in what all dealt with, of one kind. */
export function shareIn(all: readonly DealtWith[], memberId: MemberId, kind: "person" | "record" | "category"): Share {
  return {
    hers: all.find((one) => one.memberId === memberId)?.[kind] ?? 0,
    all: all.reduce((sum, one) => sum + one[kind], 0),
  };
}

/** A line of the overview: what a colleague has, or what nobody has (null). */
export type Desk = {
  readonly memberId: MemberId | null;
  readonly toSort: number;
  readonly ourMove: number;
  readonly waiting: number;
  readonly resting: number;
  /** Expected replies whose day is over. */
  readonly overdue: number;
  /** Since when the oldest of hers to do has stood there. */
  readonly oldestSince: Instant | null;
  readonly settledToday: number;
  readonly answeredToday: number;
  /** Follow-ups of hers that are due by now. */
  readonly followUpsDue: number;
};

type DeskRow = Record<"to_sort" | "our_move" | "waiting" | "resting" | "overdue", number> & {
  member_id: string | null;
  oldest: Date | null;
  settled: number;
  answered: number;
  due: number;
};

/** Who has what in a tray, in one question; those who have nothing are left out. `dayStart` is when today began. */
export async function workloads(db: Database, grant: TrayGrant, now: Instant, dayStart: Instant): Promise<Desk[]> {
  const found = await ask<DeskRow>(
    db,
    /* sql */ `
    with open as (
      select owner_id as member_id,
        count(*) filter (where standing = 'to-sort')::int as to_sort,
        count(*) filter (where standing = 'our-move')::int as our_move,
        count(*) filter (where standing = 'waiting')::int as waiting,
        count(*) filter (where standing = 'resting')::int as resting,
        count(*) filter (where standing = 'waiting' and expected_at < :now)::int as overdue,
        min(standing_since) filter (where standing in ('to-sort', 'our-move')) as oldest
      from conversation
      where tray_id = :trayId and standing in ('to-sort', 'our-move', 'waiting', 'resting') group by 1),
    settled as (
      select coalesce((standing_reason->>'by')::uuid, owner_id) as member_id, count(*)::int as settled
      from conversation where tray_id = :trayId and standing = 'settled' and standing_since >= :dayStart group by 1),
    answered as (
      select author_id as member_id, count(*)::int as answered from message
      where tray_id = :trayId and direction = 'out' and received_at >= :dayStart and author_id is not null
        and delivery is distinct from 'withdrawn' group by 1),
    due as (
      select for_member_id as member_id, count(*)::int as due from follow_up
      where tray_id = :trayId and done_at is null and due_at < :now group by 1),
    known as (select member_id from open union select member_id from settled union select member_id from answered
      union select member_id from due)
    select known.member_id, coalesce(to_sort, 0) as to_sort, coalesce(our_move, 0) as our_move,
      coalesce(waiting, 0) as waiting, coalesce(resting, 0) as resting, coalesce(overdue, 0) as overdue, oldest,
      coalesce(settled, 0) as settled, coalesce(answered, 0) as answered, coalesce(due, 0) as due
    from known
      left join open on open.member_id is not distinct from known.member_id
      left join settled on settled.member_id is not distinct from known.member_id
      left join answered on answered.member_id = known.member_id
      left join due on due.member_id = known.member_id`,
    { trayId: grant.tray.id, now: param(now), dayStart: param(dayStart) },
  );
  return found.map((row) => ({
    memberId: row.member_id === null ? null : trustedId<MemberId>(row.member_id),
    toSort: row.to_sort,
    ourMove: row.our_move,
    waiting: row.waiting,
    resting: row.resting,
    overdue: row.overdue,
    oldestSince: atOrNull(row.oldest),
    settledToday: row.settled,
    answeredToday: row.answered,
    followUpsDue: row.due,
  }));
}

/** The open conversations that a member owns, follows, or has an open follow-up on in a tray, in order of id. */
export async function openOfMember(db: Database, trayId: TrayId, memberId: MemberId): Promise<ConversationId[]> {
  const found = await ask<{ id: string }>(
    db,
    /* sql */ `
    select id from conversation
    where tray_id = :trayId and standing in ('to-sort', 'our-move', 'waiting', 'resting') and owner_id = :memberId
    union select id from conversation where tray_id = :trayId and follower_ids @> array[cast(:memberId as uuid)]
    union select conversation_id from follow_up
      where tray_id = :trayId and for_member_id = :memberId and done_at is null
    order by id`,
    { trayId, memberId },
  );
  return found.map(({ id }) => trustedId<ConversationId>(id));
}

/** How many open conversations a member owns in a tray. */
export async function countOwned(db: Database, trayId: TrayId, memberId: MemberId): Promise<number> {
  const row = await knexOf(db)("conversation")
    .where({ tray_id: trayId, owner_id: memberId })
    .whereIn("standing", [...OPEN_STANDINGS])
    .count<{ count: string }[]>("* as count")
    .first();
  return Number(row?.count ?? 0);
}
