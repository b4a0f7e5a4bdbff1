import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    create table template (
      id uuid primary key,
      -- Of a tray, of a member, or common to all trays, which has neither.
      tray_id uuid references tray,
      member_id uuid references member,
      name text not null,
      folder text not null,
      key text not null,
      language text not null,
      description text not null,
      subject text not null,
      html text not null,
      habits jsonb not null,
      version int not null,
      created_at timestamptz not null,
      removed_at timestamptz,
      constraint template_of_one check (tray_id is null or member_id is null)
    );
    create index template_here on template (tray_id, member_id) where removed_at is null;

    -- The messages that began with a template; a message may be deleted before this is.
    create table template_use (
      message_id uuid primary key,
      template_id uuid not null references template,
      tray_id uuid not null references tray,
      member_id uuid not null references member,
      conversation_id uuid not null references conversation on delete cascade,
      used_at timestamptz not null
    );
    create index template_use_of on template_use (tray_id, template_id, used_at desc);
    create index template_use_lately on template_use (tray_id, used_at desc);
    create index template_use_in on template_use (conversation_id);
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
