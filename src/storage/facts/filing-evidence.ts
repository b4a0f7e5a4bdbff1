import { BANDS, NO_RECORD, type TrackRecord } from "../../core/filing/calibration";
import { candidateRecords, MOST_TITLED } from "../../core/filing/candidates";
import {
  ASKED_WORDS,
  type Asked,
  askedAbout,
  type Evidence,
  type ProposalKind,
  RAREST_WORDS,
} from "../../core/filing/evidence";
import { ASKED_PERIODS, periodOf } from "../../core/filing/fading";
import { codesIn, EVERYTHING, featuresOf, type Letter, READ_CHARACTERS, readFeature } from "../../core/filing/features";
import { likelyLabels } from "../../core/filing/judge";
import { askedOfOwners, LABEL_PREFIXES, type Label } from "../../core/filing/lesson";
import { type CasesByPeriod, ownedAt } from "../../core/filing/owned";
import type { Counts } from "../../core/filing/shares";
import { type ConversationId, type MemberId, type RecordId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { listIdIn } from "../../core/message/ways-to-leave";
import type { TrayGrant } from "../access/trays";
import type { Database } from "../base/handle";
import { runPrepared } from "../base/prepared";
import { at } from "../base/rows";
import { type LabelNames, type ToldRow, toldOf } from "./filing-told";

/** A conversation's first letter from outside, and when that conversation began. */
export type OpeningMessage = Letter & { readonly began: Instant };

type LetterRow = {
  conversation_id: string;
  from_address: string;
  list_id: string | null;
  subject: string;
  own_text: string;
  created_at: Date;
};

/** The first letter from outside of some conversations; those without one are left out. */
export async function firstLetters(
  db: Database,
  ids: readonly ConversationId[],
): Promise<Map<ConversationId, OpeningMessage>> {
  const rows = await runPrepared<LetterRow>(
    db,
    /* sql */ `
    select distinct on (message.conversation_id) message.conversation_id, message.from_address, message.list_id,
      message.subject, left(own_text, ${READ_CHARACTERS}) as own_text, conversation.created_at
    from message join message_text on message_text.message_id = message.id
      join conversation on conversation.id = message.conversation_id
    where message.conversation_id = any(cast(:ids as uuid[])) and direction = 'in' and kind <> 'bounce'
    order by message.conversation_id, message.version`,
    { ids: [...ids] },
  );
  return new Map(
    rows.map((row) => [
      trustedId<ConversationId>(row.conversation_id),
      {
        from: row.from_address,
        listId: row.list_id === null ? null : listIdIn(row.list_id),
        subject: row.subject,
        ownText: row.own_text,
        began: at(row.created_at),
      },
    ]),
  );
}

/** What is asked of a letter, and what a tray knows that speaks for a decision about it. */
export type KnownOfLetter = { readonly asked: Asked; readonly evidence: Evidence };

/** What a viewer's tray knows that speaks for a decision about a conversation; null when nobody from outside wrote in it. */
export async function evidenceFor(
  db: Database,
  grant: TrayGrant,
  id: ConversationId,
  now: Instant,
): Promise<KnownOfLetter | null> {
  const letter = (await firstLetters(db, [id])).get(id);
  if (letter === undefined) return null;
  return evidenceOfLetter(db, { trayId: grant.tray.id, except: id, letter, features: featuresOf(letter), now });
}

type AskedOfTray = {
  readonly trayId: TrayId;
  /** The conversation itself, which says nothing of itself. */
  readonly except: ConversationId;
  readonly letter: Letter;
  readonly features: readonly string[];
  readonly now: Instant;
};

/**
 * The same for a letter with its features, whoever asks: what was decided with what it shows, which of that can be decided
 * still, and what else was decided with what that makes likely. Whoever is away answers for themselves here (`amongThoseThere`).
 */
export async function evidenceOfLetter(db: Database, letter: AskedOfTray): Promise<KnownOfLetter> {
  const [{ counts, names }, beside] = await Promise.all([whatItShows(db, letter), whatStandsBeside(db, letter)]);
  const asked = askedAbout(letter.features, counts);
  const candidates = [...candidateRecords(asked, counts), ...beside.named, ...beside.belongs];
  const can = await whatCanBe(db, candidates, asked, counts);
  const first = { counts, owners: ownedAt(new Map(), letter.now), ...beside, ...can };
  const likely = likelyLabels(asked, first);
  const second = await whatGoesWith(db, letter, likely, askedOfOwners(letter.features, likely), names);
  const known = new Map([...counts, ...second.counts]);
  return { asked, evidence: { ...first, counts: known, owners: second.owners } };
}

type Shown = { readonly counts: Counts; readonly names: LabelNames };

/** What was decided with a letter's features: of its words only those that say most, and of records only the rarest. */
async function whatItShows(db: Database, { trayId, features }: AskedOfTray): Promise<Shown> {
  const words = features.filter((feature) => readFeature(feature).kind === "word");
  const rows = await runPrepared<ToldRow & { names: string | null }>(
    db,
    /* sql */ `
    with asked as materialized (
      select *, feature = any(cast(:words as text[])) as is_word from filing_told
      where tray_id = :trayId and feature = any(cast(:features as text[]))
    ),
    rare as materialized (
      select feature, row_number() over (order by decided, feature collate "C") as place from asked
      where is_word and decided > 1 order by place limit ${ASKED_WORDS}
    )
    select feature, decided, settled, unfiled,
      case when not is_word or place is not null then cast(categories as text) end as categories,
      case when not is_word or place is not null then cast(category_given as text) end as category_given,
      case when not is_word or place <= ${RAREST_WORDS} then cast(records as text) end as records,
      case when not is_word or place <= ${RAREST_WORDS} then cast(record_given as text) end as record_given,
      case when feature = '${EVERYTHING}'
        then (select string_agg(id || ' ' || label, ',') from filing_label where tray_id = :trayId) end as names
    from asked left join rare using (feature)`,
    { trayId, features, words },
  );
  const names = new Map(
    pairsIn(rows.find((row) => row.names !== null)?.names ?? null).map(([id, label]) => [Number(id), label]),
  );
  return { counts: new Map(rows.map((row) => [row.feature, toldOf(row, names)])), names };
}

type RecordRow = { kind: ProposalKind; band: number; said: number; was_right: number };

type BesideRow = {
  last: Label[][] | null;
  named: RecordId[] | null;
  belongs: RecordId[] | null;
  may_own: MemberId[] | null;
  weights: { kind: ProposalKind; weights: Record<string, number> }[] | null;
  records: RecordRow[] | null;
};

/** What else it is judged by, whatever was decided with its features. */
async function whatStandsBeside(
  db: Database,
  { trayId, except, letter }: AskedOfTray,
): Promise<Omit<Evidence, "counts" | "owners" | "open" | "isGiven">> {
  const [row] = await runPrepared<BesideRow>(
    db,
    /* sql */ `
    select
      (select jsonb_agg(to_jsonb(labels) order by last_message_at desc) from (
        select lesson.labels, last_message_at from conversation join filing_lesson as lesson on conversation_id = id
        where tray_id = :trayId and who_address = :from and id <> :except and labels <> '{}'
        order by last_message_at desc limit 2) as last) as last,
      (select jsonb_agg(id) from record where code = any(cast(:codes as text[])) and closed_at is null) as named,
      (select jsonb_agg(id order by code) from record join record_address on record_id = record.id
        where address = :from and closed_at is null and merged_into is null) as belongs,
      (select jsonb_agg(member_id) from tray_member join member on member.id = member_id
        where tray_id = :trayId and role <> 'reader' and disabled_at is null) as may_own,
      (select jsonb_agg(to_jsonb(filing_weight)) from filing_weight where tray_id = :trayId) as weights,
      (select jsonb_agg(to_jsonb(filing_record)) from filing_record where tray_id = :trayId) as records`,
    { trayId, except, from: letter.from, codes: codesIn(letter) },
  );
  return {
    last: row?.last ?? [],
    named: row?.named ?? [],
    belongs: row?.belongs ?? [],
    mayOwn: row?.may_own ?? [],
    inCharge: (id) => id,
    weights: Object.fromEntries((row?.weights ?? []).map(({ kind, weights }) => [kind, weights])),
    records: recordsOf(row?.records ?? []),
  };
}

type CanBeRow = { open: { id: RecordId; title: string }[] | null; given: string[] | null };

/** Of the records that anything speaks for, what their titles say included (`titledRecords`), and of all categories, those that can be given. */
async function whatCanBe(
  db: Database,
  candidates: readonly RecordId[],
  { unusual }: Asked,
  counts: Counts,
): Promise<Pick<Evidence, "open" | "isGiven">> {
  const categories = [...(counts.get(EVERYTHING)?.keys() ?? [])].filter((label) =>
    label.startsWith(LABEL_PREFIXES.categorise),
  );
  const [row] = await runPrepared<CanBeRow>(
    db,
    /* sql */ `
    select
      (select jsonb_agg(jsonb_build_object('id', id, 'title', title)) from (
        select id, title from record
        where closed_at is null and merged_into is null and id = any(cast(:candidates as uuid[]))
        union
        (select id, title from record,
          lateral (select count(*) as words from unnest(title_words) as word where word = any(cast(:unusual as text[]))) as shared
        where closed_at is null and merged_into is null and title_words && cast(:unusual as text[])
        order by shared.words desc, id limit ${MOST_TITLED})) as found) as open,
      (select jsonb_agg(id) from category
        where retired_at is null and removed_at is null and id = any(cast(:categories as uuid[]))) as given`,
    {
      candidates: [...candidates],
      unusual: [...unusual],
      categories: categories.map((label) => label.slice(LABEL_PREFIXES.categorise.length)),
    },
  );
  const given = new Set(row?.given ?? []);
  return {
    open: new Map((row?.open ?? []).map(({ id, title }) => [id, title])),
    isGiven: (category) => given.has(category),
  };
}

type WithRow = { told: ToldRow[] | null; owners: Readonly<Record<string, string>> | null };

/** What was decided with likely labels, and who owned what has them or is from the same person. */
async function whatGoesWith(
  db: Database,
  { trayId, now }: AskedOfTray,
  likely: readonly string[],
  owned: readonly string[],
  names: LabelNames,
): Promise<Pick<Evidence, "counts" | "owners">> {
  const [row] = await runPrepared<WithRow>(
    db,
    /* sql */ `
    select
      (select json_agg(told) from (
        select feature, decided, settled, unfiled, cast(categories as text), cast(category_given as text),
          cast(records as text), cast(record_given as text)
        from filing_told where tray_id = :trayId and feature = any(cast(:likely as text[]))) as told) as told,
      (select jsonb_object_agg(feature, cases) from (
        select feature, string_agg(label || ' ' || period || ' ' || given, ',') as cases from filing_owner
        where tray_id = :trayId and given > 0 and feature = any(cast(:owned as text[])) and period > :since
        group by feature) as told) as owners`,
    { trayId, likely: [...likely], owned: [...owned], since: periodOf(now) - ASKED_PERIODS },
  );
  return {
    counts: new Map((row?.told ?? []).map((one) => [one.feature, toldOf(one, names)])),
    owners: ownedAt(
      new Map(Object.entries(row?.owners ?? {}).map(([feature, written]) => [feature, casesIn(written)])),
      now,
    ),
  };
}

// "owner period cases,owner period cases"
function casesIn(written: string): CasesByPeriod {
  const cases = new Map<Label, [period: number, cases: number][]>();
  for (const one of written.split(",")) {
    const [label = "", period, given] = one.split(" ");
    const all = cases.get(label) ?? [];
    all.push([Number(period), Number(given)]);
    cases.set(label, all);
  }
  return cases;
}

// "name value,name value", as text is made and read faster than what has a shape.
function pairsIn(written: string | null): [string, string][] {
  if (written === null) return [];
  return written.split(",").map((pair) => {
    const end = pair.lastIndexOf(" ");
    return [pair.slice(0, end), pair.slice(end + 1)];
  });
}

/** What came of earlier proposals in a tray, by kind. */
export async function trackRecordsOf(db: Database, grant: TrayGrant): Promise<Evidence["records"]> {
  return recordsOf(
    await runPrepared<RecordRow>(db, "select kind, band, said, was_right from filing_record where tray_id = :trayId", {
      trayId: grant.tray.id,
    }),
  );
}

function recordsOf(rows: readonly RecordRow[]): Evidence["records"] {
  const records: { [K in ProposalKind]?: TrackRecord } = {};
  for (const { kind, band, said, was_right } of rows) {
    const known = records[kind] ?? NO_RECORD;
    if (band < BANDS) records[kind] = known.with(band, { said, right: was_right });
  }
  return records;
}
