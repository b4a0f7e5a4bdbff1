import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- No list shows what has become a part of another conversation: without it, days are counted from the index alone.
    drop index conversation_listed;
    create index conversation_listed on conversation (tray_id, standing, listed_at desc, id desc) where joined_to is null;
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
