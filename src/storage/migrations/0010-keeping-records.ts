import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- Messages and attachments that are filed by themselves, as the journals of their conversations come to.
    create table filed_part (
      record_id uuid not null references record,
      message_id uuid not null,
      -- The index of the attachment; -1 for all of the message.
      attachment int not null,
      conversation_id uuid not null references conversation on delete cascade,
      filed_at timestamptz not null,
      by_member_id uuid references member,
      means text,
      fields jsonb,
      earlier jsonb,
      primary key (record_id, message_id, attachment)
    );
    create index filed_part_of on filed_part (conversation_id);

    -- What pickers look through with every key: lower case, compared byte by byte.
    alter table record
      add column folded_code text collate "C" generated always as (lower(code)) stored,
      add column folded_title text collate "C" generated always as (lower(title)) stored;

    -- A tray may settle only what is filed.
    alter table tray add column files_before_settling boolean not null default false;
    -- After how many days what was called junk goes; null for never.
    alter table tray add column junk_days int check (junk_days > 0);

    -- A file that somebody put on a record herself.
    create table record_document (
      id uuid primary key,
      record_id uuid not null references record,
      sha256 bytea not null references blob,
      file_name text not null,
      content_type text not null,
      size int not null,
      at timestamptz not null,
      -- Whose it is, in words: whoever put it there, or wrote the message that it once came with.
      who text not null,
      -- How it was filed with the message that it once came with.
      filing jsonb,
      by_member_id uuid references member
    );
    create index record_document_of on record_document (record_id, at);
    create index record_document_blob on record_document (sha256);

    -- How long something is kept: an ISO 8601 duration from the closing of its record or from its last message on.
    create table retention_policy (
      id uuid primary key,
      name text not null,
      period text not null,
      counts_from text not null check (counts_from in ('closing', 'last-message')),
      ends_in text not null check (ends_in in ('review', 'disposal'))
    );
    create unique index retention_policy_name on retention_policy (lower(name));
    alter table record_type add column policy_id uuid references retention_policy;
    alter table record add column policy_id uuid references retention_policy;
    -- Somebody looked at it at the end of its term, and it is kept until then.
    alter table record add column kept_until timestamptz;
    alter table category add column policy_id uuid references retention_policy;

    create table retention_hold (
      id uuid primary key,
      record_id uuid not null references record on delete cascade,
      reason text not null,
      at timestamptz not null,
      by_member_id uuid not null references member
    );
    create index retention_hold_of on retention_hold (record_id);

    -- What a disposal would take away, as somebody was shown it: nothing goes that was not named here before.
    create table disposal_preview (
      id uuid primary key,
      record_id uuid not null unique references record on delete cascade,
      at timestamptz not null,
      by_member_id uuid references member,
      named jsonb not null
    );

    -- What went. It outlives its record, so it points at nothing.
    create table disposal_certificate (
      id uuid primary key,
      at timestamptz not null,
      by_name text not null,
      previewed_at timestamptz not null,
      code text not null unique,
      title text not null,
      kind text not null,
      why text not null,
      conversations int not null,
      messages int not null,
      documents int not null,
      bytes bigint not null,
      elsewhere int not null,
      -- Of the lines of what went: an id and the SHA-256 of its bytes, in order.
      digest text not null,
      viewers uuid[]
    );

    -- Each member's own tree of the records she works with; and with what those of a role begin who have none yet.
    create table arrangement (
      member_id uuid primary key references member,
      tree jsonb not null,
      version int not null
    );
    create table arrangement_start (
      tray_id uuid not null references tray,
      role text not null,
      tree jsonb not null,
      by_member_id uuid not null references member,
      at timestamptz not null,
      primary key (tray_id, role)
    );
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
