import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    create table record_type (
      id uuid primary key,
      name text not null,
      -- See core/records/code-pattern.
      code_pattern text not null,
      fields jsonb not null default '[]',
      position int not null
    );
    create unique index record_type_name on record_type (lower(name));
    insert into record_type (id, name, code_pattern, position) values
      ('01900000-0000-7000-8000-00000000c11e', 'Client', 'C-{nnn}', 0),
      ('01900000-0000-7000-8000-00000000b0b0', 'Project', 'P-{yy}-{nnn}', 1);

    -- The last number that was given in each series of codes.
    create table record_series (
      type_id uuid not null references record_type,
      series text not null,
      last int not null,
      primary key (type_id, series)
    );

    alter table record add column type_id uuid references record_type;
    update record set type_id = (select id from record_type where lower(name) = kind);
    alter table record alter column type_id set not null, drop column kind;
    alter table record
      add column responsible_id uuid references member,
      add column note text not null default '',
      add column version int not null default 0,
      -- What it was merged into: it is found no more, and its code leads there.
      add column merged_into uuid references record,
      -- Who may know of it as it says itself, null for whoever may know of what it stands under; and all in all, null for everybody.
      add column access_members uuid[],
      add column access_groups uuid[],
      add column viewers uuid[];
    create index record_parent on record (parent_id);
    create index record_merged on record (merged_into) where merged_into is not null;
    create index record_restricted on record (id) where viewers is not null;

    create table record_address (
      record_id uuid not null references record on delete cascade,
      address text not null,
      primary key (record_id, address)
    );
    create index record_address_of on record_address (address);

    -- What was done to the register, in words that stay true.
    create table record_step (
      id uuid primary key,
      record_id uuid not null references record on delete cascade,
      at timestamptz not null,
      by_member_id uuid references member,
      words text not null
    );
    create index record_step_of on record_step (record_id, at);
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
