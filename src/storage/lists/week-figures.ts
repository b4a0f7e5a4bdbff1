import type { MemberId, TrayId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { WeekFigures } from "../../core/notifications/week";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";

/** How much came, was answered and was settled in a tray from a moment until before another. */
export async function weekFigures(
  db: Database,
  trayId: TrayId,
  from: Instant,
  to: Instant,
): Promise<Omit<WeekFigures, "ends">> {
  const found = await ask<{ arrived: number; answered: number; settled: number }>(
    db,
    /* sql */ `
    select
      (select count(*)::int from message where tray_id = :trayId and received_at >= :from and received_at < :to
        and direction = 'in' and kind = 'person') as arrived,
      (select count(*)::int from message where tray_id = :trayId and received_at >= :from and received_at < :to
        and direction = 'out' and author_id is not null) as answered,
      (select count(distinct conversation_id)::int from journal where tray_id = :trayId and at >= :from and at < :to
        and kind = 'settled' and undoes is null) as settled`,
    { trayId, from: param(from) as Date, to: param(to) as Date },
  );
  const [row] = found;
  if (row === undefined) throw new Error("a query without a from gives one row");
  return row;
}

/** Whether a member was told of this before. */
export async function wasNotified(db: Database, memberId: MemberId, about: string): Promise<boolean> {
  const row = await knexOf(db)("notification").first("id").where({ member_id: memberId, about });
  return row !== undefined;
}
