import { createHash } from "node:crypto";
import { Client } from "pg";
import { featuresOf, wordFeatures } from "~/core/filing/features";
import { judge } from "~/core/filing/judge";
import { propose } from "~/core/filing/propose";
import { labelsOfStream, type StreamEvent, type StreamLetter } from "~/core/filing/stream";
import { TrayLessons } from "~/core/filing/tray-lessons";
import { type ConversationId, trustedId } from "~/core/kernel/ids";
import { instant } from "~/core/kernel/instant";
import { type Deps, listMembers, traysOf } from "~/operations/index.server";
import { evidenceFor } from "~/storage/facts/index";
import { onThisMachine } from "../tests/support/pace";
import { driftingTray } from "./drifting-tray";
import { type Figure, percentile, plain } from "./measure";

const LESSONS = 200_000;
const ASKED_FOR = 200;
const SEED = 3;
const [MOST_MIDDLE_MS, MOST_95_MS] = [5, 12];
// So many rows go in one statement.
const AT_ONCE = 10_000;

/** How long one proposal takes from a database in which so much was learned, and how much that database holds of it. */
export async function speedFigures(deps: Deps, url: string): Promise<Figure[]> {
  const client = new Client({ connectionString: url });
  await client.connect();
  const events = await withRows(client, driftingTray(LESSONS + ASKED_FOR, SEED).events);
  const letters = events.filter((event) => event.event === "conversation");
  await fillLessons(client, letters.slice(0, LESSONS));
  const held = await heldMb(client);
  const ids = await unanswered(client, letters.slice(LESSONS));
  await client.end();
  const times = await timesOf(deps, ids, letters[LESSONS]?.at ?? 0);
  const timed = (name: string, measured: number, most: number) => {
    const here = onThisMachine(most);
    const asked = `at most ${most} ms where nothing else runs, ${here.toFixed(1)} ms on this machine now`;
    return plain(`one proposal after ${LESSONS} conversations, ${name}`, "ms", measured, asked, measured <= here);
  };
  return [
    timed("in the middle", percentile(times, 0.5), MOST_MIDDLE_MS),
    timed("95th percentile", percentile(times, 0.95), MOST_95_MS),
    plain("what was learned, per 10,000 conversations", "MB", (held * 10_000) / LESSONS),
  ];
}

const uuidOf = (name: string) =>
  createHash("md5")
    .update(name)
    .digest("hex")
    .replace(/(.{8})(.{4})(.{4})(.{4})(.{12})/, "$1-$2-$3-$4-$5");

// Records, categories and colleagues get rows, so that they can be proposed; all conversations are in one tray.
async function withRows(client: Client, events: readonly StreamEvent[]): Promise<StreamEvent[]> {
  const members: string[] = (await client.query("select id from member order by id")).rows.map(({ id }) => id);
  const memberOf = (id: string | null) =>
    id === null ? null : (members[Number(id.split("-")[1]) % members.length] ?? null);
  const records = events.flatMap((event) =>
    event.event === "record"
      ? [{ id: uuidOf(event.id), code: event.code, title: event.title, words: wordFeatures(event.title) }]
      : [],
  );
  const categories = new Set(
    events.flatMap((event) => (event.event === "conversation" ? event.decided.categories : [])),
  );
  await client.query(
    `insert into record (id, code, type_id, title, title_words, created_at)
     select id, code, (select id from record_type where name = 'Project'), title, words, '2025-01-01'
     from jsonb_to_recordset($1::jsonb) as r(id uuid, code text, title text, words text[])`,
    [JSON.stringify(records)],
  );
  await client.query(
    `insert into category (id, code, name, ink, position)
     select id, 'D' || at, 'Category D' || at, 'moss', 100 + at from unnest($1::uuid[]) with ordinality as c(id, at)`,
    [[...categories].map(uuidOf)],
  );
  await client.query("update conversation set tray_id = (select id from tray where slug = 'office')");
  return events.map((event) => {
    if (event.event !== "conversation") return event;
    const { owner, categories: given, record } = event.decided;
    const decided = {
      ...event.decided,
      owner: memberOf(owner),
      categories: given.map(uuidOf),
      record: record === null ? null : uuidOf(record),
    };
    return { ...event, decided };
  });
}

const featuresOfStream = ({ from, listId, subject, text }: StreamLetter) =>
  featuresOf({ from: from.address, listId, subject, ownText: text });

// As the decisions of a tray of that size would have left them.
async function fillLessons(client: Client, letters: readonly StreamLetter[]): Promise<void> {
  const lessons = new TrayLessons();
  const rows = letters.map((letter) => {
    const [features, labels] = [featuresOfStream(letter), labelsOfStream(letter.decided)];
    lessons.learn(features, [], labels, instant(letter.at));
    return { who: letter.from.address, features, labels };
  });
  const counted = Object.entries(lessons.everything()).map(([key, given]) => {
    const [feature, label, period] = key.split(" ");
    return { feature, label, period, given };
  });
  await client.query("create temporary table counted (feature text, label text, period int, given int)");
  await inParts(counted, (part) =>
    client.query(
      `insert into pg_temp.counted select * from jsonb_to_recordset($1::jsonb) as c(feature text, label text, period int, given int)`,
      [JSON.stringify(part)],
    ),
  );
  for (const statement of KEEP_COUNTS) await client.query(statement);
  const ids: string[] = (await client.query("select id from conversation order by id limit $1", [LESSONS])).rows.map(
    ({ id }) => id,
  );
  await inParts(
    rows.map((row, at) => ({ ...row, id: ids[at] })),
    (part) => client.query(KEEP_LESSONS, [JSON.stringify(part)]),
  );
  await client.query("vacuum analyze filing_told, filing_label, filing_owner, filing_lesson, conversation");
}

