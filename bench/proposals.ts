import { Client } from "pg";
import { featuresOf } from "~/core/filing/features";
import { countChanges } from "~/core/filing/lesson";
import { propose } from "~/core/filing/propose";
import { type ConversationId, trustedId } from "~/core/kernel/ids";
import { demoStories } from "~/demo/build-world";
import { pastStories } from "~/demo/stories-generated";
import { type Deps, listMembers, traysOf } from "~/operations/index.server";
import { evidenceFor } from "~/storage/index";
import { type MadeUp, madeUpTray } from "./made-up-tray";
import { type Figure, medianMs } from "./measure";
import { labelsOfMadeUp, printedScores, scoreProposals, toldTray } from "./proposal-scores";

const GENERATED = 20_000;
const SEED = 7;
const WORLD = 3_000;
const ASKED_RIGHT = 0.8;
const ASKED_SAID = 0.7;
const FILED_RIGHT = 0.85;
const MOST_MS = 5;

/** How good proposals are, in the demo's world and in a generated tray, and how long one takes from the database. */
export async function proposalFigures(deps: Deps, url: string): Promise<{ figures: Figure[]; lines: string[] }> {
  const demo = scoreProposals(toldTray(demoStories()));
  const world = scoreProposals(toldTray(pastStories(WORLD, SEED)));
  const all = madeUpTray(GENERATED + ASKED_FOR, SEED);
  const tray = all.slice(0, GENERATED);
  const generated = scoreProposals(tray);
  const lines = [
    ...printedScores("the demo", demo),
    ...printedScores(`the demo's world, ${WORLD} conversations`, world),
    ...printedScores(`a generated tray of ${GENERATED}`, generated),
  ];
  const quality = (["categorise", "file"] as const).map((kind): Figure => {
    const { asked, said, first } = world.get(kind) ?? { asked: 1, said: 1, first: 0 };
    return {
      name: `the demo's world, ${kind}: right of what is proposed for ${Math.round((100 * said) / asked)} %`,
      unit: "%",
      measured: (100 * first) / said,
      floor: Number.NaN,
      floorName: "",
      ratio: Number.NaN,
      asked: `at least ${100 * ASKED_RIGHT} % right at ${100 * ASKED_SAID} % proposed`,
      holds: first / said >= ASKED_RIGHT && said / asked >= ASKED_SAID,
    };
  });
  const { asked, said, first } = world.get("file")?.given ?? { asked: 1, said: 1, first: 0 };
  const filed: Figure = {
    name: `the demo's world, of what somebody filed at all: right of the ${Math.round((100 * said) / asked)} % for which a record is proposed`,
    unit: "%",
    measured: (100 * first) / said,
    floor: Number.NaN,
    floorName: "",
    ratio: Number.NaN,
    asked: `at least ${100 * FILED_RIGHT} % right at ${100 * ASKED_SAID} % proposed`,
    holds: first / said >= FILED_RIGHT && said / asked >= ASKED_SAID,
  };
  await fillLessons(url, tray);
  return { lines, figures: [...quality, filed, await timeFigure(deps, url, all.slice(GENERATED))] };
}

