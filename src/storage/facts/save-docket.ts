import type { Docket } from "../../core/docket/derive-docket";
import { labelsOf } from "../../core/filing/lesson";
import type { EffectKind } from "../../core/journal/entry";
import type { ConversationId } from "../../core/kernel/ids";
import { namesOf, rowOf, setFrom, typedNamesOf } from "../base/described";
import type { Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { DOCKET, FILED_PART, FOLLOW_UP } from "./docket-columns";
import { MOST_SEEN } from "./filing-due";

type Kept = { readonly id: ConversationId; readonly version: number; readonly docket: Docket };

/** Keeps what the facts of these conversations come to, each with its new version. */
export async function saveDockets(trx: Transaction, kept: readonly Kept[]): Promise<void> {
  if (kept.length === 0) return;
  await Promise.all([saveColumns(trx, kept), saveFollowUps(trx, kept), saveFiledParts(trx, kept)]);
}

// What changes rows beside a conversation's own.
const WITH_ROWS: ReadonlySet<EffectKind> = new Set<EffectKind>([
  "follow-up-set",
  "follow-up-done",
  "follow-up-cleared",
  "part-filed",
  "part-unfiled",
]);

/** The same after effects of these kinds: of what stands in rows of its own, only what they change is looked at. */
export async function saveDocketsAfter(
  trx: Transaction,
  kept: readonly Kept[],
  kinds: readonly EffectKind[],
): Promise<void> {
  if (kinds.some((kind) => WITH_ROWS.has(kind))) await saveDockets(trx, kept);
  else if (kept.length > 0) await saveColumns(trx, kept);
}

async function saveColumns(trx: Transaction, kept: readonly Kept[]): Promise<void> {
  const rows = kept.map(({ id, version, docket }) => ({
    id,
    version,
    labels: labelsOf(docket),
    ...rowOf(DOCKET, docket),
  }));
  await knexOf(trx).raw(
    /* sql */ `
    with changed as (
    update conversation set version = kept.version, ${setFrom(DOCKET, "kept")}
    from jsonb_to_recordset(cast(:rows as jsonb)) as kept(id uuid, version int, labels text[], ${typedNamesOf(DOCKET)})
    where conversation.id = kept.id
    returning conversation.id,
      coalesce((select labels from filing_lesson where conversation_id = conversation.id), '{}') <> kept.labels as learns
    )
    insert into filing_due (conversation_id, seen) select id, :seen from changed where learns`,
    { rows: JSON.stringify(rows), seen: kept.length <= MOST_SEEN },
  );
}

async function saveFollowUps(trx: Transaction, kept: readonly Kept[]): Promise<void> {
  const rows = kept.flatMap(({ id, docket }) =>
    docket.followUps.map((one) => ({ conversation_id: id, ...rowOf(FOLLOW_UP, one) })),
  );
  const own = namesOf(FOLLOW_UP);
  await knexOf(trx).raw(
    /* sql */ `
    with now as (
      select * from jsonb_to_recordset(cast(:rows as jsonb)) as one(conversation_id uuid, ${typedNamesOf(FOLLOW_UP)})
    ), gone as (
      delete from follow_up where conversation_id = any(:ids) and id not in (select id from now)
    )
    insert into follow_up (tray_id, conversation_id, ${own})
    select conversation.tray_id, now.conversation_id, ${own.replaceAll(/\w+/g, "now.$&")}
    from now join conversation on conversation.id = now.conversation_id
    on conflict (id) do update set conversation_id = excluded.conversation_id, ${setFrom(FOLLOW_UP, "excluded")}`,
    { ids: kept.map(({ id }) => id), rows: JSON.stringify(rows) },
  );
}

async function saveFiledParts(trx: Transaction, kept: readonly Kept[]): Promise<void> {
  const rows = kept.flatMap(({ id, docket }) =>
    docket.filedParts.map((part) => ({ conversation_id: id, ...rowOf(FILED_PART, part) })),
  );
  const own = namesOf(FILED_PART);
  await knexOf(trx).raw(
    /* sql */ `
    with now as (
      select * from jsonb_to_recordset(cast(:rows as jsonb)) as one(conversation_id uuid, ${typedNamesOf(FILED_PART)})
    ), gone as (
      delete from filed_part as part where conversation_id = any(:ids) and not exists (select 1 from now
        where now.record_id = part.record_id and now.message_id = part.message_id and now.attachment = part.attachment)
    )
    insert into filed_part (conversation_id, ${own}) select conversation_id, ${own} from now
    on conflict (record_id, message_id, attachment) do update set conversation_id = excluded.conversation_id,
      ${setFrom(FILED_PART, "excluded")}`,
    { ids: kept.map(({ id }) => id), rows: JSON.stringify(rows) },
  );
}
