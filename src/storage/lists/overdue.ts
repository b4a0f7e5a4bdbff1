import { type ConversationId, type MemberId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { at, param } from "../base/rows";

/** Something whose day is over, and who is to be told. */
export type Overdue = {
  readonly memberId: MemberId;
  readonly trayId: TrayId;
  readonly conversationId: ConversationId;
  readonly dueAt: Instant;
  readonly what: "reply" | "follow-up";
  /** What a follow-up says. */
  readonly text: string;
  readonly about: string;
};

/** Expected replies and follow-ups that became due within a stretch and of which their members were not told. */
export async function overdueSince(db: Database, since: Instant, now: Instant, limit: number): Promise<Overdue[]> {
  const found = await ask<{
    member_id: string;
    tray_id: string;
    id: string;
    due: Date;
    what: Overdue["what"];
    text: string;
    about: string;
  }>(
    db,
    /* sql */ `
    select due.* from (
      select owner_id as member_id, tray_id, id, expected_at as due, 'reply' as what, '' as text,
        'overdue:' || id || ':' || extract(epoch from expected_at)::bigint as about
      from conversation
      where standing = 'waiting' and expected_at > :since and expected_at <= :now and owner_id is not null
      union all
      select for_member_id, tray_id, conversation_id, due_at, 'follow-up', text,
        'follow-up:' || id || ':' || extract(epoch from due_at)::bigint
      from follow_up where done_at is null and due_at > :since and due_at <= :now
    ) as due
      join member on member.id = due.member_id and member.disabled_at is null
    where not exists (select 1 from notification where notification.member_id = due.member_id
      and notification.about = due.about)
    order by due.due limit :limit`,
    { since: param(since), now: param(now), limit },
  );
  return found.map((row) => ({
    memberId: trustedId<MemberId>(row.member_id),
    trayId: trustedId<TrayId>(row.tray_id),
    conversationId: trustedId<ConversationId>(row.id),
    dueAt: at(row.due),
    what: row.what,
    text: row.text,
    about: row.about,
  }));
}
