import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- What a tray does by itself when a message comes, in the order in which it is asked.
    create table rule (
      id uuid primary key,
      tray_id uuid not null references tray,
      position int not null,
      name text not null,
      is_on boolean not null,
      conditions jsonb not null,
      exceptions jsonb not null,
      actions jsonb not null,
      is_last boolean not null,
      removed_at timestamptz
    );
    create index rule_of_tray on rule (tray_id, position) where removed_at is null;

    -- Which rule it was and why, where a rule did it.
    alter table journal add column rule jsonb;

    create table contact (
      id uuid primary key,
      tray_id uuid not null references tray,
      name text not null,
      organisation text not null,
      phone text not null,
      note text not null,
      category_ids uuid[] not null default '{}',
      removed_at timestamptz
    );
    create index contact_of_tray on contact (tray_id, lower(name)) where removed_at is null;
    create index contact_categories on contact using gin (category_ids) where category_ids <> '{}';

    -- An address is one person's.
    create table contact_address (
      tray_id uuid not null references tray,
      address text not null,
      contact_id uuid not null references contact on delete cascade,
      position int not null,
      primary key (tray_id, address)
    );
    create index contact_address_contact on contact_address (contact_id);
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
