import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- Who came in, failed to, changed rights, or took mail out; with a term of its own.
    create table access_event (
      id uuid primary key,
      at timestamptz not null,
      kind text not null,
      deed jsonb not null,
      tray_id uuid references tray on delete cascade,
      by_member_id uuid references member,
      about_member_id uuid references member,
      record_id uuid references record on delete set null,
      address text not null,
      device text not null
    );
    create index access_event_age on access_event (at, id);
    create index access_event_record on access_event (record_id) where record_id is not null;

    -- Whose matters somebody else has, from when to when: who is let in again has what is given from then on.
    create table owner_replacement (
      member_id uuid not null references member,
      at timestamptz not null,
      successor_id uuid references member,
      until timestamptz,
      primary key (member_id, at)
    );
    insert into owner_replacement (member_id, at, successor_id)
      select id, disabled_at, successor_id from member where disabled_at is not null;
    alter table member drop column successor_id;

    -- A record that goes, some conversations at a time, until its certificate is written.
    create table disposal (
      record_id uuid primary key references record on delete cascade,
      begun_at timestamptz not null,
      by_member_id uuid references member,
      certificate jsonb not null,
      viewers uuid[]
    );
    create table disposal_item (
      record_id uuid not null references disposal on delete cascade,
      conversation_id uuid not null,
      -- As it was shown; one that has changed since is taken off the record and stays.
      version int not null,
      goes boolean not null,
      -- False where a part alone is on the record: it is taken off, and no certificate counts it.
      is_whole boolean not null,
      is_done boolean not null default false,
      -- Of what went: a line for each message, and what they came to.
      lines jsonb,
      documents int not null default 0,
      bytes bigint not null default 0,
      primary key (record_id, conversation_id)
    );
    create index disposal_item_left on disposal_item (record_id) where not is_done;
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
