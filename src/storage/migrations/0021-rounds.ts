import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    create table round (
      id uuid primary key,
      tray_id uuid not null references tray,
      name text not null,
      -- Minutes after midnight of the tray's own clock, in order.
      times smallint[] not null check (cardinality(times) > 0),
      removed_at timestamptz
    );
    create unique index round_name on round (tray_id, lower(name)) where removed_at is null;

    -- What is held is held for one of these, as the facts say.
    alter table conversation add column held_for uuid;
    create index conversation_held on conversation (tray_id, held_for, standing_since) where standing = 'held';
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
