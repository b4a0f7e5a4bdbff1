import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    create table automatic_answer (
      id uuid primary key,
      tray_id uuid not null references tray,
      name text not null,
      is_on boolean not null,
      starts_at timestamptz,
      ends_at timestamptz,
      trigger jsonb not null,
      texts jsonb not null,
      pace jsonb not null,
      created_at timestamptz not null,
      removed_at timestamptz
    );

    -- What went to whom by itself, so that nobody is answered too often: one row for a message that was answered.
    create table automatic_answer_sent (
      tray_id uuid not null references tray,
      person text not null,
      sent_at timestamptz not null,
      answer_id uuid not null references automatic_answer,
      -- Ours; it may be deleted before this is.
      message_id uuid not null,
      primary key (tray_id, person, sent_at, message_id)
    );
    create index automatic_answer_sent_at on automatic_answer_sent (sent_at);
    create index automatic_answer_sent_message on automatic_answer_sent (message_id);

    -- Where a colleague is reached by those outside, for copies of what is answered while they cover for somebody.
    alter table member add column mail_address text;
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
