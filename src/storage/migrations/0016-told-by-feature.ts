import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- Categories and records, as short as a count of them can name them.
    create table filing_label (
      id int generated always as identity primary key,
      tray_id uuid not null references tray,
      label text not null,
      unique (tray_id, label)
    );

    -- What was decided where a feature was, in one row: a letter asks for some eighty of them.
    create table filing_told (
      tray_id uuid not null references tray,
      feature text not null,
      decided int not null default 0,
      settled int not null default 0,
      unfiled int not null default 0,
      -- The labels of categories and of records, and how often each was given.
      categories int[] not null default '{}',
      category_given int[] not null default '{}',
      records int[] not null default '{}',
      record_given int[] not null default '{}',
      primary key (tray_id, feature),
      check (cardinality(categories) = cardinality(category_given)),
      check (cardinality(records) = cardinality(record_given))
    );

    insert into filing_label (tray_id, label)
    select distinct tray_id, label from filing_count
    where label like 'c:%' or (label like 'r:%' and label <> 'r:-') order by tray_id, label;

    insert into filing_told
    select counted.tray_id, case when feature like '*%' then '*' else feature end,
      coalesce(sum(given) filter (where counted.label = '*'), 0),
      coalesce(sum(given) filter (where counted.label = 's'), 0),
      coalesce(sum(given) filter (where counted.label = 'r:-'), 0),
      coalesce(array_agg(id order by id) filter (where counted.label like 'c:%'), '{}'),
      coalesce(array_agg(given order by id) filter (where counted.label like 'c:%'), '{}'),
      coalesce(array_agg(id order by id) filter (where counted.label like 'r:%' and id is not null), '{}'),
      coalesce(array_agg(given order by id) filter (where counted.label like 'r:%' and id is not null), '{}')
    from filing_count as counted left join filing_label using (tray_id, label)
    where given <> 0 group by 1, 2;

    drop table filing_count;

    -- The same, a count a row, for whoever compares.
    create view filing_count as
    select tray_id, feature, plain.label, plain.given
    from filing_told, lateral (values ('*', decided), ('s', settled), ('r:-', unfiled)) as plain(label, given)
    where plain.given <> 0
    union all
    select told.tray_id, feature, filing_label.label, one.given
    from filing_told as told, unnest(categories || records, category_given || record_given) as one(id, given)
      join filing_label using (id);
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
