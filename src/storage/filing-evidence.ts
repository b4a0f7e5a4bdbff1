import { BANDS, NO_RECORD, type TrackRecord } from "../core/filing/calibration";
import { codesIn, EVERYTHING, featuresOf, type Letter } from "../core/filing/features";
import { DECIDED, LABEL_PREFIXES, type Label } from "../core/filing/lesson";
import type { Evidence, ProposalKind } from "../core/filing/propose";
import { type ConversationId, type RecordId, type TrayId, trustedId } from "../core/kernel/ids";
import type { Database } from "./handle";
import { runPrepared } from "./prepared";
import type { TrayGrant } from "./trays";

// Enough to see a habit, few enough that a new one shows.
const PRECEDENTS = 20;
/** Of so many of the labels that were given most with a feature it is asked whether they fit. */
export const MOST_OF_A_FEATURE = 6;

type LetterRow = {
  conversation_id: string;
  from_address: string;
  list_id: string | null;
  subject: string;
  own_text: string;
};

/** The first letter from outside of some conversations; those without one are left out. */
export async function firstLetters(db: Database, ids: readonly ConversationId[]): Promise<Map<ConversationId, Letter>> {
  const rows = await runPrepared<LetterRow>(
    db,
    /* sql */ `
    select distinct on (message.conversation_id) message.conversation_id, message.from_address, conversation.list_id,
      message.subject, left(own_text, 1000) as own_text
    from message join message_text on message_text.message_id = message.id
      join conversation on conversation.id = message.conversation_id
    where message.conversation_id = any(cast(:ids as uuid[])) and direction = 'in' and kind <> 'bounce'
    order by message.conversation_id, message.version`,
    { ids: [...ids] },
  );
  return new Map(
    rows.map((row) => [
      trustedId<ConversationId>(row.conversation_id),
      { from: row.from_address, listId: row.list_id, subject: row.subject, ownText: row.own_text },
    ]),
  );
}

/** What a viewer's tray knows that speaks for a decision about a conversation; null when nobody from outside wrote in it. */
export async function evidenceFor(
  db: Database,
  grant: TrayGrant,
  id: ConversationId,
): Promise<{ readonly features: readonly string[]; readonly evidence: Evidence } | null> {
  const letter = (await firstLetters(db, [id])).get(id);
  if (letter === undefined) return null;
  const features = featuresOf(letter);
  return { features, evidence: await evidenceOfLetter(db, grant.tray.id, id, letter, features) };
}

type EvidenceRow = {
  counts: [feature: string, label: Label, given: number][] | null;
  precedents: Label[][] | null;
  named: string[] | null;
  belongs: string[] | null;
  records: { kind: ProposalKind; band: number; said: number; was_right: number }[] | null;
};

/** The same for a letter with its features, whoever asks. */
export async function evidenceOfLetter(
  db: Database,
  trayId: TrayId,
  except: ConversationId,
  letter: Letter,
  features: readonly string[],
): Promise<Evidence> {
  const [row] = await runPrepared<EvidenceRow>(
    db,
    /* sql */ `
    with asked as (select unnest(cast(:features as text[])) as feature),
    newest as materialized (
      select lesson.labels from conversation join filing_lesson as lesson on conversation_id = id
      where tray_id = :trayId and who_address = :from and id <> :except and labels <> '{}'
      order by last_message_at desc limit ${PRECEDENTS}
    ),
    -- What is common with any of the features is judged, by all of them; the rest is nothing anybody would propose.
    candidate as materialized (
      select label from asked cross join lateral (
        select label from filing_count as most where tray_id = :trayId and most.feature = asked.feature
          and given > 0 and label <> '${DECIDED}'
        order by given desc limit ${MOST_OF_A_FEATURE}) as most
      where asked.feature <> '${EVERYTHING}'
      union select unnest(labels) from newest
      union select '${DECIDED}'
      union select '${LABEL_PREFIXES.file}' || id from record where code = any(:codes)
      union select '${LABEL_PREFIXES.file}' || record_id from record_address where address = :from
    )
    select
      (select jsonb_agg(jsonb_build_array(feature, label, given)) from filing_count
        where tray_id = :trayId and given > 0 and label in (select label from candidate)
          and feature = any(array_cat(cast(:features as text[]), array(select '${EVERYTHING}' || label from candidate)))
      ) as counts,
      (select jsonb_agg(to_jsonb(labels)) from newest) as precedents,
      (select jsonb_agg(id) from record where code = any(:codes) and closed_at is null) as named,
      (select jsonb_agg(id order by code) from record join record_address on record_id = record.id
        where address = :from and closed_at is null and merged_into is null) as belongs,
      (select jsonb_agg(to_jsonb(filing_record)) from filing_record where tray_id = :trayId) as records`,
    { trayId, except, from: letter.from, features: [...features], codes: codesIn(letter) },
  );
  const counts = new Map<string, Map<Label, number>>();
  for (const [stored, label, given] of row?.counts ?? []) {
    const feature = stored.startsWith(EVERYTHING) ? EVERYTHING : stored;
    counts.set(feature, (counts.get(feature) ?? new Map()).set(label, given));
  }
  return {
    counts,
    precedents: row?.precedents ?? [],
    named: (row?.named ?? []).map((id) => trustedId<RecordId>(id)),
    belongs: (row?.belongs ?? []).map((id) => trustedId<RecordId>(id)),
    records: recordsOf(row?.records ?? []),
  };
}

function recordsOf(rows: NonNullable<EvidenceRow["records"]>): Evidence["records"] {
  const records: { [K in ProposalKind]?: TrackRecord } = {};
  for (const { kind, band, said, was_right } of rows) {
    const known = records[kind] ?? NO_RECORD;
    if (band < BANDS) records[kind] = known.with(band, { said, right: was_right });
  }
  return records;
}
