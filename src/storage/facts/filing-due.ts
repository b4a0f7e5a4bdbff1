import { type Label, labelsOf } from "../../core/filing/lesson";
import {
  type CategoryId,
  type ConversationId,
  type MemberId,
  type RecordId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import type { Reason, StandingKind } from "../../core/standing/standing";
import type { Mark } from "../../core/turn-line/marks";
import { ask } from "../base/ask";
import type { Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";

/** Of what more conversations are decided about at once, nothing is learned about proposals: nobody saw them. */
export const MOST_SEEN = 20;

/** A conversation whose decisions are no longer what they were counted as. */
export type Due = {
  readonly id: ConversationId;
  readonly trayId: TrayId;
  readonly labels: readonly Label[];
  /** True when nothing more is likely to be decided: what was not given by now was not to be proposed. */
  readonly isOver: boolean;
  /** Whether somebody may have seen what was proposed for it. */
  readonly seen: boolean;
};

type DecidedRow = {
  id: string;
  tray_id: string;
  owner_id: string | null;
  category_ids: CategoryId[];
  record_ids: RecordId[];
  standing: StandingKind;
  standing_reason: Reason;
  marks: Mark[];
  seen: boolean;
};

/** The letters of these conversations may be others now, or are understood otherwise: what was learned from them is learned anew. */
export async function lettersChanged(trx: Transaction, ids: readonly ConversationId[]): Promise<void> {
  await knexOf(trx).raw(
    /* sql */ `
    insert into filing_due (conversation_id, seen)
    select conversation_id, false from filing_lesson where conversation_id = any(:ids)`,
    { ids: [...ids] },
  );
}

/** What is due first, each conversation once; it is due no longer. */
export async function takeDue(trx: Transaction, most: number): Promise<Due[]> {
  const found = await ask<DecidedRow>(
    trx,
    /* sql */ `
    with taken as (
      delete from filing_due where id = any(array(select id from filing_due order by id limit :most))
      returning id, conversation_id, seen
    )
    select conversation.id, conversation.tray_id, owner_id, category_ids, record_ids, standing, standing_reason, marks,
      bool_or(seen) as seen
    from taken join conversation on conversation.id = conversation_id
    group by conversation.id order by min(taken.id)`,
    { most },
  );
  return found.map(dueOf);
}

function dueOf(row: DecidedRow): Due {
  const labels = labelsOf({
    ownerId: row.owner_id === null ? null : trustedId<MemberId>(row.owner_id),
    categoryIds: row.category_ids,
    recordIds: row.record_ids,
    standing: { kind: row.standing, reason: row.standing_reason },
    marks: row.marks,
  });
  const isOver = row.standing === "settled";
  return { id: trustedId(row.id), trayId: trustedId(row.tray_id), labels, isOver, seen: row.seen };
}
