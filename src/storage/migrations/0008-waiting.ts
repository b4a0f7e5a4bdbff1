import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- For an automatic reply: when its writer says she is back.
    alter table message add column returns_at timestamptz;

    -- When it stops to matter, as its header says; and for a conversation, as that or somebody by hand says.
    alter table message add column expires_at timestamptz;
    alter table conversation add column expires_at timestamptz;
    create index conversation_expires on conversation (expires_at)
      where expires_at is not null and standing in ('to-sort', 'our-move');

    -- How long the tray gives itself for an answer, in working hours.
    alter table tray add column answer_within_hours int not null default 16 check (answer_within_hours > 0);

    -- A prepared message in the thread of an expectation that may run out: sent once, at its time, if nobody answered by then.
    create table reminder (
      id uuid primary key,
      tray_id uuid not null references tray,
      conversation_id uuid not null references conversation on delete cascade,
      expectation_id uuid not null,
      send_at timestamptz not null,
      html text not null,
      made_by uuid not null references member,
      made_at timestamptz not null,
      state text not null check (state in ('waiting', 'sent', 'stopped')),
      -- Why it was not sent, or null.
      reason text,
      message_id uuid
    );
    create index reminder_due on reminder (send_at) where state = 'waiting';
    create index reminder_conversation on reminder (conversation_id, send_at);

    -- What is settled although an answer by a day was still awaited.
    create index conversation_settled_asking on conversation (tray_id, expected_at)
      where standing = 'settled' and expected_at is not null;

    -- What a member said is no loose end, and why: of one kind, until something of it changes.
    create table no_loose_end (
      tray_id uuid not null references tray,
      conversation_id uuid not null references conversation on delete cascade,
      kind text not null,
      -- What it was about: the version of the conversation, or a date of it.
      about text not null,
      reason text not null,
      by_member_id uuid not null references member,
      at timestamptz not null,
      primary key (conversation_id, kind)
    );
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
