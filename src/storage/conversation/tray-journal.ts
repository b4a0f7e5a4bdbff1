import type { Effect, EffectKind } from "../../core/journal/entry";
import type { RuleMark } from "../../core/journal/rule-mark";
import { type BatchId, type ConversationId, type MemberId, type RuleId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { HIDDEN } from "../access/record-access";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { at, param } from "../base/rows";

/** One step in the journal of a tray: everything that was done at once. */
export type JournalStep = {
  readonly batchId: BatchId;
  readonly at: Instant;
  /** Null when the tray did it by itself. */
  readonly by: MemberId | null;
  /** The rule that did it; null where none did. */
  readonly rule: RuleMark | null;
  /** The different things that it did, a few of them. */
  readonly effects: readonly Effect[];
  readonly isUndo: boolean;
  readonly isRedo: boolean;
  /** How many conversations it was about, and one of them. */
  readonly count: number;
  readonly conversationId: ConversationId;
  readonly subject: string;
  /** Whether all of it has been undone since. */
  readonly isUndone: boolean;
  /** Whether it went with a message that was sent. */
  readonly wentWithMail: boolean;
};

export type JournalFilter = {
  readonly by: MemberId | "tray" | null;
  readonly kinds: readonly EffectKind[] | null;
  /** Only what this rule did; absent for all. */
  readonly rule?: RuleId;
  /** Steps before this moment; null begins with the newest. */
  readonly before: Instant | null;
};

type StepRow = {
  batch_id: string;
  at: Date;
  by_member_id: string | null;
  rule: RuleMark | null;
  effects: Effect[];
  is_undo: boolean;
  is_redo: boolean;
  count: number;
  conversation_id: string;
  subject: string;
  is_undone: boolean;
  went_with_mail: boolean;
};

// The entries of the newest steps are looked through to find these; a step of ten thousand is one of them.
const LOOKED_THROUGH = 5_000;
const MAX_EFFECTS = 4;

// That something was filed on a record that she may not know of has not happened for her.
const IS_HERS = /* sql */ `coalesce(cast(entry.effect->>'recordId' as uuid) <> all(cast(${HIDDEN} as uuid[])), true)`;

/** The newest steps in the journal of a tray, at most `limit`. */
export async function trayJournal(
  db: Database,
  grant: TrayGrant,
  { by, kinds, before, rule }: JournalFilter,
  limit: number,
): Promise<JournalStep[]> {
  const whose = by === null ? "true" : by === "tray" ? "entry.by_member_id is null" : "entry.by_member_id = :by";
  const found = await ask<StepRow>(
    db,
    /* sql */ `
    with recent as (
      select batch_id, at, id from journal as entry
      where tray_id = :trayId and at < coalesce(cast(:before as timestamptz), 'infinity') and ${whose} and ${IS_HERS}
        ${rule === undefined ? "" : "and rule is not null and rule->>'id' = :rule"}
        ${kinds === null ? "" : "and effect->>'kind' = any(:kinds) and undoes is null"}
      order by at desc, id desc limit ${LOOKED_THROUGH}
    ), step as (
      select batch_id, max(at) as at from recent group by batch_id order by max(at) desc limit :limit
    )
    select step.batch_id, step.at, whole.*, conversation.subject,
      exists (select 1 from message where message.id = step.batch_id and message.direction = 'out') as went_with_mail
    from step
      cross join lateral (
        select (array_agg(entry.by_member_id))[1] as by_member_id,
          (array_agg(entry.rule))[1] as rule,
          count(distinct entry.conversation_id)::int as count,
          (array_agg(entry.conversation_id order by entry.version))[1] as conversation_id,
          bool_and(entry.undoes is not null) as is_undo,
          bool_or(entry.redoes is not null) as is_redo,
          bool_and(exists (select 1 from journal as undo where undo.undoes = entry.id)) as is_undone,
          to_jsonb((array_agg(distinct entry.effect))[1:${MAX_EFFECTS}]) as effects
        from journal as entry where entry.batch_id = step.batch_id and ${IS_HERS}
      ) as whole
      join conversation on conversation.id = whole.conversation_id
    order by step.at desc`,
    {
      trayId: grant.tray.id,
      memberId: grant.memberId,
      limit,
      before: param(before),
      ...(by === null || by === "tray" ? {} : { by }),
      ...(rule === undefined ? {} : { rule }),
      ...(kinds === null ? {} : { kinds: [...kinds] }),
    },
  );
  return found.map((row) => ({
    batchId: trustedId<BatchId>(row.batch_id),
    at: at(row.at),
    by: row.by_member_id === null ? null : trustedId<MemberId>(row.by_member_id),
    rule: row.rule,
    effects: row.effects,
    isUndo: row.is_undo,
    isRedo: row.is_redo,
    count: row.count,
    conversationId: trustedId<ConversationId>(row.conversation_id),
    subject: row.subject,
    isUndone: row.is_undone,
    wentWithMail: row.went_with_mail,
  }));
}
