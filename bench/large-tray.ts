import { Client } from "pg";

const TRAYS = 20;
const CONVERSATIONS = 200_000;

/** Fills a database with 200,000 conversations, half of them in the office's tray, the rest in 19 others, a twentieth open: rows only, for questions that list. */
export async function fillLargeTray(url: string): Promise<void> {
  const client = new Client({ connectionString: url });
  await client.connect();
  await client.query(`
    insert into tray (id, slug, name, time_zone, created_at)
      select gen_random_uuid(), 'bench-' || n, 'Bench ' || n, 'UTC', '2026-01-01' from generate_series(1, ${TRAYS - 1}) n`);
  await client.query(`
    insert into record (id, code, type_id, title, created_at)
      select gen_random_uuid(), 'B-' || n, (select id from record_type where name = 'Project'), 'Record ' || n, '2026-01-01'
      from generate_series(1, 200) n`);
  await client.query(`
    insert into category (id, code, name, ink, position)
      select gen_random_uuid(), 'B' || n, 'Category ' || n, 'moss', n from generate_series(1, 20) n`);
  await client.query(`
    with trays as (select array_agg(id order by slug desc) as ids, (array_agg(id) filter (where slug = 'office'))[1] as office from tray),
      owners as (select array_agg(id) as ids from member),
      records as (select array_agg(id) as ids from record),
      categories as (select array_agg(id) as ids from category)
    insert into conversation (id, tray_id, created_at, version, subject, who, who_address, newest_text, message_count, last_message_at,
      last_in_at, standing, standing_since, standing_reason, turn, turn_since, owner_id, category_ids, record_ids,
      expected_at, resting_until, marks)
    select gen_random_uuid(), case when n % 2 = 0 then trays.office else trays.ids[1 + n % ${TRAYS}] end, at, 5, 'Swell box number ' || n, 'Wilf Pargeter ' || n % 900, 'wilf' || n % 900 || '@pargeter.example',
      'It started again during the litany, and the bishop looked up at number ' || n, 5, at, at,
      case when n % 40 < 38 then 'settled' else (array['to-sort','our-move','waiting','resting'])[1 + (n / 40) % 4] end,
      at, '{"kind": "arrived", "who": "Wilf"}', 'us', at, owners.ids[1 + n % array_length(owners.ids, 1)],
      array[categories.ids[1 + n % 20], categories.ids[1 + (n / 7) % 20]], array[records.ids[1 + n % 200]],
      at + interval '5 days', null,
      jsonb_build_array(jsonb_build_array(extract(epoch from at) * 1000, 't'), jsonb_build_array(extract(epoch from at) * 1000 + 1000, 'w'))
    from generate_series(1, ${CONVERSATIONS}) n, trays, owners, records, categories,
      lateral (select timestamptz '2026-11-24 09:00+00' - n * interval '38 seconds' as at) moment`);
  await client.query("vacuum analyze");
  await client.end();
}
