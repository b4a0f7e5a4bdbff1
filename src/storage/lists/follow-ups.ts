import { type ConversationId, type FollowUpId, type MemberId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { StandingKind } from "../../core/standing/standing";
import type { TrayGrant } from "../access/trays";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { atOrNull } from "../base/rows";

/** A follow-up with the conversation that it is about. */
export type ListedFollowUp = {
  readonly id: FollowUpId;
  readonly conversationId: ConversationId;
  readonly forMember: MemberId;
  readonly setBy: MemberId | null;
  readonly dueAt: Instant | null;
  readonly text: string;
  readonly doneAt: Instant | null;
  readonly subject: string;
  readonly who: string;
  readonly standing: StandingKind;
};

const MAX_LISTED = 500;

/** The follow-ups of a tray, of one member or of all, open ones by date or the newest done ones. */
export async function followUpsOf(
  db: Database,
  grant: TrayGrant,
  { whose, isDone }: { readonly whose: MemberId | null; readonly isDone: boolean },
): Promise<ListedFollowUp[]> {
  const builder = knexOf(db);
  const query = builder("follow_up")
    .join("conversation", "conversation.id", "follow_up.conversation_id")
    .select(
      "follow_up.id",
      "conversation_id",
      "for_member_id",
      "set_by_member_id",
      "follow_up.due_at",
      "text",
      "done_at",
      "subject",
      "who",
      "standing",
    )
    .where("follow_up.tray_id", grant.tray.id)
    .limit(MAX_LISTED);
  if (whose !== null) query.where("for_member_id", whose);
  const rows = await (isDone
    ? query.whereNotNull("done_at").orderBy("done_at", "desc")
    : query.whereNull("done_at").orderByRaw("follow_up.due_at nulls last, follow_up.id"));
  return rows.map((row) => ({
    id: trustedId<FollowUpId>(row.id),
    conversationId: trustedId<ConversationId>(row.conversation_id),
    forMember: trustedId<MemberId>(row.for_member_id),
    setBy: row.set_by_member_id === null ? null : trustedId<MemberId>(row.set_by_member_id),
    dueAt: atOrNull(row.due_at),
    text: row.text,
    doneAt: atOrNull(row.done_at),
    subject: row.subject,
    who: row.who,
    standing: row.standing,
  }));
}
