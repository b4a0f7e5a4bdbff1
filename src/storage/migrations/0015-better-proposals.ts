import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- Conversations that are decided otherwise than they were counted, in the order in which that came about. Whoever decides
    -- does not wait for the counting. "seen" where somebody may have seen what was proposed.
    create table filing_due (
      id bigint generated always as identity primary key,
      conversation_id uuid not null references conversation on delete cascade,
      seen boolean not null
    );
    create index filing_due_conversation on filing_due (conversation_id);

    -- Proposals are judged by more of a letter, and by what goes together: all is counted anew, the newest as if they were
    -- just decided, so that it is known again how much to believe.
    insert into filing_due (conversation_id, seen)
    select id, row_number() over (order by created_at desc) <= 2000
    from filing_lesson join conversation on id = conversation_id order by created_at;
    delete from filing_lesson;
    delete from filing_count;
    alter table filing_lesson add column period int not null;

    -- Who owned what, by periods of some weeks, as who answers for something changes.
    create table filing_owner (
      tray_id uuid not null references tray,
      feature text not null,
      label text not null,
      period int not null,
      given int not null,
      primary key (tray_id, feature, label, period)
    );

    -- How much each piece of evidence counts, learned from what came of proposals.
    create table filing_weight (
      tray_id uuid not null references tray,
      kind text not null check (kind in ('file', 'categorise', 'assign', 'settle')),
      weights jsonb not null,
      primary key (tray_id, kind)
    );

    -- Older outcomes count less with each newer one.
    delete from filing_record;
    alter table filing_record alter column said type double precision, alter column was_right type double precision;

    -- Nothing asks for what was given most any more.
    drop index filing_count_most;
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
