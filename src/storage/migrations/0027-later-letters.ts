import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    alter table draft
      drop constraint draft_state_check,
      add constraint draft_state_check
        check (state in ('own', 'to-check', 'returned', 'sent', 'given-up', 'later'));

    -- A draft that goes by itself; what its writer wrote stays with the draft, what goes stands here as it was checked.
    create table later_letter (
      id uuid primary key references draft on delete cascade,
      tray_id uuid not null references tray,
      member_id uuid not null references member,
      -- Null for a first message.
      conversation_id uuid references conversation on delete cascade,
      answer jsonb not null,
      send_at timestamptz not null,
      if_silent boolean not null,
      until_settled boolean not null,
      -- The series that it is of, by its first, and which of how many.
      series_id uuid,
      part int not null,
      parts int not null,
      -- What its writer knew of the conversation.
      seen_version int not null,
      state text not null check (state in ('waiting', 'held', 'sent', 'stopped', 'called-off')),
      held_by jsonb,
      message_id uuid,
      ended_at timestamptz
    );
    create index later_letter_due on later_letter (send_at) where state = 'waiting';
    create index later_letter_in on later_letter (conversation_id) where state in ('waiting', 'held');
    create index later_letter_to_go on later_letter (tray_id, send_at) where state in ('waiting', 'held');
    create index later_letter_series on later_letter (series_id) where series_id is not null;
    create index later_letter_gone on later_letter (tray_id, ended_at desc) where state in ('sent', 'stopped');
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
