import type { Docket } from "../../core/docket/derive-docket";
import { labelsOf } from "../../core/filing/lesson";
import type { ConversationId } from "../../core/kernel/ids";
import { paceOf } from "../../core/kernel/urgency";
import type { Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";
import { MOST_SEEN } from "./filing-due";

/** A docket as the columns of its conversation: what listing needs, nothing that listing does not. */
export function docketColumns(docket: Docket) {
  return {
    standing: docket.standing.kind,
    standing_since: param(docket.standing.since),
    standing_reason: JSON.stringify(docket.standing.reason),
    turn: docket.turn.kind,
    turn_since: docket.turn.kind === "nobody" ? null : param(docket.turn.since),
    owner_id: docket.ownerId,
    follower_ids: [...docket.followerIds],
    category_ids: [...docket.categoryIds],
    record_ids: [...docket.recordIds],
    expected_at: param(docket.expectedAt),
    expires_at: param(docket.expiresAt),
    resting_until: param(docket.restingUntil),
    woken_at: param(docket.wokenAt),
    follow_up_at: param(docket.followUpAt),
    urgency: paceOf(docket.urgency),
    marks: JSON.stringify(docket.marks),
  };
}

type Kept = { readonly id: ConversationId; readonly version: number; readonly docket: Docket };

/** Keeps what the facts of these conversations come to, each with its new version. */
export async function keepDockets(trx: Transaction, kept: readonly Kept[]): Promise<void> {
  if (kept.length === 0) return;
  await Promise.all([keepColumns(trx, kept), keepFollowUps(trx, kept), keepFiledParts(trx, kept)]);
}

async function keepColumns(trx: Transaction, kept: readonly Kept[]): Promise<void> {
  const rows = kept.map(({ id, version, docket }) => ({
    id,
    version,
    labels: labelsOf(docket),
    ...docketColumns(docket),
    standing_reason: docket.standing.reason,
    marks: docket.marks,
  }));
  await knexOf(trx).raw(
    /* sql */ `
    with changed as (
    update conversation set
      version = kept.version, standing = kept.standing, standing_since = kept.standing_since,
      standing_reason = kept.standing_reason, turn = kept.turn, turn_since = kept.turn_since, owner_id = kept.owner_id,
      follower_ids = kept.follower_ids, category_ids = kept.category_ids, record_ids = kept.record_ids, expected_at = kept.expected_at, expires_at = kept.expires_at,
      resting_until = kept.resting_until, woken_at = kept.woken_at, follow_up_at = kept.follow_up_at,
      urgency = kept.urgency, marks = kept.marks
    from jsonb_to_recordset(cast(:rows as jsonb)) as kept(
      id uuid, version int, standing text, standing_since timestamptz, standing_reason jsonb, turn text,
      turn_since timestamptz, owner_id uuid, follower_ids uuid[], category_ids uuid[], record_ids uuid[], expected_at timestamptz, expires_at timestamptz,
      resting_until timestamptz, woken_at timestamptz, follow_up_at timestamptz, urgency smallint, marks jsonb, labels text[])
    where conversation.id = kept.id
    returning conversation.id,
      coalesce((select labels from filing_lesson where conversation_id = conversation.id), '{}') <> kept.labels as learns
    )
    insert into filing_due (conversation_id, seen) select id, :seen from changed where learns`,
    { rows: JSON.stringify(rows), seen: kept.length <= MOST_SEEN },
  );
}

// The page of follow-ups asks for them by member and date, which no list of conversations can answer.
async function keepFollowUps(trx: Transaction, kept: readonly Kept[]): Promise<void> {
  const rows = kept.flatMap(({ id, docket }) =>
    docket.followUps.map((one) => ({
      id: one.id,
      conversation_id: id,
      for_member_id: one.forMember,
      set_by_member_id: one.setBy,
      due_at: param(one.dueAt),
      text: one.text,
      done_at: param(one.doneAt),
    })),
  );
  await knexOf(trx).raw(
    /* sql */ `
    with gone as (
      delete from follow_up where conversation_id = any(:ids)
        and id not in (select (one->>'id')::uuid from jsonb_array_elements(cast(:rows as jsonb)) as one)
    )
    insert into follow_up (id, tray_id, conversation_id, for_member_id, set_by_member_id, due_at, text, done_at)
    select one.id, conversation.tray_id, one.conversation_id, one.for_member_id, one.set_by_member_id, one.due_at,
      one.text, one.done_at
    from jsonb_to_recordset(cast(:rows as jsonb)) as one(id uuid, conversation_id uuid, for_member_id uuid,
      set_by_member_id uuid, due_at timestamptz, text text, done_at timestamptz)
      join conversation on conversation.id = one.conversation_id
    on conflict (id) do update set conversation_id = excluded.conversation_id, for_member_id = excluded.for_member_id,
      set_by_member_id = excluded.set_by_member_id, due_at = excluded.due_at, text = excluded.text,
      done_at = excluded.done_at`,
    { ids: kept.map(({ id }) => id), rows: JSON.stringify(rows) },
  );
}

// A record asks for them by itself, which no column of a conversation can answer.
async function keepFiledParts(trx: Transaction, kept: readonly Kept[]): Promise<void> {
  const rows = kept.flatMap(({ id, docket }) =>
    docket.filedParts.map(({ recordId, messageId, attachment, at, by, means, fields, earlier }) => ({
      record_id: recordId,
      message_id: messageId,
      attachment: attachment ?? -1,
      conversation_id: id,
      filed_at: param(at),
      by_member_id: by,
      means,
      fields,
      earlier,
    })),
  );
  await knexOf(trx).raw(
    /* sql */ `
    with now as (
      select * from jsonb_to_recordset(cast(:rows as jsonb)) as one(record_id uuid, message_id uuid, attachment int,
        conversation_id uuid, filed_at timestamptz, by_member_id uuid, means text, fields jsonb, earlier jsonb)
    ), gone as (
      delete from filed_part as part where conversation_id = any(:ids) and not exists (select 1 from now
        where now.record_id = part.record_id and now.message_id = part.message_id and now.attachment = part.attachment)
    )
    insert into filed_part (record_id, message_id, attachment, conversation_id, filed_at, by_member_id, means, fields, earlier)
    select record_id, message_id, attachment, conversation_id, filed_at, by_member_id, means, fields, earlier from now
    on conflict (record_id, message_id, attachment) do update set conversation_id = excluded.conversation_id,
      filed_at = excluded.filed_at, by_member_id = excluded.by_member_id, means = excluded.means, fields = excluded.fields,
      earlier = excluded.earlier`,
    { ids: kept.map(({ id }) => id), rows: JSON.stringify(rows) },
  );
}
