import type { Knex } from "knex";

export async function up(knex: Knex): Promise<void> {
  await knex.raw(/* sql */ `
    -- The mailing list that a conversation came through (RFC 2919), so that all of one list is found and settled at once.
    alter table conversation add column list_id text;
    update conversation set list_id = (select lower(trim(coalesce(substring(list_id from '<([^<>]+)>'), list_id))) from message
      where message.conversation_id = conversation.id and list_id is not null order by version desc limit 1)
    where exists (select 1 from message where message.conversation_id = conversation.id and list_id is not null);
    create index conversation_of_list on conversation (tray_id, list_id, last_message_at desc) where list_id is not null;
    create index conversation_bin on conversation (standing_since) where standing = 'bin';

    -- How to leave the list of a message (RFC 2369, RFC 8058).
    alter table message add column unsubscribe jsonb;

    -- After how many days the bin is emptied of what lies in it; null never empties it.
    alter table tray add column bin_days int default 30 check (bin_days > 0);

    create table junk_sender (
      tray_id uuid not null references tray,
      address text not null,
      by_member_id uuid not null references member,
      at timestamptz not null,
      primary key (tray_id, address)
    );
  `);
}

export async function down(): Promise<void> {
  throw new Error("migrations only go forward; restore a backup to go back");
}
