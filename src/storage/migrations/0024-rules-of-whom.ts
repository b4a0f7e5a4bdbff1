import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- Whose a rule is; null for the tray's. And whether it is asked in all trays.
    alter table rule
      add column member_id uuid references member,
      add column everywhere boolean not null default false;
    alter table rule_version add column everywhere boolean not null default false;

    -- What comes again is known again; whom it is from is no longer kept beside the mail itself.
    update rule_proposal set key = encode(sha256(convert_to(key, 'UTF8')), 'hex');

    -- A reminder that a rule began is written when it goes, in this style.
    alter table reminder
      alter column html drop not null,
      add column tone text,
      add column language text,
      add constraint reminder_has_words check (html is not null or (tone is not null and language is not null));
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
