import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- By these a record is found in a letter that names what its title names, before anything was filed to it.
    alter table record add column title_words text[] not null default '{}';
    update record set title_words = array(
      select distinct 'w:' || lower(word[1]) from regexp_matches(normalize(title, NFKC), '[[:alnum:]''’-]+', 'g') as word
      where length(word[1]) between 2 and 24 and word[1] ~ '[[:alpha:]]');
    create index record_open_title_words on record using gin (title_words) where closed_at is null and merged_into is null;
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
