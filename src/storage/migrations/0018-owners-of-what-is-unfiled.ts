import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- Who owns what has a category and is on no record is counted by itself: who has a record has the rest.
    insert into filing_owner (tray_id, feature, label, period, given)
    select tray_id, 'u:' || substr(category, 3), owner, period, count(*)::int
    from filing_lesson join conversation on conversation.id = conversation_id,
      unnest(labels) as category, unnest(labels) as owner
    where category like 'c:%' and owner like 'o:%'
      and not exists (select from unnest(labels) as given where given like 'r:%' and given <> 'r:-')
    group by 1, 2, 3, 4;
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