// As the decisions of a tray of that size would have left them.
async function fillLessons(url: string, tray: readonly MadeUp[]): Promise<void> {
  const counts = new Map<string, number>();
  const rows = tray.map((one) => {
    const [features, labels] = [featuresOf(one), labelsOfMadeUp(one)];
    for (const { feature, label } of countChanges(features, [], labels)) {
      counts.set(`${feature}\n${label}`, (counts.get(`${feature}\n${label}`) ?? 0) + 1);
    }
    return { from: one.from, features, labels };
  });
  const client = new Client({ connectionString: url });
  await client.connect();
  const counted = [...counts].map(([key, given]) => {
    const [feature, label] = key.split("\n");
    return { feature, label, given };
  });
  await client.query(
    `insert into filing_count (tray_id, feature, label, given)
     select (select id from tray where slug = 'office'), case when feature = '*' then '*' || label else feature end, label, given
     from jsonb_to_recordset($1::jsonb) as c(feature text, label text, given int)`,
    [JSON.stringify(counted)],
  );
  await client.query(
    `with numbered as (select id, row_number() over (order by id) as at from conversation
       where tray_id = (select id from tray where slug = 'office') limit ${GENERATED}),
     lessons as (select "from", features, labels, row_number() over () as at
       from jsonb_to_recordset($1::jsonb) as l("from" text, features text[], labels text[])),
     lettered as (update conversation set who_address = lessons."from" from numbered join lessons using (at)
       where conversation.id = numbered.id returning conversation.id, lessons.features, lessons.labels)
     insert into filing_lesson select id, features, labels, '{}' from lettered`,
    [JSON.stringify(rows)],
  );
  await client.query("vacuum analyze filing_count, filing_lesson, conversation");
  await client.end();
}

const ASKED_FOR = 200;

async function timeFigure(deps: Deps, url: string, letters: readonly MadeUp[]): Promise<Figure> {
  const client = new Client({ connectionString: url });
  await client.connect();
  // The next letters of that tray, in conversations that nobody has decided about.
  const { rows } = await client.query(
    `with chosen as (select id, tray_id, row_number() over (order by id) as at from conversation
       where tray_id = (select id from tray where slug = 'office') and standing in ('to-sort', 'our-move')
         and not exists (select 1 from message where conversation_id = conversation.id) limit ${ASKED_FOR}),
     lettered as (select chosen.*, l.* from chosen join (select *, row_number() over () as at
       from jsonb_to_recordset($1::jsonb) as l("from" text, subject text, "ownText" text)) as l using (at)),
     raw as (insert into blob (sha256, size, content) values ('\\x01', 1, '\\x01') on conflict do nothing),
     letter as (insert into message (id, tray_id, conversation_id, version, direction, kind, kind_reason, in_reply_to,
       reference_ids, subject, from_name, from_address, recipients, sent_at, received_at, raw_sha256, has_html,
       failed_recipients, attachments, warnings, dedupe_key)
       select gen_random_uuid(), tray_id, id, 1, 'in', 'person', '', '{}', '{}', subject, '', "from", '{}', now(), now(),
         '\\x01', false, '[]', '[]', '{}', decode(md5(id::text), 'hex') from lettered returning id, conversation_id)
     insert into message_text (message_id, own_text, rest_text)
     select letter.id, "ownText", '' from letter join lettered on lettered.id = conversation_id returning message_id`,
    [JSON.stringify(letters)],
  );
  const ids = await client.query("select conversation_id from message where id = any($1)", [
    rows.map((row) => row.message_id),
  ]);
  await client.end();
  const ines = (await listMembers(deps)).find(({ signInName }) => signInName === "ines");
  const grant = ines === undefined ? undefined : (await traysOf(deps, ines)).find(({ tray }) => tray.slug === "office");
  if (grant === undefined) throw new Error("nobody may look into the office");
  const given = { ownerId: null, categoryIds: [], recordIds: [] };
  let at = 0;
  let proposed = 0;
  const measured = await medianMs(ASKED_FOR / 2, async () => {
    const id = trustedId<ConversationId>(ids.rows[at % ids.rows.length].conversation_id);
    at += 1;
    const known = await evidenceFor(deps.db, grant, id);
    if (known !== null) proposed += propose(known.features, known.evidence, given).length;
  });
  if (proposed === 0) throw new Error("nothing was proposed, so nothing was measured");
  return {
    name: `one proposal after ${GENERATED} conversations, from the database`,
    unit: "ms",
    measured,
    floor: Number.NaN,
    floorName: "",
    ratio: Number.NaN,
    asked: `at most ${MOST_MS} ms`,
    holds: measured <= MOST_MS,
  };
}
