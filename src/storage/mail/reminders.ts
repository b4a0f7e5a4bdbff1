import {
  type ConversationId,
  type ExpectationId,
  type MemberId,
  type MessageId,
  type ReminderId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { ReminderLanguage, ReminderStyle, Tone } from "../../core/kernel/reminder-style";
import type { TrayGrant } from "../access/trays";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";

/** A reminder that is to go at its time, went, or was stopped with a reason. */
export type Reminder = {
  readonly id: ReminderId;
  readonly trayId: TrayId;
  readonly conversationId: ConversationId;
  readonly expectationId: ExpectationId;
  readonly sendAt: Instant;
  /** What it says; null where it is written when it goes, in a style. */
  readonly html: string | null;
  readonly style: ReminderStyle | null;
  readonly madeBy: MemberId;
  readonly state: "waiting" | "sent" | "stopped";
  readonly reason: string | null;
};

type Row = {
  id: string;
  tray_id: string;
  conversation_id: string;
  expectation_id: string;
  send_at: Date;
  html: string | null;
  tone: Tone | null;
  language: ReminderLanguage | null;
  made_by: string;
  state: Reminder["state"];
  reason: string | null;
};

function reminderOf(row: Row): Reminder {
  return {
    id: trustedId<ReminderId>(row.id),
    trayId: trustedId<TrayId>(row.tray_id),
    conversationId: trustedId<ConversationId>(row.conversation_id),
    expectationId: trustedId<ExpectationId>(row.expectation_id),
    sendAt: at(row.send_at),
    html: row.html,
    style: row.tone === null || row.language === null ? null : { tone: row.tone, language: row.language },
    madeBy: trustedId<MemberId>(row.made_by),
    state: row.state,
    reason: row.reason,
  };
}

/** Adds reminders, in place of those that wait for the same conversations. */
export async function addReminders(
  trx: Transaction,
  reminders: readonly Omit<Reminder, "state" | "reason">[],
  now: Instant,
): Promise<void> {
  if (reminders.length === 0) return;
  await knexOf(trx)("reminder")
    .whereIn("conversation_id", [...new Set(reminders.map(({ conversationId }) => conversationId))])
    .where("state", "waiting")
    .update({ state: "stopped", reason: "planned-anew" });
  await knexOf(trx)("reminder").insert(
    reminders.map(({ id, trayId, conversationId, expectationId, sendAt, html, style, madeBy }) => ({
      id,
      tray_id: trayId,
      conversation_id: conversationId,
      expectation_id: expectationId,
      html,
      tone: style?.tone ?? null,
      language: style?.language ?? null,
      made_by: madeBy,
      send_at: param(sendAt),
      made_at: param(now),
      state: "waiting",
    })),
  );
}

/** The reminders whose time has come, the oldest first. */
export async function dueReminders(db: Database, now: Instant, limit: number): Promise<Reminder[]> {
  const rows: Row[] = await knexOf(db)("reminder")
    .where("state", "waiting")
    .where("send_at", "<=", param(now))
    .orderBy("send_at")
    .limit(limit);
  return rows.map(reminderOf);
}

/** Holds a reminder that still waits, until the transaction ends; false when somebody else was faster. */
export async function lockReminder(trx: Transaction, id: ReminderId): Promise<boolean> {
  const row = await knexOf(trx)("reminder").first("id").where({ id, state: "waiting" }).forUpdate().skipLocked();
  return row !== undefined;
}

/** Says what became of a reminder. */
export async function endReminder(
  trx: Transaction,
  id: ReminderId,
  ended: { readonly messageId: MessageId } | { readonly reason: string },
): Promise<void> {
  await knexOf(trx)("reminder")
    .where({ id })
    .update(
      "messageId" in ended
        ? { state: "sent", message_id: ended.messageId }
        : { state: "stopped", reason: ended.reason },
    );
}

/** Puts a reminder off. */
export async function putOffReminder(trx: Transaction, id: ReminderId, until: Instant): Promise<void> {
  await knexOf(trx)("reminder")
    .where({ id })
    .update({ send_at: param(until) });
}

/** The reminders of conversations of a tray that are still to go, the next first. */
export async function remindersOf(db: Database, grant: TrayGrant, ids: readonly ConversationId[]): Promise<Reminder[]> {
  const rows: Row[] = await knexOf(db)("reminder")
    .where({ tray_id: grant.tray.id, state: "waiting" })
    .whereIn("conversation_id", ids)
    .orderBy("send_at");
  return rows.map(reminderOf);
}

/** Stops what is still to go for some conversations of a tray; gives how many reminders that were. */
export function stopReminders(db: Database, grant: TrayGrant, ids: readonly ConversationId[]): Promise<number> {
  return knexOf(db)("reminder")
    .where({ tray_id: grant.tray.id, state: "waiting" })
    .whereIn("conversation_id", ids)
    .update({ state: "stopped", reason: "by-hand" });
}

/** Stops what is still to go for some expectations, as it was taken back that they are reminded of. */
export async function takeBackReminders(trx: Transaction, ids: readonly ExpectationId[]): Promise<void> {
  if (ids.length === 0) return;
  await knexOf(trx)("reminder")
    .whereIn("expectation_id", ids)
    .where("state", "waiting")
    .update({ state: "stopped", reason: "undone" });
}
