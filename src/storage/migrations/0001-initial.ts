import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    create table member (
      id uuid primary key,
      sign_in_name text not null unique,
      name text not null,
      initials text not null,
      password_hash text not null,
      time_zone text not null,
      created_at timestamptz not null,
      disabled_at timestamptz
    );

    create table session (
      token_hash bytea primary key,
      member_id uuid not null references member,
      created_at timestamptz not null,
      expires_at timestamptz not null
    );
    create index session_member on session (member_id);

    create table sign_in_failure (
      sign_in_name text not null,
      at timestamptz not null
    );
    create index sign_in_failure_recent on sign_in_failure (sign_in_name, at);

    create table tray (
      id uuid primary key,
      slug text not null unique,
      name text not null,
      time_zone text not null,
      created_at timestamptz not null
    );

    create table tray_address (
      address text primary key,
      tray_id uuid not null references tray,
      position int not null
    );

    create table tray_member (
      tray_id uuid not null references tray,
      member_id uuid not null references member,
      role text not null check (role in ('lead', 'member', 'reader')),
      primary key (tray_id, member_id)
    );
    create index tray_member_member on tray_member (member_id);

    create table category (
      id uuid primary key,
      tray_id uuid references tray,
      parent_id uuid references category,
      code text not null,
      name text not null,
      ink text not null,
      position int not null
    );

    create table record (
      id uuid primary key,
      code text not null unique,
      kind text not null check (kind in ('client', 'project')),
      title text not null,
      parent_id uuid references record,
      closed_at timestamptz,
      created_at timestamptz not null
    );

    create table blob (
      sha256 bytea primary key,
      size int not null,
      content bytea compression lz4 not null
    );

    create table conversation (
      id uuid primary key,
      tray_id uuid not null references tray,
      created_at timestamptz not null,
      version int not null,
      subject text not null,
      who text not null,
      newest_text text not null,
      message_count int not null,
      last_message_at timestamptz not null,
      last_in_at timestamptz,
      standing text not null,
      standing_since timestamptz not null,
      standing_reason jsonb not null,
      turn text not null check (turn in ('us', 'them', 'nobody')),
      turn_since timestamptz,
      owner_id uuid references member,
      category_ids uuid[] not null,
      record_ids uuid[] not null,
      expected_at timestamptz,
      resting_until timestamptz,
      marks jsonb not null
    );
    create index conversation_list on conversation (tray_id, standing, last_message_at desc, id desc);
    create index conversation_flow on conversation (tray_id, standing, standing_since, expected_at, resting_until)
      where standing in ('to-sort', 'our-move', 'waiting', 'resting');
    create index conversation_settled on conversation (tray_id, standing_since) where standing = 'settled';
    create index conversation_rest on conversation (resting_until) where standing = 'resting';
    create index conversation_records on conversation using gin (record_ids);

    create table message (
      id uuid primary key,
      tray_id uuid not null references tray,
      conversation_id uuid not null references conversation,
      version int not null,
      direction text not null check (direction in ('in', 'out')),
      kind text not null,
      kind_reason text not null,
      message_id text,
      in_reply_to text[] not null,
      reference_ids text[] not null,
      subject text not null,
      from_name text not null,
      from_address text not null,
      recipients jsonb not null,
      sent_at timestamptz not null,
      received_at timestamptz not null,
      author_id uuid references member,
      raw_sha256 bytea not null references blob,
      has_html boolean not null,
      failed_recipients jsonb not null,
      attachments jsonb not null,
      warnings text[] not null,
      dedupe_key bytea not null,
      delivery text check (delivery in ('waiting', 'going', 'sent', 'failed')),
      delivery_reason text,
      delivery_at timestamptz,
      unique (tray_id, dedupe_key)
    );
    create index message_conversation on message (conversation_id, sent_at, id);
    create index message_by_message_id on message (tray_id, message_id) where direction = 'out';

    create table message_text (
      message_id uuid primary key references message,
      own_text text compression lz4 not null,
      rest_text text compression lz4 not null
    );

    create table message_search (
      message_id uuid primary key references message,
      tray_id uuid not null,
      conversation_id uuid not null,
      sent_at timestamptz not null,
      vector tsvector not null
    );
    create index message_search_vector on message_search using gin (vector);
    create index message_search_recent on message_search (tray_id, sent_at desc);

    create table thread_link (
      tray_id uuid not null references tray,
      message_id text not null,
      conversation_id uuid not null references conversation,
      primary key (tray_id, message_id)
    );

    create table journal (
      id uuid primary key,
      tray_id uuid not null references tray,
      conversation_id uuid not null references conversation,
      version int not null,
      batch_id uuid not null,
      at timestamptz not null,
      by_member_id uuid references member,
      kind text not null,
      effect jsonb not null,
      undoes uuid unique references journal
    );
    create index journal_conversation on journal (conversation_id, version);
    create index journal_batch on journal (batch_id);
    create index journal_member on journal (by_member_id, tray_id, at desc);

    create table reading (
      member_id uuid not null references member,
      conversation_id uuid not null references conversation,
      read_at timestamptz not null,
      primary key (member_id, conversation_id)
    );
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
