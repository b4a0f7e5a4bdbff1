import { createHash } from "node:crypto";
import type { EmailAddress } from "../../core/kernel/email-address";
import { type ConversationId, type RuleProposalId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Passed, PutAway } from "../../core/rule-learning/find-routines";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";

/** Every conversation of a tray that began with a message from outside since a moment, the newest first, and how it was put away unread. */
export async function passedSince(db: Database, trayId: TrayId, since: Instant): Promise<Passed[]> {
  const rows = await ask<{ id: string; from: EmailAddress | null; list: string | null; put_away: PutAway | null }>(
    db,
    /* sql */ `
    select c.id, m.from_address as "from", m.list_id as list,
      case when c.standing in ('settled', 'bin', 'junk')
        and not exists (select 1 from reading where reading.conversation_id = c.id)
        and not exists (select 1 from message as ours where ours.conversation_id = c.id and ours.direction = 'out')
        and exists (select 1 from journal where journal.conversation_id = c.id and by_member_id is not null
          and kind in ('settled', 'binned', 'junked'))
        then case c.standing when 'settled' then 'settle' else c.standing end
      end as put_away
    from message as m join conversation as c on c.id = m.conversation_id
    where m.tray_id = :trayId and m.direction = 'in' and m.version = 1 and m.received_at > :since
      and c.joined_to is null
    order by m.received_at desc, m.id desc`,
    { trayId, since: param(since) },
  );
  return rows.map(({ id, from, list, put_away: putAway }) => {
    return { id: trustedId<ConversationId>(id), from, list, putAway };
  });
}

/** As what a routine is known again, without saying whose it is once its mail is disposed of. */
export function keptKey(key: string): string {
  return createHash("sha256").update(key).digest("hex");
}

/** A rule that is proposed unasked, for what people put away unread. */
export type RuleProposalMade = {
  readonly id: RuleProposalId;
  readonly trayId: TrayId;
  readonly putAway: PutAway;
  /** How many it was made for, and the newest of them. */
  readonly count: number;
  readonly conversationIds: readonly ConversationId[];
  readonly madeAt: Instant;
};

/** One that is not answered yet, with the list or the address that its mail comes from. */
export type OpenProposal = RuleProposalMade & { readonly source: string };

type Row = {
  id: string;
  tray_id: string;
  source: string;
  put_away: PutAway;
  count: number;
  conversation_ids: string[];
  made_at: Date;
};

const proposalOf = (row: Row): OpenProposal => ({
  id: trustedId<RuleProposalId>(row.id),
  trayId: trustedId<TrayId>(row.tray_id),
  source: row.source,
  putAway: row.put_away,
  count: row.count,
  conversationIds: row.conversation_ids.map((id) => trustedId<ConversationId>(id)),
  madeAt: at(row.made_at),
});

/** What is proposed in a tray and not answered yet, the newest first; nothing about mail that is there no more. */
export async function openRuleProposals(db: Database, trayId: TrayId): Promise<OpenProposal[]> {
  const rows = await ask<Row>(
    db,
    /* sql */ `
    select made.*, newest.source from rule_proposal as made cross join lateral (
      select coalesce(m.list_id, m.from_address) as source from message as m
      where m.conversation_id = any(made.conversation_ids) and m.version = 1 and m.direction = 'in'
      order by m.received_at desc, m.id desc limit 1
    ) as newest
    where made.tray_id = :trayId and made.answered_at is null and newest.source is not null
    order by made.made_at desc`,
    { trayId },
  );
  return rows.map(proposalOf);
}

/** What was ever proposed in a tray, by its kept keys, with when. */
export async function proposedBefore(db: Database, trayId: TrayId): Promise<ReadonlyMap<string, Instant>> {
  const rows = await knexOf(db)("rule_proposal").select("key", "made_at").where("tray_id", trayId);
  return new Map(rows.map((row) => [row.key, at(row.made_at)]));
}

/** Takes the turn to look a tray's mail through for what could be proposed; false where somebody did since a moment. */
export async function takeTurnToPropose(
  trx: Transaction,
  trayId: TrayId,
  { now, since }: { readonly now: Instant; readonly since: Instant },
): Promise<boolean> {
  const taken = await knexOf(trx)("tray")
    .where("id", trayId)
    .where((due) => due.whereNull("routines_looked_at").orWhere("routines_looked_at", "<=", param(since)))
    .update({ routines_looked_at: param(now) });
  return taken === 1;
}

export async function addRuleProposal(trx: Transaction, key: string, proposal: RuleProposalMade): Promise<void> {
  await knexOf(trx)("rule_proposal").insert({
    id: proposal.id,
    tray_id: proposal.trayId,
    key: keptKey(key),
    put_away: proposal.putAway,
    count: proposal.count,
    conversation_ids: [...proposal.conversationIds],
    made_at: param(proposal.madeAt),
  });
}

/** Notes that a proposal was answered, one way or the other; it is not made again. False when it is not open in the tray. */
export async function answerRuleProposal(
  db: Database,
  trayId: TrayId,
  id: RuleProposalId,
  now: Instant | null,
): Promise<boolean> {
  const found = await knexOf(db)("rule_proposal")
    .where({ id, tray_id: trayId })
    .update({ answered_at: param(now) });
  return found === 1;
}
