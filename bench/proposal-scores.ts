import {
  BANDS,
  bandOfConfidence,
  calibrated,
  NO_RECORD,
  type TrackRecord,
  withOutcome,
} from "~/core/filing/calibration";
import { EVERYTHING, featuresOf } from "~/core/filing/features";
import { countChanges, DECIDED, LABEL_PREFIXES, type Label } from "~/core/filing/lesson";
import { type Judged, judge, kindOf, type ProposalKind } from "~/core/filing/propose";
import type { Script } from "~/demo/script";
import { PEOPLE } from "~/demo/world";
import { MOST_OF_A_FEATURE } from "~/storage/index";
import type { MadeUp } from "./made-up-tray";

const KINDS = ["categorise", "file", "assign"] as const;
type Kind = (typeof KINDS)[number];
const PRECEDENTS = 20;
const LEARNT = 0.8;
const SAID_FROM = 0.6;

/** What the proposer knows of a tray, kept in memory: the same counts as the tables have. */
class Memory {
  readonly counts = new Map<string, Map<Label, number>>();
  readonly people = new Map<string, (readonly Label[])[]>();
  readonly records = new Map<ProposalKind, TrackRecord>();

  judge({ from }: MadeUp, features: readonly string[]): Judged[] {
    const precedents = (this.people.get(from) ?? []).slice(-PRECEDENTS);
    const candidates = new Set([DECIDED, ...precedents.flat()]);
    for (const feature of features)
      if (feature !== EVERYTHING) for (const label of this.most(feature)) candidates.add(label);
    const counts = new Map(
      features.map((feature) => {
        const labels = [...candidates].map((label) => [label, this.counts.get(feature)?.get(label) ?? 0] as const);
        return [feature, new Map(labels.filter(([, given]) => given > 0))] as const;
      }),
    );
    return judge(features, { counts, precedents, named: [], belongs: [], records: {} });
  }

  private most(feature: string): Label[] {
    const labels = [...(this.counts.get(feature) ?? [])].filter(([label]) => label !== DECIDED);
    return labels
      .toSorted((a, b) => b[1] - a[1])
      .slice(0, MOST_OF_A_FEATURE)
      .map(([label]) => label);
  }

  learn({ from }: MadeUp, features: readonly string[], labels: readonly Label[]): void {
    for (const { feature, label, by } of countChanges(features, [], labels)) {
      const counted = this.counts.get(feature) ?? new Map<Label, number>();
      this.counts.set(feature, counted.set(label, (counted.get(label) ?? 0) + by));
    }
    this.people.set(from, [...(this.people.get(from) ?? []), labels]);
  }
}

export function labelsOfMadeUp({ categories, record, owner }: MadeUp): Label[] {
  return [
    DECIDED,
    ...categories.map((id) => LABEL_PREFIXES.categorise + id),
    ...(record === null ? [] : [LABEL_PREFIXES.file + record]),
    LABEL_PREFIXES.assign + owner,
  ];
}

type Score = {
  asked: number;
  said: number;
  first: number;
  three: number;
  /** The same of those alone to which somebody gave something of the kind: for the others there is no right answer. */
  given: { asked: number; said: number; first: number };
  bands: { said: number; right: number; sum: number }[];
};

/** Learns the first four fifths in the order of time, then asks for the rest, learning on; what came of it by kind. */
export function scoreProposals(tray: readonly MadeUp[]): ReadonlyMap<Kind, Score> {
  const memory = new Memory();
  const scores = new Map(
    KINDS.map((kind): [Kind, Score] => [
      kind,
      {
        asked: 0,
        said: 0,
        first: 0,
        three: 0,
        given: { asked: 0, said: 0, first: 0 },
        bands: Array.from({ length: BANDS }, () => ({ said: 0, right: 0, sum: 0 })),
      },
    ]),
  );
  tray.forEach((one, at) => {
    const features = featuresOf(one);
    const labels = labelsOfMadeUp(one);
    const judged = memory.judge(one, features);
    for (const kind of KINDS) {
      const ofKind = judged.filter((each) => each.kind === kind);
      const [first] = ofKind;
      const record = memory.records.get(kind) ?? NO_RECORD;
      if (at >= tray.length * LEARNT) count(kind, scores.get(kind), ofKind, labels, record);
      if (first !== undefined) memory.records.set(kind, withOutcome(record, first.raw, labels.includes(first.label)));
    }
    memory.learn(one, features, labels);
  });
  return scores;
}

function count(
  kind: Kind,
  score: Score | undefined,
  judged: readonly Judged[],
  labels: readonly Label[],
  record: TrackRecord,
): void {
  const [first] = judged;
  // What nobody gave cannot be proposed rightly; whether to say nothing is judged all the same.
  if (score === undefined) return;
  score.asked += 1;
  const wasGiven = labels.some((label) => label !== DECIDED && kindOf(label) === kind);
  if (wasGiven) score.given.asked += 1;
  if (first === undefined) return;
  const confidence = calibrated(first.raw, record);
  const right = labels.includes(first.label);
  const band = score.bands[bandOfConfidence(confidence)];
  if (band !== undefined) {
    band.said += 1;
    band.sum += confidence;
    if (right) band.right += 1;
  }
  if (confidence < SAID_FROM) return;
  score.said += 1;
  if (right) score.first += 1;
  if (wasGiven) score.given.said += 1;
  if (wasGiven && right) score.given.first += 1;
  if (judged.slice(0, 3).some(({ label }) => labels.includes(label))) score.three += 1;
}

/** The scores as lines to print. */
export function printedScores(name: string, scores: ReadonlyMap<Kind, Score>): string[] {
  return [...scores].flatMap(([kind, { asked, said, first, three, bands }]) => [
    `${name}, ${kind}: proposed for ${((100 * said) / asked).toFixed(0)} %, of these right first ${((100 * first) / said).toFixed(0)} %, among three ${((100 * three) / said).toFixed(0)} %`,
    `  said/right by decile: ${bands.map((band) => (band.said === 0 ? "-" : `${((100 * band.sum) / band.said).toFixed(0)}/${((100 * band.right) / band.said).toFixed(0)} (${band.said})`)).join("  ")}`,
  ]);
}

/** Stories of the made-up world as what the team decided about each, in the order in which they began. */
export function toldTray(scripts: readonly Script[]): MadeUp[] {
  const began = ({ steps: [first] }: Script) =>
    first === undefined ? 0 : "minutesAgo" in first.at ? -first.at.minutesAgo / 1e6 : -first.at.daysAgo;
  const inOrder = scripts.filter(({ tray }) => tray === "office").toSorted((a, b) => began(a) - began(b));
  return inOrder.flatMap(({ who, subject, steps }, at): MadeUp[] => {
    const [first] = steps;
    const owner = steps.findLast((step) => step.kind === "assign");
    const wasDecided = steps.some(({ kind }) => kind === "assign" || kind === "categorise" || kind === "file");
    if (first?.kind !== "they" || !wasDecided) return [];
    const given = (kind: "categorise" | "file") => steps.flatMap((step) => (step.kind === kind ? [step.code] : []));
    return [
      {
        id: String(at),
        from: PEOPLE[who].address,
        listId: null,
        subject,
        ownText: first.text,
        categories: given("categorise"),
        record: given("file")[0] ?? null,
        owner: owner?.kind === "assign" ? owner.to : "nobody",
      },
    ];
  });
}
