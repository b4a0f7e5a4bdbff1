import type { Cover, TimeOff } from "../../core/cover/covering";
import { type MemberId, type RecordId, type TimeOffId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { runPrepared } from "../base/prepared";
import { at, atOrNull, param } from "../base/rows";

/** A time off as it is kept. */
export type KeptTimeOff = TimeOff & {
  readonly id: TimeOffId;
  /** When she read what happened meanwhile; null when she has not. */
  readonly summaryReadAt: Instant | null;
};

type Row = {
  id: string;
  member_id: string;
  from_at: Date;
  until_at: Date;
  summary_read_at: Date | null;
  covers: { trayId: TrayId; recordId: RecordId | null; memberId: MemberId }[];
};

const COVERS = `coalesce((select json_agg(json_build_object('trayId', tray_id, 'recordId', record_id, 'memberId', member_id)
    order by position) from cover where cover.time_off_id = time_off.id), '[]') as covers`;
const COLUMNS = `id, member_id, from_at, least(until_at, coalesce(ended_at, until_at)) as until_at, summary_read_at, ${COVERS}`;

function timeOffOf(row: Row): KeptTimeOff {
  return {
    id: trustedId<TimeOffId>(row.id),
    memberId: trustedId<MemberId>(row.member_id),
    from: at(row.from_at),
    until: at(row.until_at),
    covers: row.covers,
    summaryReadAt: atOrNull(row.summary_read_at),
  };
}

/** The times off of everybody that go on now. */
export async function timesOffNow(db: Database, now: Instant): Promise<KeptTimeOff[]> {
  return ask(db, "from_at <= :now and :now < until_at and (ended_at is null or :now < ended_at)", {
    now: param(now),
  });
}

/** The times off of a member that are not over or whose summary she has not read, the soonest first. */
export async function timesOffOf(db: Database, memberId: MemberId, now: Instant): Promise<KeptTimeOff[]> {
  const condition = `member_id = :memberId and (ended_at is null or ended_at > from_at)
    and (until_at > :now and ended_at is null or summary_read_at is null)`;
  return ask(db, condition, { memberId, now: param(now) });
}

/** A time off of a member; null when she has none of this id. */
export async function ownTimeOff(db: Database, memberId: MemberId, id: TimeOffId): Promise<KeptTimeOff | null> {
  const [found] = await ask(db, "member_id = :memberId and id = :id", { memberId, id });
  return found ?? null;
}

/** The times off of colleagues of a tray that begin or go on within a stretch. */
export async function timesOffIn(db: Database, trayId: TrayId, from: Instant, until: Instant): Promise<KeptTimeOff[]> {
  const condition = `from_at < :until and least(until_at, coalesce(ended_at, until_at)) > :from
    and exists (select 1 from tray_member where tray_member.member_id = time_off.member_id and tray_id = :trayId)`;
  return ask(db, condition, { trayId, from: param(from), until: param(until) });
}

async function ask(db: Database, condition: string, values: Record<string, unknown>): Promise<KeptTimeOff[]> {
  const sql = /* sql */ `select ${COLUMNS} from time_off where ${condition} order by from_at, id`;
  return (await runPrepared<Row>(db, sql, values)).map(timeOffOf);
}

/** Keeps a time off with those who cover. */
export async function addTimeOff(trx: Transaction, timeOff: Omit<KeptTimeOff, "summaryReadAt">): Promise<void> {
  const { id, memberId, from, until, covers } = timeOff;
  await knexOf(trx)("time_off").insert({ id, member_id: memberId, from_at: param(from), until_at: param(until) });
  if (covers.length > 0) {
    await knexOf(trx)("cover").insert(
      covers.map((cover: Cover, position) => ({
        position,
        time_off_id: id,
        tray_id: cover.trayId,
        record_id: cover.recordId,
        member_id: cover.memberId,
      })),
    );
  }
}

/** Ends a time off of a member now, or calls it off where it has not begun; false when it was over. */
export async function endTimeOff(db: Database, memberId: MemberId, id: TimeOffId, now: Instant): Promise<boolean> {
  const ended = await knexOf(db)("time_off")
    .where({ id, member_id: memberId, ended_at: null })
    .where("until_at", ">", param(now))
    .update({ ended_at: param(now) });
  return ended === 1;
}

/** Notes that a member read what happened while she was away. */
export async function noteSummaryRead(db: Database, memberId: MemberId, id: TimeOffId, now: Instant): Promise<void> {
  await knexOf(db)("time_off")
    .where({ id, member_id: memberId })
    .update({ summary_read_at: param(now) });
}

/** Takes a member out of every cover: nobody is stood in for by who is gone. */
export async function dropCovers(trx: Transaction, memberId: MemberId): Promise<void> {
  await knexOf(trx)("cover").where({ member_id: memberId }).delete();
}
