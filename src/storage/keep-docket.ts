import type { Docket } from "../core/docket/derive-docket";
import type { ConversationId } from "../core/kernel/ids";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { param } from "./rows";

/** A docket as the columns of its conversation: what listing needs, nothing that listing does not. */
export function docketColumns(docket: Docket) {
  return {
    standing: docket.standing.kind,
    standing_since: param(docket.standing.since),
    standing_reason: JSON.stringify(docket.standing.reason),
    turn: docket.turn.kind,
    turn_since: docket.turn.kind === "nobody" ? null : param(docket.turn.since),
    owner_id: docket.ownerId,
    category_ids: [...docket.categoryIds],
    record_ids: [...docket.recordIds],
    expected_at: param(docket.expectedAt),
    resting_until: param(docket.restingUntil),
    marks: JSON.stringify(docket.marks),
  };
}

/** Keeps what the facts of these conversations come to, each with its new version, in one statement. */
export async function keepDockets(
  trx: Database,
  kept: readonly { id: ConversationId; version: number; docket: Docket }[],
): Promise<void> {
  if (kept.length === 0) return;
  const rows = kept.map(({ id, version, docket }) => ({
    id,
    version,
    ...docketColumns(docket),
    standing_reason: docket.standing.reason,
    marks: docket.marks,
  }));
  await knexOf(trx).raw(
    /* sql */ `
    update conversation set
      version = kept.version, standing = kept.standing, standing_since = kept.standing_since,
      standing_reason = kept.standing_reason, turn = kept.turn, turn_since = kept.turn_since, owner_id = kept.owner_id,
      category_ids = kept.category_ids, record_ids = kept.record_ids, expected_at = kept.expected_at,
      resting_until = kept.resting_until, marks = kept.marks
    from jsonb_to_recordset(?::jsonb) as kept(
      id uuid, version int, standing text, standing_since timestamptz, standing_reason jsonb, turn text,
      turn_since timestamptz, owner_id uuid, category_ids uuid[], record_ids uuid[], expected_at timestamptz,
      resting_until timestamptz, marks jsonb)
    where conversation.id = kept.id`,
    [JSON.stringify(rows)],
  );
}
