import { BANDS, NO_RECORD, type TrackRecord } from "../core/filing/calibration";
import { ASKED_WORDS, type Evidence, ONE_OF, type ProposalKind, RAREST_WORDS, TELLING } from "../core/filing/evidence";
import { ASKED_PERIODS, HALF_LIFE, PERIOD, periodOf } from "../core/filing/fading";
import { codesIn, EVERYTHING, featuresOf, type Letter, READ_CHARACTERS, readFeature } from "../core/filing/features";
import { likelyLabels } from "../core/filing/judge";
import { DECIDED, LABEL_PREFIXES, type Label, SETTLED_UNANSWERED, UNFILED } from "../core/filing/lesson";
import { type ConversationId, type MemberId, type RecordId, type TrayId, trustedId } from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import { listIdIn } from "../core/message/ways-to-leave";
import type { Database } from "./handle";
import { runPrepared } from "./prepared";
import { at } from "./rows";
import type { TrayGrant } from "./trays";

/** A conversation's first letter from outside, and when that conversation began. */
export type FirstLetter = Letter & { readonly began: Instant };

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
): Promise<Map<ConversationId, FirstLetter>> {
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
export type KnownOfLetter = { readonly features: readonly string[]; readonly evidence: Evidence };

/** What a viewer's tray knows that speaks for a decision about a conversation; null when nobody from outside wrote in it. */
export async function evidenceFor(
  db: Database,
  grant: TrayGrant,
  id: ConversationId,
  now: Instant,
): Promise<KnownOfLetter | null> {
  const letter = (await firstLetters(db, [id])).get(id);
  if (letter === undefined) return null;
  const features = featuresOf(letter);
  return {
    features,
    evidence: await evidenceOfLetter(db, { trayId: grant.tray.id, except: id, letter, features, now }),
  };
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
 * The same for a letter with its features, whoever asks, in two questions: what was decided with what it shows, and what
 * else was decided with what that makes likely. Whoever is away answers for themselves here.
 */
export async function evidenceOfLetter(db: Database, asked: AskedOfTray): Promise<Evidence> {
  const first = await whatItShows(db, asked);
  const likely = likelyLabels(asked.features, first);
  const person = asked.features.filter((feature) => readFeature(feature).kind === "person");
  const second = await whatGoesWith(db, asked, likely, [EVERYTHING, ...person, ...likely], [...first.open.keys()]);
  return { ...first, counts: new Map([...first.counts, ...second.counts]), owners: second.owners };
}

// "label given,label given", as text is made and read faster than what has a shape.
type Told = Readonly<Record<string, string>>;

type RecordRow = { kind: ProposalKind; band: number; said: number; was_right: number };

type ShownRow = {
  known: string | null;
  told: Told | null;
  usual: string | null;
  last: Label[][] | null;
  open: { id: string; title: string }[] | null;
  given: string[] | null;
  named: string[] | null;
  belongs: string[] | null;
  may_own: string[] | null;
  weights: { kind: ProposalKind; weights: Record<string, number> }[] | null;
  records: RecordRow[] | null;
};

// All labels of one kind lie beside each other in the index of a feature: those that begin so come before `end`.
const CATEGORIES = { from: LABEL_PREFIXES.categorise, end: "c;" };
const RECORDS = { from: LABEL_PREFIXES.file, end: "r;" };

async function whatItShows(db: Database, { trayId, except, letter, features }: AskedOfTray): Promise<Evidence> {
  const words = features.filter((feature) => readFeature(feature).kind === "word");
  const others = features.filter((feature) => !["word", "everything"].includes(readFeature(feature).kind));
  const [row] = await runPrepared<ShownRow>(
    db,
    /* sql */ `
    with word as materialized (
      select feature, given from filing_count
      where tray_id = :trayId and feature = any(cast(:words as text[])) and label = '${DECIDED}' and given > 0
    ),
    rare as materialized (select feature from word where given > 1 order by given, feature limit ${ASKED_WORDS}),
    rarest as materialized (select feature from rare limit ${RAREST_WORDS}),
    beside as materialized (
      select feature, label, given from filing_count
        where tray_id = :trayId and given > 0 and feature = any(cast(:others as text[]))
      union all select feature, label, given from filing_count
        where tray_id = :trayId and given > 0 and feature = any(array(select feature from rare))
          and label >= '${CATEGORIES.from}' and label < '${CATEGORIES.end}'
      union all select feature, label, given from filing_count
        where tray_id = :trayId and given > 0 and feature = any(array(select feature from rare))
          and label = '${SETTLED_UNANSWERED}'
    ),
    about as materialized (
      select feature, given from filing_count
      where tray_id = :trayId and feature = any(cast(:others as text[])) and label = '${DECIDED}'
    ),
    spoken as materialized (
      select feature, label, given from filing_count
      where tray_id = :trayId and given > 0 and feature = any(array(select feature from rarest))
        and label >= '${RECORDS.from}' and label < '${RECORDS.end}'
    ),
    named as materialized (select id from record where code = any(cast(:codes as text[])) and closed_at is null),
    belongs as materialized (
      select id, code from record join record_address on record_id = record.id
      where address = :from and closed_at is null and merged_into is null
    ),
    usual as materialized (
      select label, given from filing_count
      where tray_id = :trayId and given > 0 and feature = any(array(
        select '${EVERYTHING}' || label from (
          select label from beside union select label from spoken
          union select '${LABEL_PREFIXES.file}' || id from named union select '${LABEL_PREFIXES.file}' || id from belongs
          union values ('${DECIDED}'), ('${UNFILED}'), ('${SETTLED_UNANSWERED}')) as wanted))
    ),
    candidate as materialized (
      select label from beside join about using (feature)
      where label >= '${RECORDS.from}' and label < '${RECORDS.end}' and beside.given * ${ONE_OF} >= about.given
      union select '${LABEL_PREFIXES.file}' || id from named
      union select '${LABEL_PREFIXES.file}' || id from belongs
      union select spoken.label from spoken join word using (feature) join usual on usual.label = spoken.label
        where cast(spoken.given as bigint) * (select given from usual where label = '${DECIDED}')
          >= ${TELLING} * cast(word.given as bigint) * usual.given
    ),
    near as materialized (
      select * from beside where not (label >= '${RECORDS.from}' and label < '${RECORDS.end}')
        or label = '${UNFILED}' or label in (select label from candidate)
      union all select * from spoken where label = '${UNFILED}' or label in (select label from candidate)
    )
    select
      (select string_agg(feature || ' ' || given, ',') from word) as known,
      (select jsonb_object_agg(feature, labels) from (
        select feature, string_agg(label || ' ' || given, ',') as labels from near group by feature) as told) as told,
      (select string_agg(label || ' ' || given, ',') from usual
        where label not like '${LABEL_PREFIXES.file}%' or label = '${UNFILED}' or label in (select label from candidate)) as usual,
      (select jsonb_agg(to_jsonb(labels) order by last_message_at desc) from (
        select lesson.labels, last_message_at from conversation join filing_lesson as lesson on conversation_id = id
        where tray_id = :trayId and who_address = :from and id <> :except and labels <> '{}'
        order by last_message_at desc limit 2) as last) as last,
      (select jsonb_agg(jsonb_build_object('id', id, 'title', title)) from record
        where closed_at is null and merged_into is null
          and id = any(array(select cast(substr(label, 3) as uuid) from candidate where label <> '${UNFILED}'))) as open,
      (select jsonb_agg(id) from category
        where retired_at is null and removed_at is null
          and id = any(array(select cast(substr(label, 3) as uuid) from usual where label like '${LABEL_PREFIXES.categorise}%'))
      ) as given,
      (select jsonb_agg(id) from named) as named,
      (select jsonb_agg(id order by code) from belongs) as belongs,
      (select jsonb_agg(member_id) from tray_member join member on member.id = member_id
        where tray_id = :trayId and role <> 'reader' and disabled_at is null) as may_own,
      (select jsonb_agg(to_jsonb(filing_weight)) from filing_weight where tray_id = :trayId) as weights,
      (select jsonb_agg(to_jsonb(filing_record)) from filing_record where tray_id = :trayId) as records`,
    { trayId, except, from: letter.from, words, others, codes: codesIn(letter) },
  );
  const counts = toldIn(row?.told ?? {});
  for (const [word, known] of pairsIn(row?.known ?? null)) labelsIn(counts, word).set(DECIDED, known);
  counts.set(EVERYTHING, new Map(pairsIn(row?.usual ?? null)));
  const given = new Set(row?.given ?? []);
  return {
    counts,
    owners: new Map(),
    last: row?.last ?? [],
    named: (row?.named ?? []).map((id) => trustedId<RecordId>(id)),
    belongs: (row?.belongs ?? []).map((id) => trustedId<RecordId>(id)),
    open: new Map((row?.open ?? []).map(({ id, title }) => [trustedId<RecordId>(id), title])),
    isGiven: (category) => given.has(category),
    mayOwn: (row?.may_own ?? []).map((id) => trustedId<MemberId>(id)),
    inCharge: (id) => id,
    weights: Object.fromEntries((row?.weights ?? []).map(({ kind, weights }) => [kind, weights])),
    records: recordsOf(row?.records ?? []),
  };
}

type WithRow = { told: Told | null; owners: Told | null };

async function whatGoesWith(
  db: Database,
  { trayId, now }: AskedOfTray,
  likely: readonly string[],
  owned: readonly string[],
  open: readonly RecordId[],
): Promise<Pick<Evidence, "counts" | "owners">> {
  const [row] = await runPrepared<WithRow>(
    db,
    /* sql */ `
    select
      (select jsonb_object_agg(feature, labels) from (
        select feature, string_agg(label || ' ' || given, ',') as labels from filing_count
        where tray_id = :trayId and given > 0 and feature = any(cast(:likely as text[]))
          and (label in ('${DECIDED}', '${UNFILED}') or label like '${LABEL_PREFIXES.categorise}%' or label = any(cast(:files as text[])))
        group by feature) as told) as told,
      (select jsonb_object_agg(feature, labels) from (
        select feature, string_agg(label || ' ' || given * power(2, -greatest(0, :now - period) * ${PERIOD / HALF_LIFE}), ',') as labels
        from filing_owner
        where tray_id = :trayId and given > 0 and feature = any(cast(:owned as text[])) and period > :now - ${ASKED_PERIODS}
        group by feature) as told) as owners`,
    {
      trayId,
      likely: [...likely],
      owned: [...owned],
      files: open.map((id) => LABEL_PREFIXES.file + id),
      now: periodOf(now),
    },
  );
  return { counts: toldIn(row?.told ?? {}), owners: toldIn(row?.owners ?? {}) };
}

function toldIn(told: Told): Map<string, Map<Label, number>> {
  const counts = new Map<string, Map<Label, number>>();
  for (const [feature, written] of Object.entries(told)) {
    const labels = labelsIn(counts, feature);
    for (const [label, given] of pairsIn(written)) labels.set(label, (labels.get(label) ?? 0) + given);
  }
  return counts;
}

function labelsIn(counts: Map<string, Map<Label, number>>, feature: string): Map<Label, number> {
  const labels = counts.get(feature) ?? new Map<Label, number>();
  counts.set(feature, labels);
  return labels;
}

function pairsIn(written: string | null): [string, number][] {
  if (written === null) return [];
  return written.split(",").map((pair) => {
    const end = pair.lastIndexOf(" ");
    return [pair.slice(0, end), Number(pair.slice(end + 1))];
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
