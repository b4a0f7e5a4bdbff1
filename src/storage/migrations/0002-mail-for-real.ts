import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- Encoded attachments stand once per content: what is cut out of a message, and where it goes back in.
    alter table blob add column runs jsonb;

    alter table conversation add column base_subject text not null default '';
    alter table conversation add column joined_to uuid references conversation;
    create index conversation_subject on conversation (tray_id, base_subject, last_message_at desc)
      where base_subject <> '' and joined_to is null;

    alter table message add column list_id text;
    alter table message add column protection text;
    alter table message add column trust jsonb;
    alter table message add column has_remote boolean not null default false;
    alter table message add column is_new_participant boolean not null default false;
    alter table message drop constraint message_delivery_check;
    alter table message add constraint message_delivery_check
      check (delivery in ('waiting', 'going', 'sent', 'failed', 'withdrawn'));
    alter table message add column asks_report boolean not null default false;
    alter table message add column leaves_at timestamptz;
    create index message_sent_recent on message (delivery_at) where delivery in ('going', 'sent');
    create index message_outgoing on message (tray_id, received_at desc)
      where delivery in ('waiting', 'going', 'failed');

    create index message_from_name on message (tray_id, from_name) where direction = 'in';

    create table arrival_route (
      message_id uuid not null references message,
      address text not null,
      sender text not null,
      list_id text,
      at timestamptz not null,
      primary key (message_id, address)
    );

    create table outgoing_recipient (
      message_id uuid not null references message,
      tray_id uuid not null references tray,
      address text not null,
      sent_at timestamptz not null,
      state text not null check (state in ('given', 'delivered', 'relayed', 'delayed', 'failed')),
      detail text not null,
      reported_at timestamptz,
      primary key (message_id, address)
    );
    create index outgoing_recipient_address on outgoing_recipient (tray_id, address, sent_at desc);

    create table remote_content_sender (
      tray_id uuid not null references tray,
      address text not null,
      by_member_id uuid not null references member,
      at timestamptz not null,
      primary key (tray_id, address)
    );

    create table import_run (
      id uuid primary key,
      tray_id uuid not null references tray,
      by_member_id uuid references member,
      file_name text not null,
      as_history boolean not null,
      state text not null check (state in ('receiving', 'waiting', 'running', 'done', 'cancelled', 'failed')),
      bytes bigint not null,
      bytes_read bigint not null,
      messages int not null,
      added int not null,
      known_already int not null,
      flagged int not null,
      problem text,
      created_at timestamptz not null,
      progress_at timestamptz,
      ended_at timestamptz
    );
    create index import_run_recent on import_run (tray_id, created_at desc);

    create table import_chunk (
      import_id uuid not null references import_run on delete cascade,
      position int not null,
      content bytea compression lz4 not null,
      primary key (import_id, position)
    );

    create table mail_source (
      id uuid primary key,
      tray_id uuid not null references tray,
      host text not null,
      port int not null,
      secure boolean not null,
      user_name text not null,
      password_variable text not null,
      mailbox text not null,
      uid_validity bigint,
      last_uid bigint not null,
      problem text,
      checked_at timestamptz
    );
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
