import { bandOfConfidence } from "../core/filing/calibration";
import { EVERYTHING, featuresOf, type Letter, TEXT_PREFIX } from "../core/filing/features";
import { type CountChange, countChanges, LABEL_PREFIXES, type Label } from "../core/filing/lesson";
import { judge, kindOf, type ProposalKind } from "../core/filing/propose";
import { type ConversationId, type TrayId, trustedId } from "../core/kernel/ids";
import { evidenceOfLetter, firstLetters } from "./filing-evidence";
import type { Database, Transaction } from "./handle";
import { knexOf } from "./knex-of";

/** A conversation whose decisions are no longer what they were counted as. */
export type Due = {
  readonly id: ConversationId;
  readonly trayId: TrayId;
  readonly labels: readonly Label[];
  /** True when nothing more is likely to be decided: what was not given by now was not to be proposed. */
  readonly isOver: boolean;
};

// What everything has would be one long stretch of the index of which a few labels are wanted: each is a key of its own.
const STORED_FEATURE = /* sql */ `case when feature = '${EVERYTHING}' then '${EVERYTHING}' || label else feature end`;

/** How many counts are not what the lessons come to; there must be none. */
export async function countsAstray(db: Database): Promise<number> {
  const found = await knexOf(db).raw<{ rows: { count: number }[] }>(/* sql */ `
    with told as (
      select tray_id, ${STORED_FEATURE} as stored, label, count(*)::int as given
      from filing_lesson join conversation on id = conversation_id, unnest(features) as feature, unnest(labels) as label
      where not (feature like '${TEXT_PREFIX}%' and label like '${LABEL_PREFIXES.file}%')
      group by tray_id, stored, label
    )
    select count(*)::int as count from told
      full join filing_count as kept on kept.tray_id = told.tray_id and kept.feature = told.stored and kept.label = told.label
    where coalesce(told.given, 0) <> coalesce(kept.given, 0)`);
  return found.rows[0]?.count ?? 0;
}

type Lesson = {
  readonly features: readonly string[];
  readonly labels: readonly Label[];
  readonly judged: readonly ProposalKind[];
};

// Of what many conversations are decided about at once, nothing is learned about proposals: nobody saw them.
const MAX_JUDGED = 20;
const JUDGED: readonly ProposalKind[] = ["file", "categorise", "assign", "settle"];

/** Counts what was decided about some conversations, in the place of what they were counted as before. */
export async function learn(trx: Transaction, due: readonly Due[]): Promise<void> {
  if (due.length === 0) return;
  const ids = due.map(({ id }) => id);
  const lessons = await lessonsOf(trx, ids);
  const letters = await firstLetters(
    trx,
    ids.filter((id) => !lessons.has(id) || due.length <= MAX_JUDGED),
  );
  const kept: { id: ConversationId; lesson: Lesson }[] = [];
  const changes = new Map<TrayId, CountChange[]>();
  for (const one of due) {
    const letter = letters.get(one.id);
    const before = lessons.get(one.id) ?? (letter === undefined ? null : newLesson(letter));
    if (before === null) continue;
    const judged =
      letter === undefined || due.length > MAX_JUDGED ? before.judged : await judgeProposals(trx, one, letter, before);
    kept.push({ id: one.id, lesson: { ...before, labels: one.labels, judged } });
    const ofTray = changes.get(one.trayId) ?? [];
    ofTray.push(...countChanges(before.features, before.labels, one.labels));
    changes.set(one.trayId, ofTray);
  }
  await keepLessons(trx, kept);
  for (const [trayId, some] of changes) await addToCounts(trx, trayId, some);
}

function newLesson(letter: Letter): Lesson {
  return { features: featuresOf(letter), labels: [], judged: [] };
}

async function lessonsOf(trx: Transaction, ids: readonly ConversationId[]): Promise<Map<ConversationId, Lesson>> {
  const rows = await knexOf(trx)("filing_lesson")
    .select("conversation_id", "features", "labels", "judged")
    .whereIn("conversation_id", ids);
  return new Map(
    rows.map(({ conversation_id, features, labels, judged }) => [
      trustedId<ConversationId>(conversation_id),
      { features, labels, judged },
    ]),
  );
}

// What would have been proposed before this was decided is held against it: each kind of decision once, when it is made, or
// when the conversation is over without it.
async function judgeProposals(trx: Transaction, one: Due, letter: Letter, before: Lesson): Promise<ProposalKind[]> {
  const made = new Set(one.labels.filter((label) => label !== "*").map(kindOf));
  const open = JUDGED.filter((kind) => !before.judged.includes(kind) && (one.isOver || made.has(kind)));
  if (open.length === 0 || one.labels.length === 0) return [...before.judged];
  const evidence = await evidenceOfLetter(trx, one.trayId, one.id, letter, before.features);
  const judged = judge(before.features, evidence);
  for (const kind of open) {
    const first = judged.find((each) => each.kind === kind);
    if (first !== undefined) await noteOutcome(trx, one.trayId, kind, first.raw, one.labels.includes(first.label));
  }
  return [...before.judged, ...open];
}

async function noteOutcome(
  trx: Transaction,
  trayId: TrayId,
  kind: ProposalKind,
  confidence: number,
  right: boolean,
): Promise<void> {
  await knexOf(trx).raw(
    /* sql */ `
    insert into filing_record (tray_id, kind, band, said, was_right) values (:trayId, :kind, :band, 1, :right)
    on conflict (tray_id, kind, band) do update set said = filing_record.said + 1,
      was_right = filing_record.was_right + excluded.was_right`,
    { trayId, kind, band: bandOfConfidence(confidence), right: right ? 1 : 0 },
  );
}

async function keepLessons(
  trx: Transaction,
  kept: readonly { readonly id: ConversationId; readonly lesson: Lesson }[],
): Promise<void> {
  const rows = kept.map(({ id, lesson }) => ({ conversation_id: id, ...lesson }));
  await knexOf(trx).raw(
    /* sql */ `
    insert into filing_lesson (conversation_id, features, labels, judged)
    select * from jsonb_to_recordset(cast(:rows as jsonb)) as kept(conversation_id uuid, features text[], labels text[], judged text[])
    on conflict (conversation_id) do update set labels = excluded.labels, judged = excluded.judged`,
    { rows: JSON.stringify(rows) },
  );
}

// Always in the same order, so that two who count the same things never wait for each other.
async function addToCounts(trx: Transaction, trayId: TrayId, changes: readonly CountChange[]): Promise<void> {
  if (changes.length === 0) return;
  await knexOf(trx).raw(
    /* sql */ `
    insert into filing_count (tray_id, feature, label, given)
    select cast(:trayId as uuid), ${STORED_FEATURE} as stored, label, sum(by)::int
    from jsonb_to_recordset(cast(:changes as jsonb)) as change(feature text, label text, by int)
    group by stored, label order by stored, label
    on conflict (tray_id, feature, label) do update set given = filing_count.given + excluded.given`,
    { trayId, changes: JSON.stringify(changes) },
  );
}