const KEEP_COUNTS = [
  `insert into filing_owner (tray_id, feature, label, period, given)
   select tray.id, feature, label, period, given from counted, tray where slug = 'office' and period is not null`,
  `insert into filing_label (tray_id, label)
   select distinct tray.id, label from counted, tray
   where slug = 'office' and period is null and (label like 'c:%' or (label like 'r:%' and label <> 'r:-'))`,
  `insert into filing_told
   select tray.id, feature, coalesce(sum(given) filter (where counted.label = '*'), 0),
     coalesce(sum(given) filter (where counted.label = 's'), 0), coalesce(sum(given) filter (where counted.label = 'r:-'), 0),
     coalesce(array_agg(known.id order by known.id) filter (where known.label like 'c:%'), '{}'),
     coalesce(array_agg(given order by known.id) filter (where known.label like 'c:%'), '{}'),
     coalesce(array_agg(known.id order by known.id) filter (where known.label like 'r:%'), '{}'),
     coalesce(array_agg(given order by known.id) filter (where known.label like 'r:%'), '{}')
   from counted cross join tray left join filing_label as known on known.tray_id = tray.id and known.label = counted.label
   where slug = 'office' and period is null group by tray.id, feature`,
];

const KEEP_LESSONS = `
  with lesson as (select * from jsonb_to_recordset($1::jsonb) as l(id uuid, who text, features text[], labels text[])),
  lettered as (update conversation set who_address = lesson.who from lesson where conversation.id = lesson.id)
  insert into filing_lesson (conversation_id, features, labels, judged, period) select id, features, labels, '{}', 0 from lesson`;

async function inParts<Row>(rows: readonly Row[], put: (part: readonly Row[]) => Promise<unknown>): Promise<void> {
  for (let at = 0; at < rows.length; at += AT_ONCE) await put(rows.slice(at, at + AT_ONCE));
}

async function heldMb(client: Client): Promise<number> {
  const { rows } = await client.query(
    `select sum(pg_total_relation_size(name::regclass))::float8 / 1e6 as mb
     from unnest(array['filing_told', 'filing_label', 'filing_owner', 'filing_lesson', 'filing_weight', 'filing_record']) as name`,
  );
  return rows[0].mb;
}

// The next letters of that tray, in conversations that nobody has decided about.
async function unanswered(client: Client, letters: readonly StreamLetter[]): Promise<ConversationId[]> {
  const asked = letters.map((letter) => ({
    id: uuidOf(`letter ${letter.id}`),
    who: letter.from.address,
    subject: letter.subject,
    text: letter.text,
  }));
  await client.query(
    `with letter as (select * from jsonb_to_recordset($1::jsonb) as l(id uuid, who text, subject text, text text)),
     office as (select id from tray where slug = 'office'),
     started as (insert into conversation (id, tray_id, created_at, version, subject, who, who_address, newest_text, message_count,
       last_message_at, last_in_at, standing, standing_since, standing_reason, turn, turn_since, category_ids, record_ids, marks)
       select letter.id, office.id, now(), 1, subject, who, who, '', 1, now(), now(), 'to-sort', now(),
         '{"kind": "arrived", "who": ""}', 'us', now(), '{}', '{}', '[]' from letter, office),
     raw as (insert into blob (sha256, size, content) values ('\\x01', 1, '\\x01') on conflict do nothing),
     message as (insert into message (id, tray_id, conversation_id, version, direction, kind, kind_reason, in_reply_to,
       reference_ids, subject, from_name, from_address, recipients, sent_at, received_at, raw_sha256, has_html,
       failed_recipients, attachments, warnings, dedupe_key)
       select letter.id, office.id, letter.id, 1, 'in', 'person', '', '{}', '{}', subject, '', who, '{}', now(), now(),
         '\\x01', false, '[]', '[]', '{}', decode(md5(letter.id::text), 'hex') from letter, office)
     insert into message_text (message_id, own_text, rest_text) select id, text, '' from letter`,
    [JSON.stringify(asked)],
  );
  return asked.map(({ id }) => trustedId<ConversationId>(id));
}

async function timesOf(deps: Deps, ids: readonly ConversationId[], now: number): Promise<number[]> {
  const ines = (await listMembers(deps)).find(({ signInName }) => signInName === "ines");
  const grant = ines === undefined ? undefined : (await traysOf(deps, ines)).find(({ tray }) => tray.slug === "office");
  if (grant === undefined) throw new Error("nobody may look into the office");
  const given = { ownerId: null, categoryIds: [], recordIds: [] };
  let proposed = 0;
  const one = async (id: ConversationId) => {
    const start = performance.now();
    const known = await evidenceFor(deps.db, grant, id, instant(now));
    if (known !== null) proposed += propose(judge(known.asked, known.evidence), known.evidence, given).length;
    return performance.now() - start;
  };
  const times: number[] = [];
  // The first round makes the statements ready and fills the cache, as a day's work does.
  for (const id of ids) await one(id);
  for (const id of ids) times.push(await one(id));
  if (proposed === 0) throw new Error("nothing was proposed, so nothing was measured");
  return times;
}
