import { bandOfConfidence, REMEMBERED } from "../../core/filing/calibration";
import type { ProposalKind } from "../../core/filing/evidence";
import { periodOf } from "../../core/filing/fading";
import { featuresOf, ofUnfiled } from "../../core/filing/features";
import { isLearned, judge } from "../../core/filing/judge";
import { type CountChange, countChanges, LABEL_PREFIXES, type Label, UNFILED } from "../../core/filing/lesson";
import { kindsMade, outcomeOf } from "../../core/filing/outcome";
import { amongThoseThere } from "../../core/filing/those-there";
import { type ConversationId, type TrayId, trustedId } from "../../core/kernel/ids";
import { timesOffNow } from "../access/times-off";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { type Due, takeDue } from "./filing-due";
import { evidenceOfLetter, firstLetters, type OpeningMessage } from "./filing-evidence";
import { addToTold } from "./filing-told";

type Lesson = {
  readonly features: readonly string[];
  readonly labels: readonly Label[];
  readonly judged: readonly ProposalKind[];
  /** When its conversation began, as owners are counted by it. */
  readonly period: number;
};

/** Of a conversation in which nobody from outside wrote, or of which nothing was learned yet. */
const NO_LESSON: Lesson = { features: [], labels: [], judged: [], period: 0 };

const JUDGED: readonly ProposalKind[] = ["file", "categorise", "assign", "settle"];

type Changes = { readonly counts: CountChange[]; readonly owners: (CountChange & { readonly period: number })[] };

/** Counts what was decided about some conversations, in the place of what they were counted as before. */
export async function learn(trx: Transaction, due: readonly Due[]): Promise<void> {
  if (due.length === 0) return;
  const ids = due.map(({ id }) => id);
  const lessons = await lessonsOf(trx, ids);
  const letters = await firstLetters(trx, ids);
  const kept: { id: ConversationId; lesson: Lesson }[] = [];
  const changes = new Map<TrayId, Changes>();
  for (const one of due) {
    const letter = letters.get(one.id);
    const before = lessons.get(one.id) ?? NO_LESSON;
    const known = letter === undefined ? NO_LESSON : { ...lessonOf(letter, one.labels), judged: before.judged };
    const judged = letter === undefined || !one.seen ? known.judged : await judgeProposals(trx, one, letter, known);
    const lesson = { ...known, judged };
    kept.push({ id: one.id, lesson });
    const ofTray = changes.get(one.trayId) ?? { counts: [], owners: [] };
    addChanges(ofTray, before, lesson);
    changes.set(one.trayId, ofTray);
  }
  await saveLessons(trx, kept);
  for (const [trayId, some] of changes) {
    await addToTold(trx, trayId, some.counts);
    await addToOwners(trx, trayId, some.owners);
  }
}

function lessonOf(letter: OpeningMessage, labels: readonly Label[]): Lesson {
  return { features: featuresOf(letter), labels, judged: [], period: periodOf(letter.began) };
}

// A letter that was moved away, or is understood otherwise now, is counted by what it shows now.
function addChanges(changes: Changes, before: Lesson, lesson: Lesson): void {
  const isSameLetter = before.period === lesson.period && before.features.join("\n") === lesson.features.join("\n");
  const steps = isSameLetter
    ? [{ ...lesson, was: before.labels, is: lesson.labels }]
    : [
        { ...before, was: before.labels, is: [] },
        { ...lesson, was: [], is: lesson.labels },
      ];
  for (const { features, period, was, is } of steps) {
    const { counts, owners } = countChanges(features, was, is);
    changes.counts.push(...counts);
    changes.owners.push(...owners.map((change) => ({ ...change, period })));
  }
}

/**
 * Learns what was decided since, so much at once and one learner at a time; false when there is no more. What is decided
 * meanwhile is due again.
 */
export async function learnWhatIsDue(trx: Transaction, most: number): Promise<boolean> {
  await knexOf(trx).raw("select pg_advisory_xact_lock(hashtext('filing_due'))");
  const due = await takeDue(trx, most);
  await learn(trx, due);
  return due.length > 0;
}

async function lessonsOf(trx: Transaction, ids: readonly ConversationId[]): Promise<Map<ConversationId, Lesson>> {
  const rows = await knexOf(trx)("filing_lesson")
    .select("conversation_id", "features", "labels", "judged", "period")
    .whereIn("conversation_id", ids);
  return new Map(
    rows.map(({ conversation_id, features, labels, judged, period }) => [
      trustedId<ConversationId>(conversation_id),
      { features, labels, judged, period },
    ]),
  );
}

