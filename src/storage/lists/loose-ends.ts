import type { ConversationId, MemberId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { LOOSE_ENDS, type LooseEndKind } from "../../core/loose-ends/loose-end";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";
import { type RawSheetRow, SHEET_COLUMNS, type SheetRow, sheetRowOf } from "./sheet-row";

/** What makes a conversation a loose end, as of a moment. */
export type LooseEndTerms = {
  readonly now: Instant;
  /** What is our move since before this has been so for longer than the tray gives itself. */
  readonly ourMoveBefore: Instant;
  /** What matters only until before this runs out soon. */
  readonly lapsingBefore: Instant;
  /** Drafts that nobody touched since. */
  readonly draftBefore: Instant;
  /** Answers from somewhere else that came before this are taken for the end of it. */
  readonly answeredAfter: Instant;
  /** Members who are away with nobody to cover for them. */
  readonly away: readonly MemberId[];
};

/** A conversation that would be forgotten, why, and since when. */
export type LooseEnd = {
  readonly row: SheetRow;
  readonly kind: LooseEndKind;
  readonly since: Instant;
  /** How many there are of its kind. */
  readonly inKind: number;
};

// As many as anybody goes through; of more, the oldest of each kind.
const MOST_OF_A_KIND = 100;

// Each kind is a walk along an index of what is open, or of few rows.
const KINDS: Readonly<Record<LooseEndKind, string>> = {
  "not-sent": /* sql */ `
    select c.id, failed.delivery_at as since from message as failed
      join conversation as c on c.id = failed.conversation_id
    where failed.tray_id = :trayId and failed.direction = 'out' and failed.delivery = 'failed'
      and c.standing in ('to-sort', 'our-move', 'waiting', 'resting') and c.last_message_at <= failed.received_at
      and not exists (select 1 from journal where journal.conversation_id = c.id and journal.by_member_id is not null
        and journal.at > failed.delivery_at)`,
  overdue: /* sql */ `
    select c.id, c.expected_at as since from conversation as c
    where c.tray_id = :trayId and c.standing = 'waiting' and c.expected_at < :now
      and not exists (select 1 from reminder where reminder.conversation_id = c.id
        and (reminder.state = 'waiting' or (reminder.state = 'sent' and reminder.send_at > c.expected_at)))`,
  "asked-and-settled": /* sql */ `
    select c.id, c.expected_at as since from conversation as c
    where c.tray_id = :trayId and c.standing = 'settled' and c.expected_at is not null and c.expected_at < :now`,
  lapsing: /* sql */ `
    select c.id, c.standing_since as since from conversation as c
    where c.tray_id = :trayId and c.standing in ('to-sort', 'our-move') and c.expires_at < :lapsingBefore`,
  "our-move-too-long": /* sql */ `
    select c.id, c.standing_since as since from conversation as c
    where c.tray_id = :trayId and c.standing = 'our-move' and c.standing_since < :ourMoveBefore and c.owner_id is not null
      and c.owner_id <> all(cast(:away as uuid[]))
      and not exists (select 1 from follow_up where follow_up.conversation_id = c.id and follow_up.done_at is null and follow_up.due_at > :now)`,
  "owner-away": /* sql */ `
    select c.id, c.standing_since as since from conversation as c
    where c.tray_id = :trayId and c.standing in ('our-move', 'waiting') and c.owner_id = any(cast(:away as uuid[]))`,
  nobodys: /* sql */ `
    select c.id, c.standing_since as since from conversation as c
    where c.tray_id = :trayId and c.standing = 'our-move' and c.owner_id is null`,
  "follow-up-past": /* sql */ `
    select c.id, min(follow_up.due_at) as since from follow_up join conversation as c on c.id = follow_up.conversation_id
    where follow_up.tray_id = :trayId and follow_up.done_at is null and follow_up.due_at < :now and c.standing not in ('bin', 'junk')
    group by c.id`,
  "draft-lying": /* sql */ `
    select c.id, draft.updated_at as since from draft
      join conversation as c on c.id = draft.conversation_id
    where draft.tray_id = :trayId and draft.state in ('to-check', 'returned') and draft.updated_at < :draftBefore`,
  "answered-outside": /* sql */ `
    select c.id, c.standing_since as since from conversation as c
    where c.tray_id = :trayId and c.standing = 'settled' and c.standing_since >= :answeredAfter
      and c.standing_reason->>'kind' = 'answered' and c.standing_reason->>'by' is null
      and not exists (select 1 from journal where journal.conversation_id = c.id and journal.by_member_id is not null
        and journal.at > c.standing_since)`,
  "junk-from-known": /* sql */ `
    select c.id, c.last_message_at as since from conversation as c
    where c.tray_id = :trayId and c.standing = 'junk' and c.who_address <> ''
      and (exists (select 1 from contact_address where contact_address.tray_id = c.tray_id and contact_address.address = c.who_address)
        or exists (select 1 from conversation as other where other.tray_id = c.tray_id and other.who_address = c.who_address
          and other.standing in ('our-move', 'waiting', 'settled') and other.owner_id is not null))`,
};

// What somebody said is none, until something happens in it.
const FOUND = Object.entries(KINDS)
  .map(
    ([kind, sql]) => /* sql */ `
    (select '${kind}' as kind, found.id, found.since from (${sql}) as found
      where not exists (select 1 from no_loose_end as no join conversation as own on own.id = no.conversation_id
        where no.conversation_id = found.id and no.kind = '${kind}' and no.about = own.version::text)
      order by found.since limit ${MOST_OF_A_KIND})`,
  )
  .join(" union all ");

function valuesOf(grant: TrayGrant, { away, ...moments }: LooseEndTerms): Readonly<Record<string, unknown>> {
  const values = Object.entries(moments).map(([name, moment]) => [name, param(moment)] as const);
  return {
    trayId: grant.tray.id,
    memberId: grant.memberId,
    away: [...away],
    ...Object.fromEntries(values),
  };
}

/** A part of the loose ends of a tray, with how many there are in all. */
export type LooseEnds = { readonly rows: readonly LooseEnd[]; readonly total: number };

/** The loose ends of a tray kind by kind, the oldest of each first; a conversation may be several. */
export async function looseEndsOf(
  db: Database,
  grant: TrayGrant,
  terms: LooseEndTerms,
  part: { readonly from: number; readonly limit: number },
): Promise<LooseEnds> {
  const found = await ask<RawSheetRow & { kind: LooseEndKind; since: Date; total: number; in_kind: number }>(
    db,
    /* sql */ `
    with found as materialized (${FOUND}),
    counted as (
      select found.*, count(*) over () as total, count(*) over (partition by kind) as in_kind,
        row_number() over (order by array_position(cast(:kinds as text[]), kind), since, found.id) as place
      from found join conversation as own on own.id = found.id and own.joined_to is null
    ),
    part as (select * from counted order by place limit :limit offset :from)
    select ${SHEET_COLUMNS}, part.kind, part.since, part.total::int, part.in_kind::int
    from part join conversation as c on c.id = part.id order by part.place`,
    { ...valuesOf(grant, terms), kinds: [...LOOSE_ENDS], ...part },
  );
  const rows = found.map(({ kind, since, in_kind: inKind, ...row }) => {
    return { row: sheetRowOf(row), kind, since: at(since), inKind };
  });
  return { rows, total: found[0]?.total ?? 0 };
}

/** How many conversations of a tray are loose ends. */
export async function countLooseEnds(db: Database, grant: TrayGrant, terms: LooseEndTerms): Promise<number> {
  const found = await ask<{ count: number }>(
    db,
    /* sql */ `
    select count(distinct found.id)::int as count from (${FOUND}) as found
      join conversation as c on c.id = found.id and c.joined_to is null`,
    valuesOf(grant, terms),
  );
  return found[0]?.count ?? 0;
}

/** Remembers that a conversation of a tray is no loose end of a kind, as it is now; false when the tray has none of this id. */
export async function sayNoLooseEnd(
  db: Database,
  grant: TrayGrant,
  id: ConversationId,
  kind: LooseEndKind,
  { reason, now }: { readonly reason: string; readonly now: Instant },
): Promise<boolean> {
  const found = await knexOf(db).raw<{ rowCount: number }>(
    /* sql */ `
    insert into no_loose_end (tray_id, conversation_id, kind, about, reason, by_member_id, at)
    select tray_id, id, :kind, version::text, :reason, :memberId, :now from conversation
    where id = :id and tray_id = :trayId
    on conflict (conversation_id, kind) do update set about = excluded.about, reason = excluded.reason,
      by_member_id = excluded.by_member_id, at = excluded.at`,
    { id, kind, reason, trayId: grant.tray.id, memberId: grant.memberId, now: param(now) as Date },
  );
  return found.rowCount === 1;
}

/** Forgets that it is none. */
export async function takeNoLooseEndBack(
  db: Database,
  grant: TrayGrant,
  id: ConversationId,
  kind: LooseEndKind,
): Promise<void> {
  await knexOf(db)("no_loose_end").where({ tray_id: grant.tray.id, conversation_id: id, kind }).delete();
}
