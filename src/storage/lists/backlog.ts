import type { BacklogGroup } from "../../core/lists/backlog";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { at, atOrNull } from "../base/rows";

// As many of a kind as somebody goes through in a sitting; what is settled makes room for the next.
const MAX_GROUPS = 40;

type Row = {
  kind: BacklogGroup["kind"];
  key: string;
  name: string;
  count: number;
  unanswered: number;
  oldest_at: Date;
  newest_at: Date;
  last_wrote_at: Date | null;
  samples: string[];
};

/** What is still to be sorted of before a day, in groups: by list, by person where it came through none, and by age before each of `days`. */
export async function backlogGroups(db: Database, grant: TrayGrant, days: readonly string[]): Promise<BacklogGroup[]> {
  const [from] = days;
  if (from === undefined) return [];
  const found = await ask<Row>(
    db,
    /* sql */ `
    with older as materialized (
      select id, list_id, who_address, who, subject, last_message_at, listed_at, (turn = 'us')::int as asks
      from conversation
      where tray_id = :trayId and standing = 'to-sort' and joined_to is null
        and listed_at < cast(:from as timestamp) at time zone 'UTC'
    ), groups as (
      (select 'list' as kind, list_id as key, (array_agg(who order by last_message_at desc))[1] as name, count(*)::int as count, 0 as unanswered,
        min(last_message_at) as oldest_at, max(last_message_at) as newest_at,
        (array_agg(subject order by last_message_at desc))[1:3] as samples,
        (array_agg(id order by last_message_at desc))[1] as newest
       from older where list_id is not null group by list_id order by count desc limit :most)
      union all
      (select 'person', who_address, max(who), count(*)::int, sum(asks)::int, min(last_message_at), max(last_message_at),
        (array_agg(subject order by last_message_at desc))[1:3], null::uuid
       from older where list_id is null and who_address <> '' group by who_address order by 4 desc limit :most)
      union all
      (select 'age', day, '', count(*)::int, sum(asks)::int, min(last_message_at), max(last_message_at),
        (array_agg(subject order by last_message_at desc))[1:3], null
       from unnest(cast(:days as text[])) as day
         join older on older.listed_at < cast(day as timestamp) at time zone 'UTC' group by day)
    )
    select groups.kind, key, coalesce(case when kind = 'list' then (select substring(message.list_id from '^[\\s"]*([^"<]*[^"<\\s])["\\s]*<')
        from message where message.conversation_id = groups.newest and message.list_id is not null
        order by version desc limit 1) end, name) as name,
      count, unanswered, oldest_at, newest_at, samples, case when kind = 'person' then (select max(last_message_at) from conversation
      where tray_id = :trayId and who_address = groups.key) end as last_wrote_at
    from groups`,
    { trayId: grant.tray.id, from, days: [...days], most: MAX_GROUPS },
  );
  return found.map((row) => ({
    kind: row.kind,
    key: row.key,
    name: row.name,
    count: row.count,
    unanswered: row.unanswered,
    oldestAt: at(row.oldest_at),
    newestAt: at(row.newest_at),
    lastWroteAt: atOrNull(row.last_wrote_at),
    samples: row.samples,
  }));
}
