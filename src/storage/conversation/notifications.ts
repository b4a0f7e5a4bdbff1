import { type ConversationId, type MemberId, type NotificationId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { NotificationEvent } from "../../core/notifications/events";
import type { Sayable } from "../../texts/said";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { runPrepared } from "../base/prepared";
import { at, param } from "../base/rows";

/** Something that a member is told. */
export type Notification = {
  readonly id: NotificationId;
  readonly memberId: MemberId;
  readonly trayId: TrayId;
  /** Null where it tells of several conversations or of none. */
  readonly conversationId: ConversationId | null;
  readonly at: Instant;
  readonly event: NotificationEvent;
  readonly by: MemberId | null;
  /** How many conversations it tells of. */
  readonly count: number;
  /** Words of somebody: the sentence that names them, who wrote, what was overdue; or figures, to be said when they are read. */
  readonly words: Sayable;
  readonly isRead: boolean;
};

/** One to be kept; of the same `about` and member there is one, which then tells of more. */
export type NewNotification = Omit<Notification, "isRead"> & { readonly about: string };

/** Keeps what members are told. What is told again of the same batch adds to its count. */
export async function addNotifications(trx: Database, all: readonly NewNotification[]): Promise<void> {
  if (all.length === 0) return;
  const rows = all.map((one) => ({
    id: one.id,
    member_id: one.memberId,
    tray_id: one.trayId,
    conversation_id: one.conversationId,
    at: param(one.at),
    event: one.event,
    by_member_id: one.by,
    detail: { count: one.count, words: one.words },
    about: one.about,
  }));
  await knexOf(trx).raw(
    /* sql */ `
    insert into notification (id, member_id, tray_id, conversation_id, at, event, by_member_id, detail, about)
    select id, member_id, tray_id, conversation_id, at, event, by_member_id, detail, about
    from jsonb_to_recordset(cast(:rows as jsonb)) as new(id uuid, member_id uuid, tray_id uuid, conversation_id uuid,
      at timestamptz, event text, by_member_id uuid, detail jsonb, about text)
    on conflict (member_id, about) do update set conversation_id = null,
      detail = jsonb_set(notification.detail, '{count}',
        to_jsonb((notification.detail->>'count')::int + (excluded.detail->>'count')::int))
      where notification.event = 'assigned'`,
    { rows: JSON.stringify(rows) },
  );
}

type Row = {
  id: string;
  member_id: string;
  tray_id: string;
  conversation_id: string | null;
  at: Date;
  event: NotificationEvent;
  by_member_id: string | null;
  detail: { count: number; words: Sayable };
  read_at: Date | null;
};

function notificationOf(row: Row): Notification {
  return {
    id: trustedId<NotificationId>(row.id),
    memberId: trustedId<MemberId>(row.member_id),
    trayId: trustedId<TrayId>(row.tray_id),
    conversationId: row.conversation_id === null ? null : trustedId<ConversationId>(row.conversation_id),
    at: at(row.at),
    event: row.event,
    by: row.by_member_id === null ? null : trustedId<MemberId>(row.by_member_id),
    ...row.detail,
    isRead: row.read_at !== null,
  };
}

/** A notification with the subject of its conversation and where that stands. */
export type ListedNotification = Notification & { readonly subject: string | null; readonly standing: string | null };

/** The newest notifications of a member in a tray, of these events. */
export async function notificationsOf(
  db: Database,
  memberId: MemberId,
  trayId: TrayId,
  events: readonly NotificationEvent[],
  limit: number,
): Promise<ListedNotification[]> {
  const rows: (Row & { subject: string | null; standing: string | null })[] = await knexOf(db)("notification")
    .leftJoin("conversation as told", "told.id", "notification.conversation_id")
    // What became a part of another conversation is found there.
    .leftJoin("conversation", (on) => on.on("conversation.id", knexOf(db).raw("coalesce(told.joined_to, told.id)")))
    .select("notification.*", "conversation.id as conversation_id", "conversation.subject", "conversation.standing")
    .where({ member_id: memberId, "notification.tray_id": trayId })
    .whereIn("event", events)
    .orderBy("at", "desc")
    .orderBy("notification.id", "desc")
    .limit(limit);
  return rows.map((row) => ({ ...notificationOf(row), subject: row.subject, standing: row.standing }));
}

/** How many notifications of these events a member has not read in a tray, and the newest of them since a moment. */
export async function unreadNotifications(
  db: Database,
  memberId: MemberId,
  trayId: TrayId,
  events: readonly NotificationEvent[],
): Promise<{ readonly count: number; readonly newest: Notification | null }> {
  const [newest] = await runPrepared<Row & { total: string }>(
    db,
    /* sql */ `
    select id, member_id, tray_id, conversation_id, at, event, by_member_id, detail, read_at,
      count(*) over () as total from notification
    where member_id = :memberId and tray_id = :trayId and read_at is null and event = any(:events)
    order by at desc limit 1`,
    { memberId, trayId, events: [...events] },
  );
  return newest === undefined
    ? { count: 0, newest: null }
    : { count: Number(newest.total), newest: notificationOf(newest) };
}

/** Marks notifications of a member as read: of one conversation, one by its id, or all in a tray. */
export async function markNotificationsRead(
  db: Database,
  memberId: MemberId,
  which: { readonly trayId: TrayId } & (
    | { readonly conversationId: ConversationId }
    | { readonly id: NotificationId }
    | { readonly all: true }
  ),
  now: Instant,
): Promise<void> {
  const unread = knexOf(db)("notification").where({ member_id: memberId, tray_id: which.trayId, read_at: null });
  if ("conversationId" in which) unread.where("conversation_id", which.conversationId);
  if ("id" in which) unread.where("id", which.id);
  await unread.update({ read_at: param(now) });
}

/** Marks as read what a member was told up to a moment. */
export async function markNotificationsReadUpTo(db: Database, memberId: MemberId, upTo: Instant): Promise<void> {
  await knexOf(db)("notification")
    .where({ member_id: memberId, read_at: null })
    .where("at", "<=", param(upTo))
    .update({ read_at: param(upTo) });
}
