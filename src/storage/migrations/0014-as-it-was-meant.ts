import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- Which part of a message says more, and what its calendar parts say.
    alter table message
      add column better_part text not null default 'text' check (better_part in ('text', 'html')),
      add column appointments jsonb;
    -- Mail of lists was shown as it was sent before; of the rest "tray reparse" says which part says more.
    update message set better_part = 'html' where has_html and kind = 'list';

    -- How a member wants to see what somebody writes.
    create table shown_part (
      member_id uuid not null references member,
      address text not null,
      part text not null check (part in ('text', 'html')),
      at timestamptz not null,
      primary key (member_id, address)
    );
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
