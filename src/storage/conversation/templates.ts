import type { EmailAddress } from "../../core/kernel/email-address";
import {
  type CategoryId,
  type ConversationId,
  type MemberId,
  type MessageId,
  type RecordId,
  type TemplateId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { PastUse } from "../../core/templates/propose-templates";
import type { Template, TemplateHabits } from "../../core/templates/template";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";

type Row = {
  id: string;
  tray_id: string | null;
  member_id: string | null;
  name: string;
  folder: string;
  key: string;
  language: string;
  description: string;
  subject: string;
  html: string;
  habits: TemplateHabits;
  version: number;
};

const idOrNull = <Id extends TrayId | MemberId>(id: string | null) => (id === null ? null : trustedId<Id>(id));

const templateOf = ({ id, tray_id, member_id, created_at: _, removed_at: __, ...row }: Row & Dates): Template => ({
  ...row,
  id: trustedId<TemplateId>(id),
  trayId: idOrNull<TrayId>(tray_id),
  memberId: idOrNull<MemberId>(member_id),
});
type Dates = { created_at: Date; removed_at: Date | null };

/** The templates that a member has in a tray: its own, hers, and those common to all trays; in the order of their tree. */
export async function templatesFor(db: Database, { tray, memberId }: TrayGrant): Promise<Template[]> {
  const rows: (Row & Dates)[] = await knexOf(db)("template")
    .whereNull("removed_at")
    .where((of) =>
      of
        .where("tray_id", tray.id)
        .orWhere("member_id", memberId)
        .orWhere((common) => common.whereNull("tray_id").whereNull("member_id")),
    )
    .orderByRaw("lower(folder), lower(name), id");
  return rows.map(templateOf);
}

/** A template by its id, also one that was removed; null where there is none. */
export async function templateById(db: Database, id: TemplateId): Promise<Template | null> {
  const row: (Row & Dates) | undefined = await knexOf(db)("template").where({ id }).first();
  return row === undefined ? null : templateOf(row);
}

/** What templates are called, also those that were removed. */
export async function templateNames(
  db: Database,
  ids: readonly TemplateId[],
): Promise<ReadonlyMap<TemplateId, string>> {
  const rows: { id: string; name: string }[] = await knexOf(db)("template")
    .whereIn("id", [...ids])
    .select("id", "name");
  return new Map(rows.map(({ id, name }) => [trustedId<TemplateId>(id), name]));
}

/** The templates that everybody who looks into a tray has: its own, and those common to all trays; in the order of their tree. */
export async function templatesOfTray(db: Database, trayId: TrayId): Promise<Template[]> {
  const rows: (Row & Dates)[] = await knexOf(db)("template")
    .whereNull("removed_at")
    .whereNull("member_id")
    .where((of) => of.where("tray_id", trayId).orWhereNull("tray_id"))
    .orderByRaw("lower(folder), lower(name), id");
  return rows.map(templateOf);
}

/** Holds all templates until the transaction ends, so that two who give the same name at once see each other. */
export async function lockTemplates(trx: Transaction): Promise<void> {
  await knexOf(trx).raw("select pg_advisory_xact_lock(hashtext('templates'))");
}

/** Keeps a template as it is now, a new one as its first version. */
export async function saveTemplate(trx: Transaction, template: Template, now: Instant): Promise<void> {
  const { id, trayId, memberId, habits, ...plain } = template;
  const columns = { ...plain, tray_id: trayId, member_id: memberId, habits: JSON.stringify(habits) };
  await knexOf(trx)("template")
    .insert({ id, created_at: param(now), ...columns })
    .onConflict("id")
    .merge(columns);
}

/** Takes a template away (`removedAt`), or brings it back (null). */
export async function removeTemplate(db: Database, id: TemplateId, removedAt: Instant | null): Promise<void> {
  await knexOf(db)("template")
    .where({ id })
    .update({ removed_at: param(removedAt) });
}

/** A message of ours that began with a template. */
export type TemplateUse = {
  readonly templateId: TemplateId;
  readonly messageId: MessageId;
  readonly conversationId: ConversationId;
};

/** Remembers that a message of ours began with a template. */
export async function noteTemplateUse(
  trx: Transaction,
  { tray, memberId }: TrayGrant,
  { templateId, messageId, conversationId }: TemplateUse,
  now: Instant,
): Promise<void> {
  await knexOf(trx)("template_use").insert({
    message_id: messageId,
    template_id: templateId,
    tray_id: tray.id,
    member_id: memberId,
    conversation_id: conversationId,
    used_at: param(now),
  });
}

/** How a template was used in a tray. */
export type TemplateUses = {
  readonly count: number;
  readonly memberIds: readonly MemberId[];
  readonly lastAt: Instant;
  /** Of the newest: how many were answered by a person outside, and after how long half of these were, in milliseconds; null for none. */
  readonly answered: number;
  readonly answeredWithinMs: number | null;
};

// As many as say how it is today.
const LATELY = 1_000;

/** How the templates of a tray were used since a moment, by template. */
export async function templateUses(
  db: Database,
  trayId: TrayId,
  since: Instant,
): Promise<ReadonlyMap<TemplateId, TemplateUses>> {
  type Counted = {
    template_id: string;
    count: number;
    member_ids: string[];
    last_at: Date;
    answered: number;
    within_ms: number | null;
  };
  const rows = await ask<Counted>(
    db,
    /* sql */ `
    with lately as (
      select template_id, extract(epoch from answer.at - used_at) * 1000 as within_ms
      from (select * from template_use where tray_id = :trayId order by used_at desc limit :most) as used
      left join lateral (
        select min(message.received_at) as at from message
        where message.conversation_id = used.conversation_id and direction = 'in' and kind = 'person'
          and message.received_at > used.used_at
      ) as answer on true
    ), answered as (
      select template_id, count(within_ms)::int as answered,
        (percentile_cont(0.5) within group (order by within_ms))::float8 as within_ms
      from lately group by template_id
    )
    select used.template_id, count(*)::int as count, array_agg(distinct used.member_id) as member_ids,
      max(used.used_at) as last_at, coalesce(max(answered.answered), 0) as answered, max(answered.within_ms) as within_ms
    from template_use as used left join answered using (template_id)
    where used.tray_id = :trayId and used.used_at > :since group by used.template_id`,
    { trayId, since: param(since) as Date, most: LATELY },
  );
  return new Map(
    rows.map((row) => [
      trustedId<TemplateId>(row.template_id),
      {
        count: row.count,
        memberIds: row.member_ids.map((id) => trustedId<MemberId>(id)),
        lastAt: at(row.last_at),
        answered: row.answered,
        answeredWithinMs: row.within_ms,
      },
    ]),
  );
}

/** In which conversations the templates of a tray were used lately, the newest first. */
export async function pastUses(db: Database, trayId: TrayId): Promise<PastUse[]> {
  type Used = {
    template_id: string;
    who_address: string;
    subject: string;
    category_ids: string[];
    record_ids: string[];
  };
  const rows = await ask<Used>(
    db,
    /* sql */ `
    select used.template_id, c.who_address, c.subject, c.category_ids, c.record_ids
    from (select * from template_use where tray_id = :trayId order by used_at desc limit :most) as used
    join conversation as c on c.id = used.conversation_id order by used.used_at desc`,
    { trayId, most: LATELY },
  );
  return rows.map((row) => ({
    templateId: trustedId<TemplateId>(row.template_id),
    person: (row.who_address || null) as EmailAddress | null,
    subject: row.subject,
    categoryIds: row.category_ids.map((id) => trustedId<CategoryId>(id)),
    recordIds: row.record_ids.map((id) => trustedId<RecordId>(id)),
  }));
}
