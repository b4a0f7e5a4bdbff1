import { type ConversationId, type MemberId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { StandingKind } from "../../core/standing/standing";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { param } from "../base/rows";

/** What happened in a conversation of an absent member. */
export type AbsenceSummary = {
  readonly id: ConversationId;
  readonly subject: string;
  readonly who: string;
  readonly standing: StandingKind;
  readonly ownerId: MemberId | null;
  readonly received: number;
  readonly answered: number;
  /** Colleagues who wrote or decided something in it. */
  readonly by: readonly MemberId[];
  /** True when somebody took it over, or it was given to nobody. */
  readonly isOthers: boolean;
};

type Row = {
  id: string;
  subject: string;
  who: string;
  standing: StandingKind;
  owner_id: string | null;
  received: number;
  answered: number;
  by: string[] | null;
};

/** The conversations that were a member's in which something happened within a stretch, by others or from outside. */
export async function absenceSummary(
  db: Database,
  grant: TrayGrant,
  from: Instant,
  until: Instant,
): Promise<AbsenceSummary[]> {
  const found = await ask<Row>(
    db,
    /* sql */ `
    with hers as (
      select id from conversation where tray_id = :trayId and owner_id = :memberId
      union select conversation_id from journal
        where kind = 'assigned' and effect->>'ownerId' = :memberText and at < :until and tray_id = :trayId
          and not exists (select 1 from journal as undo where undo.undoes = journal.id)),
    wrote as (
      select conversation_id as id, count(*) filter (where direction = 'in')::int as received,
        count(*) filter (where direction = 'out')::int as answered, array_agg(distinct author_id) as authors
      from message join hers on hers.id = message.conversation_id
      where received_at >= :from and received_at < :until and delivery is distinct from 'withdrawn' group by 1),
    decided as (
      select conversation_id as id, array_agg(distinct by_member_id) as members
      from journal join hers on hers.id = journal.conversation_id
      where at >= :from and at < :until and by_member_id is not null and by_member_id <> :memberId group by 1)
    select c.id, c.subject, c.who, c.standing, c.owner_id, coalesce(wrote.received, 0) as received,
      coalesce(wrote.answered, 0) as answered,
      (select array_agg(distinct one) from unnest(coalesce(wrote.authors, '{}') || coalesce(decided.members, '{}')) as one
        where one is not null and one <> :memberId) as by
    from conversation as c left join wrote on wrote.id = c.id left join decided on decided.id = c.id
    where c.id in (select id from hers) and c.joined_to is null and (wrote.id is not null or decided.id is not null)
    order by c.last_message_at desc, c.id`,
    {
      trayId: grant.tray.id,
      memberId: grant.memberId,
      memberText: grant.memberId,
      from: param(from),
      until: param(until),
    },
  );
  return found.map((row) => ({
    id: trustedId<ConversationId>(row.id),
    subject: row.subject,
    who: row.who,
    standing: row.standing,
    ownerId: row.owner_id === null ? null : trustedId<MemberId>(row.owner_id),
    received: row.received,
    answered: row.answered,
    by: (row.by ?? []).map((id) => trustedId<MemberId>(id)),
    isOthers: row.owner_id !== grant.memberId,
  }));
}
