import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- Who came in, failed to, changed rights, or took mail out; with a term of its own.
    create table access_event (
      id uuid primary key,
      at timestamptz not null,
      kind text not null,
      deed jsonb not null,
      tray_id uuid references tray on delete cascade,
      by_member_id uuid references member,
      about_member_id uuid references member,
      record_id uuid references record on delete set null,
      address text not null,
      device text not null
    );
    create index access_event_age on access_event (at, id);
    create index access_event_record on access_event (record_id) where record_id is not null;

    -- Whose matters somebody else has, from when to when: who is let in again has what is given from then on.
    create table owner_replacement (
      member_id uuid not null references member,
      at timestamptz not null,
      successor_id uuid references member,
      until timestamptz,
      primary key (member_id, at)
    );
    insert into owner_replacement (member_id, at, successor_id)
      select id, disabled_at, successor_id from member where disabled_at is not null;
    alter table member drop column successor_id;
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
