import type { TestTray } from "./test-database";

/** As if the one message there is had come so many times: all of it but what makes it one conversation. */
export async function manyOfIt(tray: TestTray, many: number): Promise<void> {
  await tray.ask(`
    create temp table copied as select gen_random_uuid() as id, n from generate_series(1, ${many - 1}) as n;
    insert into conversation (id, tray_id, created_at, version, subject, base_subject, who, who_address, newest_text,
      message_count, last_message_at, last_in_at, standing, standing_since, standing_reason, turn, turn_since,
      category_ids, record_ids, marks)
    select copied.id, tray_id, created_at, version, subject, '', who, who_address, newest_text, message_count,
      last_message_at, last_in_at, standing, standing_since, standing_reason, turn, turn_since, category_ids, record_ids, marks
    from copied, conversation;
    insert into message (id, tray_id, conversation_id, version, direction, kind, kind_reason, message_id, in_reply_to,
      reference_ids, subject, from_name, from_address, recipients, sent_at, received_at, raw_sha256, has_html,
      failed_recipients, attachments, warnings, dedupe_key)
    select gen_random_uuid(), tray_id, copied.id, version, direction, kind, kind_reason, message_id, in_reply_to,
      reference_ids, subject, from_name, from_address, recipients, sent_at, received_at, raw_sha256, has_html,
      failed_recipients, attachments, warnings, decode(md5(copied.n::text), 'hex')
    from copied, message;`);
}
