import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    alter table shared_draft rename to draft;
    alter index shared_draft_open rename to draft_shared;
    alter index shared_draft_holder rename to draft_to_check;
    -- Null for a first message; and drafts that nobody but their writer writes on.
    alter table draft
      alter column conversation_id drop not null,
      drop constraint shared_draft_state_check,
      add constraint draft_state_check check (state in ('own', 'to-check', 'returned', 'sent', 'given-up')),
      add constraint draft_shared_answers check (conversation_id is not null or state not in ('to-check', 'returned'));
    create index draft_own on draft (written_by, tray_id, updated_at desc) where state in ('own', 'given-up');
    create index draft_own_of_conversation on draft (conversation_id) where state = 'own';
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
