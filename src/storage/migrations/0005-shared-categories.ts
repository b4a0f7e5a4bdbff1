import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    alter table category add column description text not null default '';
    alter table category add column key text;
    -- When it stands in lists: always, while something open has it, or only when looked for.
    alter table category add column listed text not null default 'open' check (listed in ('always', 'open', 'never'));
    alter table category add column retired_at timestamptz;
    -- Kept when it is no more: the journal names it, and what had it has its successor since, or none.
    alter table category add column removed_at timestamptz;
    alter table category add column replaced_by uuid references category;
    create index category_removed on category (removed_at) where removed_at is not null;

    -- Every change of categories, with the rows that it changed as they were and as they are.
    create table category_step (
      id uuid primary key,
      -- Null for categories of all trays.
      tray_id uuid references tray,
      at timestamptz not null,
      by_member_id uuid not null references member,
      words text not null,
      changed jsonb not null,
      undone_at timestamptz,
      undone_by_member_id uuid references member
    );
    create index category_step_recent on category_step (at desc);

    -- Who may create and change the categories of a tray.
    alter table tray add column categories_by text not null default 'leads' check (categories_by in ('leads', 'members'));

    -- What the team decided, counted by what conversations showed before: how often each label was given where a feature was
    -- there. A lesson is a conversation as it is counted, so that it can be counted otherwise when it is decided otherwise.
    create table filing_lesson (
      conversation_id uuid primary key references conversation on delete cascade,
      features text[] not null,
      labels text[] not null,
      -- The kinds of decision that proposals were held against.
      judged text[] not null
    );
    create table filing_count (
      tray_id uuid not null references tray,
      feature text not null,
      label text not null,
      given int not null,
      primary key (tray_id, feature, label)
    );
    create index filing_count_most on filing_count (tray_id, feature, given desc) include (label);
    -- How often what was proposed with some confidence was right, by tenths.
    create table filing_record (
      tray_id uuid not null references tray,
      kind text not null check (kind in ('file', 'categorise', 'assign', 'settle')),
      band smallint not null,
      said int not null,
      was_right int not null,
      primary key (tray_id, kind, band)
    );

    -- Without what has none: a conversation that arrives costs nothing here.
    create index conversation_categories on conversation using gin (category_ids) where category_ids <> '{}';
    create index journal_category on journal ((effect->>'categoryId'), at) where effect->>'categoryId' is not null;
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
