import {
  type ConversationId,
  type MemberId,
  type RecordId,
  type RuleId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import { HOUR, type Instant, later } from "../../core/kernel/instant";
import type { Bounds } from "../../core/rules/bounds";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { param } from "../base/rows";

type Page = { readonly now: Instant; readonly after: ConversationId | null; readonly limit: number };

/** The open conversations of a tray within some bounds, by their ids, after one where it is given. */
export async function openWithin(
  db: Database,
  trayId: TrayId,
  { standings, standingFor, age, isDue }: Bounds,
  { now, after, limit }: Page,
): Promise<ConversationId[]> {
  const open = ["to-sort", "our-move", "waiting", "resting"].filter((kind) =>
    [...standings].some((one) => one === kind),
  );
  const found = await ask<{ id: string }>(
    db,
    /* sql */ `
    select id from conversation as c
    where tray_id = :trayId and standing = any(:open) and standing in ('to-sort', 'our-move', 'waiting', 'resting')
      and joined_to is null and standing_since <= :stoodBefore and created_at <= :begunBefore
      ${isDue ? "and coalesce(c.expected_at, c.follow_up_at, c.expires_at) is not null" : ""}
      ${after === null ? "" : "and id > cast(:after as uuid)"}
    order by id limit :limit`,
    {
      trayId,
      open,
      stoodBefore: param(later(now, -standingFor * HOUR)),
      begunBefore: param(later(now, -age * HOUR)),
      limit,
      ...(after === null ? {} : { after }),
    },
  );
  return found.map(({ id }) => trustedId<ConversationId>(id));
}

/** Those of some conversations on which a rule acted since they stand where they do, also where that was taken back. */
export async function actedOnSince(
  db: Database,
  rule: RuleId,
  ids: readonly ConversationId[],
): Promise<ReadonlySet<ConversationId>> {
  if (ids.length === 0) return new Set();
  const found = await ask<{ id: string }>(
    db,
    /* sql */ `
    select c.id from conversation as c
    where c.id = any(cast(:ids as uuid[])) and exists (
      select 1 from journal where journal.conversation_id = c.id and rule is not null and rule->>'id' = :rule
        and journal.at >= c.standing_since)`,
    { ids: [...ids], rule },
  );
  return new Set(found.map(({ id }) => trustedId<ConversationId>(id)));
}

/** Who had the newest other matter of the same person, and of a record that it is on or (`filed`) is to be on, by conversation. */
export async function ownersBefore(
  db: Database,
  trayId: TrayId,
  ids: readonly ConversationId[],
  filed: readonly RecordId[],
): Promise<ReadonlyMap<ConversationId, { readonly person: MemberId | null; readonly record: MemberId | null }>> {
  const found = await ask<{ id: string; person: MemberId | null; record: MemberId | null }>(
    db,
    /* sql */ `
    select c.id,
      (select other.owner_id from conversation as other
        where other.tray_id = c.tray_id and other.who_address = c.who_address and other.owner_id is not null
          and other.id <> c.id and other.joined_to is null
        order by other.last_message_at desc limit 1) as person,
      (select other.owner_id from conversation as other
        where other.tray_id = c.tray_id and other.record_ids && (c.record_ids || cast(:filed as uuid[])) and other.owner_id is not null
          and other.id <> c.id and other.joined_to is null
        order by other.last_message_at desc limit 1) as record
    from conversation as c where c.tray_id = :trayId and c.id = any(cast(:ids as uuid[]))`,
    { trayId, ids: [...ids], filed: [...filed] },
  );
  return new Map(found.map(({ id, person, record }) => [trustedId<ConversationId>(id), { person, record }]));
}
