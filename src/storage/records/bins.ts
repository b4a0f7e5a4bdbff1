import { type ConversationId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Tray, TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { atOrNull, param } from "../base/rows";

/** After how many days a tray's bin is emptied of what lies in it; null when never. */
export async function binDaysOf(db: Database, tray: Tray): Promise<number | null> {
  const row: { bin_days: number | null } | undefined = await knexOf(db)("tray").first("bin_days").where("id", tray.id);
  return row?.bin_days ?? null;
}

/** Sets it. */
export async function setBinDays(db: Database, tray: Tray, days: number | null): Promise<void> {
  await knexOf(db)("tray").update({ bin_days: days }).where("id", tray.id);
}

/** After how many days what was called junk goes from a tray; null when never. */
export async function junkDaysOf(db: Database, tray: Tray): Promise<number | null> {
  const row: { junk_days: number | null } | undefined = await knexOf(db)("tray")
    .first("junk_days")
    .where("id", tray.id);
  return row?.junk_days ?? null;
}

/** Sets it. */
export async function setJunkDays(db: Database, tray: Tray, days: number | null): Promise<void> {
  await knexOf(db)("tray").update({ junk_days: days }).where("id", tray.id);
}

// What stays in the bin however long: what belongs to a record, is to be followed up, or has mail on its way.
const STAYS = /* sql */ `(c.record_ids <> '{}' or exists (select 1 from filed_part where conversation_id = c.id) or c.follow_up_at is not null
  or exists (select 1 from follow_up where follow_up.conversation_id = c.id and done_at is null)
  or exists (select 1 from message where message.conversation_id = c.id and delivery in ('waiting', 'going')))`;

/** What a tray's bin holds and how it is used. */
export type BinUse = {
  /** Conversations that will be deleted at the end of their term. */
  readonly goes: number;
  /** Conversations that stay whatever the term: filed, to be followed up, or with mail on its way. */
  readonly stays: number;
  /** When the one that goes next was put in; null when none goes. */
  readonly nextSince: Instant | null;
  /** Conversations that were brought back from it, or answered while in it, since a moment. */
  readonly takenBack: number;
};

/** How the bin of a tray is used. `since` is how far back one looks for what was taken out of it. */
export async function binUse(db: Database, grant: TrayGrant, since: Instant): Promise<BinUse> {
  const found = await ask<{ goes: number; stays: number; next_since: Date | null; taken_back: number }>(
    db,
    /* sql */ `
    with lies as (
      select standing_since, ${STAYS} as stays from conversation as c where tray_id = :trayId and standing = 'bin'
    ), taken as (
      select conversation_id from journal as entry
      where tray_id = :trayId and at >= :since and kind = 'restored'
        and exists (select 1 from journal as binned where binned.conversation_id = entry.conversation_id
          and binned.kind = 'binned' and binned.version < entry.version)
      union
      select message.conversation_id from message
        join lateral (select kind from journal where journal.conversation_id = message.conversation_id
          and journal.version < message.version and kind in ('binned', 'restored', 'settled', 'kept', 'junked', 'rested')
          and undoes is null order by version desc limit 1) as last on last.kind = 'binned'
      where message.tray_id = :trayId and direction = 'out' and author_id is not null and received_at >= :since
    )
    select (select count(*) filter (where not stays)::int from lies) as goes,
      (select count(*) filter (where stays)::int from lies) as stays,
      (select min(standing_since) filter (where not stays) from lies) as next_since,
      (select count(*)::int from taken) as taken_back`,
    { trayId: grant.tray.id, since: param(since) as Date },
  );
  const row = found[0];
  return {
    goes: row?.goes ?? 0,
    stays: row?.stays ?? 0,
    nextSince: atOrNull(row?.next_since ?? null),
    takenBack: row?.taken_back ?? 0,
  };
}

const TOO_LONG = /* sql */ `
  select c.id, c.tray_id from conversation as c join tray on tray.id = c.tray_id
  where ((c.standing = 'bin' and c.standing_since < cast(:now as timestamptz) - make_interval(days => tray.bin_days))
      or (c.standing = 'junk' and c.standing_since < cast(:now as timestamptz) - make_interval(days => tray.junk_days)))
    and not ${STAYS}
  order by c.standing_since limit :limit`;

/** Whether anything has lain in the bin of its tray, or as junk, for longer than its term. */
export async function isBinOverdue(db: Database, now: Instant): Promise<boolean> {
  const found = await ask<unknown>(db, TOO_LONG, { now: param(now) as Date, limit: 1 });
  return found.length > 0;
}

/**
 * Conversations that have lain in the bin of their tray, or as junk, for longer than its term, held for deleting, the oldest
 * first. As what somebody else holds is left out, nobody waits for each other.
 */
export async function lockBinnedTooLong(
  trx: Transaction,
  now: Instant,
  limit: number,
): Promise<{ id: ConversationId; trayId: TrayId }[]> {
  const found = await ask<{ id: string; tray_id: string }>(trx, `${TOO_LONG} for update of c skip locked`, {
    now: param(now) as Date,
    limit,
  });
  return found.map((row) => ({
    id: trustedId<ConversationId>(row.id),
    trayId: trustedId<TrayId>(row.tray_id),
  }));
}

// In this order no row is pointed at by another when it goes.
const OF_MESSAGES = [
  "attachment_words",
  "message_search",
  "message_text",
  "arrival_route",
  "outgoing_recipient",
] as const;
const OF_CONVERSATIONS = ["message", "thread_link", "journal", "reading", "follow_up"] as const;

/**
 * Deletes conversations that `holdBinnedTooLong` holds for good, with what was joined to them, their messages and their
 * journals, and what nothing else needs of the bytes.
 */
export async function deleteConversations(
  trx: Transaction,
  ids: readonly ConversationId[],
  now: Instant,
): Promise<void> {
  const builder = knexOf(trx);
  const whole: { rows: { id: string }[] } = await builder.raw(
    /* sql */ `
    with recursive whole as (
      select id from conversation where id = any(:ids)
      union
      select conversation.id from conversation join whole on conversation.joined_to = whole.id
    ) select id from whole`,
    { ids: [...ids] },
  );
  const all = whole.rows.map(({ id }) => id);
  const messages: { id: string; raw_sha256: Buffer }[] = await builder("message")
    .select("id", "raw_sha256")
    .whereIn("conversation_id", all);
  const messageIds = messages.map(({ id }) => id);
  for (const table of OF_MESSAGES) await builder(table).whereIn("message_id", messageIds).delete();
  for (const table of OF_CONVERSATIONS) await builder(table).whereIn("conversation_id", all).delete();
  await builder("conversation").whereIn("id", all).delete();
  const sums = messages.map(({ raw_sha256 }) => raw_sha256);
  await deleteUnusedBlobs(trx, sums, now);
}

// Bytes are needed as a message, as a document of a record, for a message that is being written, or as a part of others.
const DELETE_UNUSED = /* sql */ `
  delete from blob where sha256 = any(:sums)
    and not exists (select 1 from message where raw_sha256 = blob.sha256)
    and not exists (select 1 from record_document where record_document.sha256 = blob.sha256)
    and not exists (select 1 from enclosure where enclosure.sha256 = blob.sha256)
    and not exists (select 1 from blob as whole where whole.runs is not null
      and whole.runs @> jsonb_build_array(jsonb_build_object('sha256', encode(blob.sha256, 'hex'))))
  returning runs`;

/**
 * Deletes of these blobs, and of the runs that were cut out of them, what nothing needs. Those that somebody stores at this
 * moment are passed over, so that no delivery waits, and looked at again by `sweepBlobs`.
 */
export async function deleteUnusedBlobs(trx: Transaction, sums: readonly Buffer[], now: Instant): Promise<void> {
  for (let next = sums; next.length > 0; ) {
    const held = await lockBlobs(trx, next, now);
    // A statement of its own, which sees what was committed before the rows were held.
    const gone = await ask<{ runs: { sha256: string }[] | null }>(trx, DELETE_UNUSED, {
      sums: held,
    });
    const parts = new Set(gone.flatMap(({ runs }) => (runs ?? []).map(({ sha256 }) => sha256)));
    next = [...parts].map((part) => Buffer.from(part, "hex"));
  }
}

async function lockBlobs(trx: Transaction, sums: readonly Buffer[], now: Instant): Promise<Buffer[]> {
  const rows: { sha256: Buffer }[] = await knexOf(trx)("blob")
    .select("sha256")
    .whereIn("sha256", [...sums])
    .orderBy("sha256")
    .forUpdate()
    .skipLocked();
  const held = rows.map(({ sha256 }) => sha256);
  await ask(
    trx,
    `insert into blob_unswept (sha256, at) select sha256, :now from blob
      where sha256 = any(:sums) and sha256 <> all(:held) on conflict do nothing`,
    { sums: [...sums], held, now: param(now) },
  );
  return held;
}

/** Looks again at bytes that somebody held; gives how many there were. */
export async function sweepBlobs(trx: Transaction, before: Instant, now: Instant, limit: number): Promise<number> {
  const rows: { sha256: Buffer }[] = await knexOf(trx)("blob_unswept")
    .whereIn(
      "sha256",
      (query) =>
        void query
          .select("sha256")
          .from("blob_unswept")
          .where("at", "<", param(before) as Date)
          .limit(limit)
          .forUpdate()
          .skipLocked(),
    )
    .delete()
    .returning("sha256");
  await deleteUnusedBlobs(
    trx,
    rows.map(({ sha256 }) => sha256),
    now,
  );
  return rows.length;
}
