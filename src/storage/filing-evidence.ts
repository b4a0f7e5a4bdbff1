import { BANDS, NO_RECORD, type TrackRecord } from "../core/filing/calibration";
import { codesIn, featuresOf, type Letter } from "../core/filing/features";
import type { Label } from "../core/filing/lesson";
import type { Evidence, ProposalKind } from "../core/filing/propose";
import { type ConversationId, type RecordId, type TrayId, trustedId } from "../core/kernel/ids";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import type { TrayGrant } from "./trays";

// Enough to see a habit, few enough that a new one shows.
const PRECEDENTS = 20;

/** The first letter from outside of some conversations; those without one are left out. */
export async function firstLetters(db: Database, ids: readonly ConversationId[]): Promise<Map<ConversationId, Letter>> {
  const found = await knexOf(db).raw<{
    rows: {
      conversation_id: string;
      from_address: string;
      list_id: string | null;
      subject: string;
      own_text: string;
    }[];
  }>(
    /* sql */ `
    select distinct on (message.conversation_id) message.conversation_id, message.from_address, conversation.list_id,
      message.subject, left(own_text, 1000) as own_text
    from message join message_text on message_text.message_id = message.id
      join conversation on conversation.id = message.conversation_id
    where message.conversation_id = any(:ids) and direction = 'in' and kind <> 'bounce'
    order by message.conversation_id, message.version`,
    { ids: [...ids] },
  );
  return new Map(
    found.rows.map((row) => [
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
  counts: { feature: string; label: Label; given: number }[] | null;
  precedents: Label[][] | null;
  named: string[] | null;
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
  const found = await knexOf(db).raw<{ rows: EvidenceRow[] }>(
    /* sql */ `
    select
      (select jsonb_agg(jsonb_build_object('feature', feature, 'label', label, 'given', given)) from filing_count
        where tray_id = :trayId and feature = any(:features) and given > 0) as counts,
      (select jsonb_agg(labels) from (
        select to_jsonb(lesson.labels) as labels from conversation join filing_lesson as lesson on conversation_id = id
        where tray_id = :trayId and who_address = :from and id <> :except and labels <> '{}'
        order by last_message_at desc limit ${PRECEDENTS}) as newest) as precedents,
      (select jsonb_agg(id) from record where code = any(:codes) and closed_at is null) as named,
      (select jsonb_agg(to_jsonb(filing_record)) from filing_record where tray_id = :trayId) as records`,
    { trayId, except, from: letter.from, features: [...features], codes: codesIn(letter) },
  );
  const [row] = found.rows;
  const counts = new Map<string, Map<Label, number>>();
  for (const { feature, label, given } of row?.counts ?? []) {
    counts.set(feature, (counts.get(feature) ?? new Map()).set(label, given));
  }
  return {
    counts,
    precedents: row?.precedents ?? [],
    named: (row?.named ?? []).map((id) => trustedId<RecordId>(id)),
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
