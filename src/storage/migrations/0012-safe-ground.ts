import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- A job that was begun and of which no end was noted: it is under way, or its process died with it.
    create table job_attempt (
      key text not null,
      process int not null,
      begun_at timestamptz not null,
      primary key (key, process)
    );

    -- A job that took its process down with it twice, and what is to be said of it. One that nobody asked for is not done
    -- again before somebody who leads a tray lets it go on.
    create table job_aside (
      id uuid primary key,
      key text not null,
      kind text not null,
      tray_id uuid references tray,
      by_member_id uuid references member,
      about text not null,
      at timestamptz not null,
      let_go_at timestamptz,
      let_go_by uuid references member
    );
    create index job_aside_open on job_aside (key) where let_go_at is null;
    create index job_aside_tray on job_aside (tray_id, at);

    -- What a browser has sent under an id of its own, and what was answered; without an answer while it is carried out.
    create table command (
      tray_id uuid not null references tray on delete cascade,
      id uuid not null,
      member_id uuid not null references member,
      at timestamptz not null,
      status int,
      headers jsonb,
      body bytea,
      primary key (tray_id, id)
    );
    create index command_age on command (at);

    -- What points at a message's bytes, and at a conversation: whatever is deleted is looked for there.
    create index message_raw on message (raw_sha256);
    create index thread_link_conversation on thread_link (conversation_id);
    create index reading_conversation on reading (conversation_id);
    create index notification_conversation on notification (conversation_id);
    -- What lies in bins and as junk, by how long.
    create index conversation_thrown_away on conversation (standing_since) where standing in ('bin', 'junk');
    -- Bytes that somebody held while it was to be seen whether anything needs them still.
    create table blob_unswept (sha256 bytea primary key, at timestamptz not null);

    -- Where and when a session was used last, and by what.
    alter table session
      add column id uuid not null default gen_random_uuid(),
      add column used_at timestamptz,
      add column device text not null default '',
      add column address text not null default '';
    update session set used_at = created_at;
    alter table session alter column used_at set not null;
    create unique index session_id on session (id);

    -- Signing in is slowed down by where it is tried from as well.
    alter table sign_in_failure add column address text not null default '';
    create index sign_in_failure_address on sign_in_failure (address, at);
    create index sign_in_failure_age on sign_in_failure (at);
    create index invitation_maker on invitation (made_by) where ended_at is null;
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
