import { Client } from "pg";

const MESSAGES_EACH = 5;
/** What one conversation in so many is: in the bin for long enough, or filed on the record. */
const ONE_BINNED = 20;
const ONE_FILED = 100;

/**
 * Fills the office's tray with a million messages in 200,000 conversations, with their bytes, texts, search vectors, ids of
 * threads and journals: one conversation in twenty has lain in the bin for longer than its term, one in a hundred is settled
 * and filed on a record. Rows only.
 */
export async function fillMillionMessages(url: string, recordId: string, conversations: number): Promise<void> {
  const client = new Client({ connectionString: url });
  await client.connect();
  await client.query("set synchronous_commit = off; set maintenance_work_mem = '512MB'");
  await client.query(
    `insert into conversation (id, tray_id, created_at, version, subject, who, who_address, newest_text, message_count,
      last_message_at, last_in_at, standing, standing_since, standing_reason, turn, turn_since, owner_id, category_ids,
      record_ids, marks)
    select md5('c' || n)::uuid, tray.id, at, ${MESSAGES_EACH} + 1, 'Swell box number ' || n, 'Wilf Pargeter',
      'wilf' || n % 900 || '@pargeter.example', 'It started again during the litany', ${MESSAGES_EACH}, at, at,
      case when n % ${ONE_BINNED} = 1 then 'bin' else 'settled' end, at, '{"kind": "arrived", "who": "Wilf"}', 'us', at, null, '{}',
      case when n % ${ONE_FILED} = 2 then array[$2::uuid] else '{}' end, '[]'
    from generate_series(1, $1::int) n, (select id from tray where slug = 'office') tray,
      lateral (select timestamptz '2026-09-01' - n * interval '38 seconds' as at) moment`,
    [conversations, recordId],
  );
  await client.query(
    `insert into journal (id, conversation_id, tray_id, version, at, by_member_id, batch_id, effect, kind)
    select md5('j' || n)::uuid, md5('c' || n)::uuid, tray.id, ${MESSAGES_EACH} + 1, timestamptz '2026-09-01', null,
      md5('b' || n)::uuid, effect, effect->>'kind'
    from generate_series(1, $1::int) n, (select id from tray where slug = 'office') tray,
      lateral (select case when n % ${ONE_BINNED} = 1 then jsonb_build_object('kind', 'binned')
        when n % ${ONE_FILED} = 2 then jsonb_build_object('kind', 'filed', 'recordId', $2::text)
        else jsonb_build_object('kind', 'settled') end as effect) one`,
    [conversations, recordId],
  );
  await client.query(`
    insert into blob (sha256, size, content)
    select decode(md5('m' || n) || md5('x' || n), 'hex'), 600, convert_to(repeat('The bishop looked up at number ' || n, 12), 'utf8')
    from generate_series(1, ${conversations * MESSAGES_EACH}) n`);
  await client.query(`
    insert into message (id, tray_id, conversation_id, version, direction, kind, kind_reason, message_id, in_reply_to,
      reference_ids, subject, from_name, from_address, recipients, sent_at, received_at, raw_sha256, has_html,
      failed_recipients, attachments, warnings, dedupe_key)
    select md5('m' || n)::uuid, tray.id, md5('c' || 1 + (n - 1) / ${MESSAGES_EACH})::uuid, 1 + (n - 1) % ${MESSAGES_EACH}, 'in',
      'person', '', 'm' || n || '@bench.example', '{}', '{}', 'Swell box', 'Wilf Pargeter', 'wilf' || n % 900 || '@pargeter.example',
      '{"to": [], "cc": [], "replyTo": []}', at, at, decode(md5('m' || n) || md5('x' || n), 'hex'), false, '[]', '[]', '{}',
      decode(md5('d' || n), 'hex')
    from generate_series(1, ${conversations * MESSAGES_EACH}) n, (select id from tray where slug = 'office') tray,
      lateral (select timestamptz '2026-09-01' - n * interval '7 seconds' as at) moment`);
  await client.query(`
    insert into message_text (message_id, own_text, rest_text)
    select id, 'It started again during the litany, and the bishop looked up at ' || from_address, '' from message;
    insert into message_search (message_id, tray_id, conversation_id, sent_at, vector)
    select id, tray_id, conversation_id, sent_at, to_tsvector('simple', 'started litany bishop ' || from_address || ' ' || message_id) from message;
    insert into thread_link (tray_id, message_id, conversation_id) select tray_id, message_id, conversation_id from message;
    insert into arrival_route (message_id, address, sender, at) select id, 'office@ottermoor.example', '', received_at from message`);
  await client.query("vacuum analyze");
  await client.end();
}
