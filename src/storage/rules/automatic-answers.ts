import type {
  AnswerPace,
  AnswerText,
  AnswerTrigger,
  AutomaticAnswer,
} from "../../core/automatic-answers/automatic-answer";
import type { SentAnswer } from "../../core/automatic-answers/choose-answer";
import type { EmailAddress } from "../../core/kernel/email-address";
import {
  type AutomaticAnswerId,
  type ConversationId,
  type MemberId,
  type MessageId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, atOrNull, param } from "../base/rows";

/** An automatic answer and its tray. */
export type KeptAnswer = AutomaticAnswer & { readonly trayId: TrayId };

type Row = {
  id: string;
  tray_id: string;
  name: string;
  is_on: boolean;
  starts_at: Date | null;
  ends_at: Date | null;
  trigger: AnswerTrigger;
  texts: AnswerText[];
  pace: AnswerPace;
};

const answerOf = (row: Row): KeptAnswer => ({
  id: trustedId<AutomaticAnswerId>(row.id),
  trayId: trustedId<TrayId>(row.tray_id),
  name: row.name,
  isOn: row.is_on,
  from: atOrNull(row.starts_at),
  until: atOrNull(row.ends_at),
  trigger: row.trigger,
  texts: row.texts,
  pace: row.pace,
});

/** The automatic answers of all trays in the order in which they were made, which is the one in which they are asked. */
export async function allAnswers(db: Database): Promise<KeptAnswer[]> {
  const rows: Row[] = await knexOf(db)("automatic_answer").whereNull("removed_at").orderBy("created_at").orderBy("id");
  return rows.map(answerOf);
}

/** The automatic answers of a tray, in their order. */
export async function answersOf(db: Database, trayId: TrayId): Promise<KeptAnswer[]> {
  return (await allAnswers(db)).filter((answer) => answer.trayId === trayId);
}

/** Keeps an automatic answer as it is now: a new one after all others. */
export async function saveAnswer(trx: Transaction, answer: KeptAnswer, now: Instant): Promise<void> {
  const columns = {
    name: answer.name,
    is_on: answer.isOn,
    starts_at: param(answer.from),
    ends_at: param(answer.until),
    trigger: JSON.stringify(answer.trigger),
    texts: JSON.stringify(answer.texts),
    pace: JSON.stringify(answer.pace),
  };
  await knexOf(trx)("automatic_answer")
    .insert({ id: answer.id, tray_id: answer.trayId, created_at: param(now), ...columns })
    .onConflict("id")
    .merge(columns);
}

/** Takes an automatic answer away (`removedAt`), or brings it back (null). False when the tray has none of this id. */
export async function removeAnswer(
  db: Database,
  trayId: TrayId,
  id: AutomaticAnswerId,
  removedAt: Instant | null,
): Promise<boolean> {
  const found = await knexOf(db)("automatic_answer")
    .where({ id, tray_id: trayId })
    .update({ removed_at: param(removedAt) });
  return found === 1;
}

/** Lets one message of a person be answered at a time, until the transaction ends: two that look at once both see none before. */
export async function lockAnswersTo(trx: Transaction, trayId: TrayId, person: EmailAddress): Promise<void> {
  await knexOf(trx).raw("select pg_advisory_xact_lock(hashtextextended(?, 0))", [
    `automatic answers ${trayId} ${person}`,
  ]);
}

/** What went to some people by itself since a moment, by person. */
export async function answersSentTo(
  db: Database,
  trayId: TrayId,
  person: EmailAddress,
  since: Instant,
): Promise<SentAnswer[]> {
  const rows = await knexOf(db)("automatic_answer_sent")
    .select("answer_id", "sent_at")
    .where({ tray_id: trayId, person })
    .where("sent_at", ">", param(since));
  return rows.map((row) => ({ answerId: trustedId<AutomaticAnswerId>(row.answer_id), at: at(row.sent_at) }));
}

/** Remembers that an answer went to somebody. */
export async function noteAnswerSent(
  trx: Transaction,
  trayId: TrayId,
  person: EmailAddress,
  { answerId, at: sentAt }: SentAnswer,
  messageId: MessageId,
): Promise<void> {
  await knexOf(trx)("automatic_answer_sent").insert({
    tray_id: trayId,
    person,
    sent_at: param(sentAt),
    answer_id: answerId,
    message_id: messageId,
  });
}

/** Forgets what went before a moment. */
export async function forgetAnswersSent(db: Database, before: Instant): Promise<void> {
  await knexOf(db)("automatic_answer_sent").where("sent_at", "<", param(before)).delete();
}

/** How many went by each automatic answer of a tray since a moment. */
export async function countAnswersSent(
  db: Database,
  trayId: TrayId,
  since: Instant,
): Promise<ReadonlyMap<AutomaticAnswerId, number>> {
  const rows = await ask<{ answer_id: string; count: number }>(
    db,
    /* sql */ `
    select answer_id, count(*)::int as count from automatic_answer_sent
    where tray_id = :trayId and sent_at > :since group by answer_id`,
    { trayId, since: param(since) as Date },
  );
  return new Map(rows.map(({ answer_id: id, count }) => [trustedId<AutomaticAnswerId>(id), count]));
}

/** Whether one of some Message-IDs is of a message that the tray sent by itself. */
export async function areOfAnswers(db: Database, trayId: TrayId, messageIds: readonly string[]): Promise<boolean> {
  if (messageIds.length === 0) return false;
  const rows = await ask<{ is: boolean }>(
    db,
    /* sql */ `
    select exists (select 1 from message join automatic_answer_sent as sent on sent.message_id = message.id
      where message.tray_id = :trayId and message.message_id = any(:messageIds)) as is`,
    { trayId, messageIds: [...messageIds] },
  );
  return rows[0]?.is === true;
}

/** Whose the newest conversation with somebody is that has an owner; null where there is none. */
export async function newestOwnerWith(
  db: Database,
  trayId: TrayId,
  person: EmailAddress,
  except: ConversationId,
): Promise<MemberId | null> {
  const rows = await ask<{ owner_id: string }>(
    db,
    /* sql */ `
    select owner_id from conversation
    where tray_id = :trayId and who_address = :person and owner_id is not null and id <> :except and joined_to is null
    order by last_message_at desc limit 1`,
    { trayId, person, except },
  );
  return rows[0] === undefined ? null : trustedId<MemberId>(rows[0].owner_id);
}