// What would have been proposed before this was decided is held against it: each kind of decision once, when it is made, or
// when the conversation is over without it.
async function judgeProposals(
  trx: Transaction,
  one: Due,
  letter: OpeningMessage,
  before: Lesson,
): Promise<ProposalKind[]> {
  const made = kindsMade(one.labels);
  const open = JUDGED.filter((kind) => !before.judged.includes(kind) && (one.isOver || made.includes(kind)));
  if (open.length === 0 || one.labels.length === 0) return [...before.judged];
  const { features } = before;
  const ofTray = { trayId: one.trayId, except: one.id, letter, features, now: letter.began };
  // As it would have been proposed when it came.
  const [{ asked, evidence: known }, timesOff] = await Promise.all([
    evidenceOfLetter(trx, ofTray),
    timesOffNow(trx, letter.began),
  ]);
  const evidence = amongThoseThere(known, { trayId: one.trayId, recordIds: [] }, letter.began, timesOff);
  if (!isLearned(evidence)) return [...before.judged, ...open];
  const judged = judge(asked, evidence);
  for (const kind of open) {
    const outcome = outcomeOf(kind, judged, one.labels, evidence);
    if (outcome === null) continue;
    await saveWeights(trx, one.trayId, kind, outcome.weights);
    for (const { confidence, right } of outcome.said) await noteOutcome(trx, one.trayId, kind, confidence, right);
  }
  return [...before.judged, ...open];
}

async function saveWeights(
  trx: Transaction,
  trayId: TrayId,
  kind: ProposalKind,
  weights: Readonly<Record<string, number>>,
): Promise<void> {
  await knexOf(trx)("filing_weight")
    .insert({ tray_id: trayId, kind, weights: JSON.stringify(weights) })
    .onConflict(["tray_id", "kind"])
    .merge();
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
    on conflict (tray_id, kind, band) do update set said = filing_record.said * ${REMEMBERED} + 1,
      was_right = filing_record.was_right * ${REMEMBERED} + excluded.was_right`,
    { trayId, kind, band: bandOfConfidence(confidence), right: right ? 1 : 0 },
  );
}

async function saveLessons(
  trx: Transaction,
  kept: readonly { readonly id: ConversationId; readonly lesson: Lesson }[],
): Promise<void> {
  const rows = kept.map(({ id, lesson }) => ({ conversation_id: id, ...lesson }));
  await knexOf(trx).raw(
    /* sql */ `
    insert into filing_lesson (conversation_id, features, labels, judged, period)
    select * from jsonb_to_recordset(cast(:rows as jsonb))
      as kept(conversation_id uuid, features text[], labels text[], judged text[], period int)
    on conflict (conversation_id) do update set features = excluded.features, labels = excluded.labels,
      judged = excluded.judged, period = excluded.period`,
    { rows: JSON.stringify(rows) },
  );
}

// Always in the same order, so that two who count the same things never wait for each other.
async function addToOwners(trx: Transaction, trayId: TrayId, changes: Changes["owners"]): Promise<void> {
  if (changes.length === 0) return;
  await knexOf(trx).raw(
    /* sql */ `
    insert into filing_owner (tray_id, feature, label, period, given)
    select cast(:trayId as uuid), feature, label, period, sum(by)::int
    from jsonb_to_recordset(cast(:changes as jsonb)) as change(feature text, label text, period int, by int)
    group by feature, label, period order by feature, label, period
    on conflict (tray_id, feature, label, period) do update set given = filing_owner.given + excluded.given`,
    { trayId, changes: JSON.stringify(changes) },
  );
}

/** How many counts are not what the lessons come to; there must be none. */
export async function countsAstray(db: Database): Promise<number> {
  const found = await ask<{ count: number }>(
    db,
    /* sql */ `
    with lesson as (
      select tray_id, period, labels, features || array(select given from unnest(labels) as given
        where (given like '${LABEL_PREFIXES.categorise}%' or given like '${LABEL_PREFIXES.file}%') and given <> '${UNFILED}') as features
      from filing_lesson join conversation on id = conversation_id
    ),
    told as (
      select tray_id, feature, label, -1 as period, count(*)::int as given
      from lesson, unnest(features) as feature, unnest(labels) as label
      where label not like '${LABEL_PREFIXES.assign}%' group by 1, 2, 3
      union all
      select tray_id, feature, label, period, count(*)::int
      from lesson, unnest(features) as feature, unnest(labels) as label
      where label like '${LABEL_PREFIXES.assign}%' and feature ~ '^([*]|p:|c:|r:)' group by 1, 2, 3, 4
      union all
      select tray_id, '${ofUnfiled("")}' || substr(feature, 3), label, period, count(*)::int
      from lesson, unnest(features) as feature, unnest(labels) as label
      where label like '${LABEL_PREFIXES.assign}%' and feature like '${LABEL_PREFIXES.categorise}%' and not exists (
        select from unnest(labels) as given where given like '${LABEL_PREFIXES.file}%' and given <> '${UNFILED}')
      group by 1, 2, 3, 4
    ),
    kept as (
      select tray_id, feature, label, -1 as period, given from filing_count
      union all select tray_id, feature, label, period, given from filing_owner
    )
    select count(*)::int as count from told full join kept using (tray_id, feature, label, period)
    where coalesce(told.given, 0) <> coalesce(kept.given, 0)`,
  );
  return found[0]?.count ?? 0;
}
