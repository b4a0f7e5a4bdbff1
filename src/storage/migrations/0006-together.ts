import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    alter table conversation add column follower_ids uuid[] not null default '{}';
    create index conversation_followers on conversation using gin (follower_ids) where follower_ids <> '{}';

    create index conversation_joined on conversation (joined_to) where joined_to is not null;

    -- Who has a conversation open at this moment, one line for every page. It need not outlive a crash.
    create unlogged table presence (
      page_id uuid primary key,
      member_id uuid not null references member,
      tray_id uuid not null references tray,
      conversation_id uuid not null,
      doing text not null check (doing in ('looking', 'writing')),
      seen_at timestamptz not null
    );
    create index presence_conversation on presence (conversation_id);

    -- Answers that are written together. The text of one that went or was given up stays as it was.
    create table shared_draft (
      id uuid primary key,
      tray_id uuid not null references tray,
      conversation_id uuid not null references conversation on delete cascade,
      version int not null,
      content jsonb not null,
      written_by uuid not null references member,
      -- Whose move it is: to check and send it, or to write it anew.
      holder_id uuid not null references member,
      state text not null check (state in ('to-check', 'returned', 'sent', 'given-up')),
      note text not null,
      updated_at timestamptz not null
    );
    create index shared_draft_open on shared_draft (conversation_id) where state in ('to-check', 'returned');
    create index shared_draft_holder on shared_draft (holder_id) where state in ('to-check', 'returned');

    -- Her own week where it is another than the tray's.
    alter table member add column week jsonb;
    -- Who took over what a disabled member owned; null with a date means: nobody, on purpose.
    alter table member add column successor_id uuid references member;

    create table time_off (
      id uuid primary key,
      member_id uuid not null references member,
      from_at timestamptz not null,
      until_at timestamptz not null,
      -- Called off, or ended before its day.
      ended_at timestamptz,
      summary_read_at timestamptz,
      check (from_at < until_at)
    );
    create index time_off_member on time_off (member_id, until_at);
    create table cover (
      time_off_id uuid not null references time_off on delete cascade,
      tray_id uuid not null references tray,
      -- The first record that fits decides.
      position int not null,
      -- Null covers everything else in the tray.
      record_id uuid references record,
      member_id uuid not null references member,
      unique nulls not distinct (time_off_id, tray_id, record_id)
    );
    create index cover_member on cover (member_id);

    -- What was hers while she was away is told her, whoever has it now.
    create index journal_assigned on journal ((effect->>'ownerId')) where kind = 'assigned';

    create table invitation (
      id uuid primary key,
      token_hash bytea not null unique,
      tray_id uuid not null references tray,
      role text not null check (role in ('lead', 'member', 'reader')),
      made_by uuid not null references member,
      made_at timestamptz not null,
      expires_at timestamptz not null,
      ended_at timestamptz,
      used_by uuid references member
    );
    create index invitation_open on invitation (tray_id) where ended_at is null;

    -- Colleagues who take turns, by what each has on the desk.
    create table member_group (
      id uuid primary key,
      tray_id uuid not null references tray,
      name text not null,
      removed_at timestamptz
    );
    create unique index member_group_name on member_group (tray_id, lower(name)) where removed_at is null;
    create table member_group_member (
      group_id uuid not null references member_group,
      member_id uuid not null references member,
      primary key (group_id, member_id)
    );

    create table notification (
      id uuid primary key,
      member_id uuid not null references member,
      tray_id uuid not null references tray,
      conversation_id uuid references conversation on delete cascade,
      at timestamptz not null,
      event text not null,
      by_member_id uuid references member,
      detail jsonb not null,
      read_at timestamptz,
      -- What it tells of, so that it is told once.
      about text not null,
      unique (member_id, about)
    );
    create index notification_recent on notification (member_id, tray_id, at desc);
    create index notification_unread on notification (member_id, tray_id) where read_at is null;

    -- What a member wants to be told of beside what concerns her: a person, a category, words.
    create table watch (
      id uuid primary key,
      member_id uuid not null references member,
      tray_id uuid not null references tray,
      kind text not null check (kind in ('person', 'category', 'words')),
      value text not null,
      created_at timestamptz not null,
      unique (member_id, tray_id, kind, value)
    );
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
