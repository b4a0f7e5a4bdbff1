import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- At which moments a rule is asked, and from when until when.
    alter table rule
      add column moment text not null default 'arrival',
      add column valid_from timestamptz,
      add column valid_until timestamptz;

    -- What a rule was, change by change, and who changed it; the first of those that were there before is without both.
    create table rule_version (
      rule_id uuid not null references rule,
      version int not null,
      at timestamptz,
      member_id uuid references member,
      name text not null,
      is_on boolean not null,
      is_last boolean not null,
      condition jsonb not null,
      exception jsonb,
      actions jsonb not null,
      moment text not null,
      valid_from timestamptz,
      valid_until timestamptz,
      primary key (rule_id, version)
    );
    insert into rule_version (rule_id, version, name, is_on, is_last, condition, exception, actions, moment)
    select id, 1, name, is_on, is_last, condition, exception, actions, moment from rule;

    -- What is put away unread again and again, and proposed to be a rule; once for each list and sender.
    create table rule_proposal (
      id uuid primary key,
      tray_id uuid not null references tray,
      key text not null,
      put_away text not null,
      count int not null,
      -- The newest of them.
      conversation_ids uuid[] not null,
      made_at timestamptz not null,
      answered_at timestamptz,
      unique (tray_id, key)
    );
    -- When a tray's mail was last looked through for that.
    alter table tray add column routines_looked_at timestamptz;

    -- What a tray sent, newest first: what a rule about that is tried on.
    create index message_ours on message (tray_id, received_at desc, id desc) where direction = 'out';

    -- Rules answer as well, and are counted as automatic answers are.
    alter table automatic_answer_sent drop constraint automatic_answer_sent_answer_id_fkey;

    -- What a rule did, newest first.
    create index journal_rule on journal ((rule->>'id'), at desc) where rule is not null;
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
