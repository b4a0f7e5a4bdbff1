import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- A file that is to go with a message which somebody is writing.
    create table enclosure (
      id uuid primary key,
      tray_id uuid not null references tray,
      by_member_id uuid not null references member,
      sha256 bytea not null references blob,
      file_name text not null,
      content_type text not null,
      size int not null,
      at timestamptz not null
    );
    create index enclosure_blob on enclosure (sha256);
    create index enclosure_age on enclosure (at);

    -- Which blobs some bytes were cut out of.
    create index blob_cut on blob using gin (runs jsonb_path_ops) where runs is not null;

    -- Mail that is taken out as a zip: what of, how far it is, and the zip itself in pieces until it is forgotten.
    create table parcel (
      id uuid primary key,
      tray_id uuid not null references tray,
      by_member_id uuid not null references member,
      -- A disposed record takes along what was taken out of it here.
      record_id uuid references record on delete cascade,
      text text not null,
      everywhere boolean not null,
      format text not null check (format in ('eml', 'mbox')),
      with_notes boolean not null,
      name text not null,
      state text not null check (state in ('waiting', 'running', 'done', 'cancelled', 'failed')),
      done int not null default 0,
      total int not null default 0,
      bytes bigint not null default 0,
      problem text,
      created_at timestamptz not null,
      progress_at timestamptz not null,
      ended_at timestamptz
    );
    create index parcel_of on parcel (tray_id, by_member_id, created_at);
    create index parcel_record on parcel (record_id);
    create table parcel_piece (
      parcel_id uuid not null references parcel on delete cascade,
      position int not null,
      content bytea not null,
      primary key (parcel_id, position)
    );

    -- What an import takes in: mail, or a record that was taken out, which is then there.
    alter table import_run
      add column takes text not null default 'mail' check (takes in ('mail', 'record')),
      add column record_id uuid references record on delete set null,
      add column said text;

    -- The words of files, by which they and the messages that carry them are found; those of a file on a record are null
    -- until it has been read.
    alter table message add column documents_read boolean not null default false;
    create index message_documents_unread on message (id) where not documents_read and attachments <> '[]';
    create table attachment_words (
      message_id uuid not null references message,
      attachment int not null,
      vector tsvector not null,
      primary key (message_id, attachment)
    );
    alter table record_document add column vector tsvector;
    create index record_document_unread on record_document (id) where vector is null;
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
