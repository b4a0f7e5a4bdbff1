import { type ConversationId, type RoundId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Round } from "../../core/rounds/round";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";

type RoundRow = { id: string; name: string; times: number[] };

const roundOf = ({ id, name, times }: RoundRow): Round => ({ id: trustedId<RoundId>(id), name, times });

/** The rounds of a tray by their names. */
export async function roundsOf(db: Database, trayId: TrayId): Promise<Round[]> {
  const rows: RoundRow[] = await knexOf(db)("round")
    .select("id", "name", "times")
    .where({ tray_id: trayId })
    .whereNull("removed_at")
    .orderByRaw("lower(name)");
  return rows.map(roundOf);
}

/** Rounds of a tray by their ids, those that are no more too. */
export async function roundsByIds(db: Database, trayId: TrayId, ids: readonly RoundId[]): Promise<Round[]> {
  if (ids.length === 0) return [];
  const rows: RoundRow[] = await knexOf(db)("round")
    .select("id", "name", "times")
    .where({ tray_id: trayId })
    .whereIn("id", [...ids]);
  return rows.map(roundOf);
}

/** Keeps a round as it is now. */
export async function saveRound(trx: Transaction, trayId: TrayId, { id, name, times }: Round): Promise<void> {
  const columns = { name, times: [...times] };
  await knexOf(trx)("round")
    .insert({ id, tray_id: trayId, ...columns })
    .onConflict("id")
    .merge(columns);
}

/** Takes a round away (`at`), or brings it back (null). False when the tray has none of this id. */
export async function removeRound(db: Database, trayId: TrayId, id: RoundId, at: Instant | null): Promise<boolean> {
  const found = await knexOf(db)("round")
    .where({ id, tray_id: trayId })
    .update({ removed_at: param(at) });
  return found === 1;
}

/** How many conversations of a tray are held for each round. */
export async function heldCounts(db: Database, grant: TrayGrant): Promise<ReadonlyMap<RoundId, number>> {
  const rows = await ask<{ held_for: string; count: number }>(
    db,
    /* sql */ `
    select held_for, count(*)::int as count from conversation
    where tray_id = :trayId and standing = 'held' group by held_for`,
    { trayId: grant.tray.id },
  );
  return new Map(rows.map(({ held_for: id, count }) => [trustedId<RoundId>(id), count]));
}

/** A round of whichever tray for which something is held, and since when the first of it. */
export type RoundHolding = {
  readonly trayId: TrayId;
  readonly round: Round;
  readonly isRemoved: boolean;
  readonly since: Instant;
};

/** The rounds for which something is held. */
export async function roundsHolding(db: Database): Promise<RoundHolding[]> {
  const rows = await ask<RoundRow & { tray_id: string; is_removed: boolean; since: Date }>(
    db,
    /* sql */ `
    select round.id, round.name, round.times, round.tray_id, removed_at is not null as is_removed, since
    from round join (select held_for, min(standing_since) as since from conversation
      where standing = 'held' group by held_for) as held on held.held_for = round.id`,
    {},
  );
  return rows.map((row) => ({
    trayId: trustedId<TrayId>(row.tray_id),
    round: roundOf(row),
    isRemoved: row.is_removed,
    since: at(row.since),
  }));
}

/** What is held for a round, and has been since a moment or before; the longest held first. */
export async function heldFor(
  db: Database,
  trayId: TrayId,
  id: RoundId,
  until: Instant,
  limit: number,
): Promise<ConversationId[]> {
  const rows = await knexOf(db)("conversation")
    .select("id")
    .where({ tray_id: trayId, held_for: id, standing: "held" })
    .where("standing_since", "<=", param(until))
    .orderBy("standing_since")
    .orderBy("id")
    .limit(limit);
  return rows.map((row) => trustedId<ConversationId>(row.id));
}
