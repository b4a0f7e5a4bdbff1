import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    alter table conversation add column urgency smallint not null default 1;
    alter table conversation add column who_address text not null default '';
    alter table conversation add column has_attachment boolean not null default false;
    alter table conversation add column woken_at timestamptz;
    alter table conversation add column follow_up_at timestamptz;
    update conversation set
      who_address = coalesce((select from_address from message where conversation_id = conversation.id
        and direction = 'in' and kind = 'person' order by sent_at desc limit 1), ''),
      has_attachment = exists (select 1 from message
        where conversation_id = conversation.id and attachments @> '[{"inline": false}]');

    -- What lists are in order of: a conversation that comes back from a rest stands on top again.
    alter table conversation add column listed_at timestamptz
      generated always as (greatest(last_message_at, woken_at)) stored;
    alter table conversation add column due_at timestamptz
      generated always as (least(case when standing = 'waiting' then expected_at end,
        case when standing = 'resting' then resting_until end, follow_up_at)) stored;
    drop index conversation_list;
    create index conversation_listed on conversation (tray_id, standing, listed_at desc, id desc);
    create index conversation_owner on conversation (tray_id, standing, owner_id);
    create index conversation_person on conversation (tray_id, who_address, last_message_at desc);

    create table follow_up (
      id uuid primary key,
      tray_id uuid not null references tray,
      conversation_id uuid not null references conversation,
      for_member_id uuid not null references member,
      set_by_member_id uuid references member,
      due_at timestamptz,
      text text not null,
      done_at timestamptz
    );
    create index follow_up_conversation on follow_up (conversation_id);
    create index follow_up_open on follow_up (tray_id, for_member_id, due_at) where done_at is null;

    create table member_setting (
      member_id uuid not null references member,
      key text not null,
      value jsonb not null,
      primary key (member_id, key)
    );

    create table place (
      id uuid primary key,
      tray_id uuid not null references tray,
      -- Null stands on everybody's shelf.
      member_id uuid references member,
      kind text not null check (kind in ('record', 'category', 'member', 'view')),
      target text not null,
      name text not null,
      folder text not null,
      position int not null
    );
    create index place_shelf on place (tray_id, member_id, position);

    create table saved_view (
      id uuid primary key,
      tray_id uuid not null references tray,
      member_id uuid not null references member,
      name text not null,
      scope text not null,
      query text not null,
      created_at timestamptz not null
    );
    create index saved_view_tray on saved_view (tray_id, member_id, name);

    create table bulk_run (
      id uuid primary key,
      tray_id uuid not null references tray,
      by_member_id uuid not null references member,
      batch_id uuid not null,
      work jsonb not null,
      words text not null,
      state text not null check (state in ('waiting', 'running', 'done', 'cancelled', 'failed')),
      ids uuid[] not null,
      position int not null,
      changed int not null,
      problem text,
      created_at timestamptz not null,
      progress_at timestamptz,
      ended_at timestamptz
    );
    create index bulk_run_recent on bulk_run (tray_id, created_at desc);

    alter table tray add column hours jsonb;
    alter table tray add column holidays text[] not null default '{}';

    alter table journal add column redoes uuid unique references journal;
    create index journal_tray on journal (tray_id, at desc, id desc);

  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
