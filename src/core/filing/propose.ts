import { type CategoryId, type MemberId, type RecordId, trustedId } from "../kernel/ids";
import { calibrated, NO_RECORD, type TrackRecord } from "./calibration";
import { EVERYTHING, type FeatureKind, readFeature } from "./features";
import { DECIDED, LABEL_PREFIXES, type Label, SETTLED_UNANSWERED } from "./lesson";

/** What could be decided about a conversation. */
export type ProposalKind = "file" | "categorise" | "assign" | "settle";

/** Why something is proposed: in how many of how many it was so, and of which it is told. */
export type Because = { readonly was: number; readonly of: number } & (
  | { readonly kind: "person" }
  | { readonly kind: "domain" | "list"; readonly text: string }
  | { readonly kind: "words"; readonly words: readonly string[] }
  /** Its reference code stands in the letter. */
  | { readonly kind: "code" }
  /** The register says that the writer belongs to it. */
  | { readonly kind: "belongs" }
);

/** A likely decision, how sure it is, and what that rests on. */
export type Proposal = (
  | { readonly kind: "file"; readonly recordId: RecordId }
  | { readonly kind: "categorise"; readonly categoryId: CategoryId }
  /** `coversFor` is whom it is meant for, where that is somebody who is away. */
  | { readonly kind: "assign"; readonly ownerId: MemberId; readonly coversFor?: MemberId }
  | { readonly kind: "settle" }
) & {
  /** From 0 to 1: the share of such proposals that are right. */
  readonly confidence: number;
  readonly because: Because;
};

/** Counts of labels among what was decided about: with a feature, and with the same person, the newest ones. */
export type Evidence = {
  /** By feature: how often each label was given where it was there; `*` how often anything was decided. */
  readonly counts: ReadonlyMap<string, ReadonlyMap<Label, number>>;
  /** The labels of the newest conversations with the same person. */
  readonly precedents: readonly (readonly Label[])[];
  /** The records whose reference codes stand in the letter. */
  readonly named: readonly RecordId[];
  /** The open records to which its writer's address belongs, as the register says. */
  readonly belongs: readonly RecordId[];
  /** What came of earlier proposals, by kind. */
  readonly records: { readonly [K in ProposalKind]?: TrackRecord };
};

/** What a conversation has already, so that it is not proposed. */
export type AlreadyGiven = {
  readonly ownerId: MemberId | null;
  readonly categoryIds: readonly CategoryId[];
  readonly recordIds: readonly RecordId[];
};

const MOST = 4;
// Below this nothing is said: a proposal that is mostly wrong costs more than it saves.
const MIN_CONFIDENCE = 0.6;
const MIN_DECIDED = 3;
// A code in the letter says more than any habit.
const NAMED_SCORE = 9;
// So does the register, while it names the writer on one record; on several, what was done before decides between them.
const BELONGS_SCORE = 7.5;
// How many precedents a person needs before her domain says nothing that she does not say herself.
const KNOWN_PERSON = 6;
const TELLING_WORDS = 4;
/** How many imagined cases of the usual share stand beside what was counted: more where counts are of many small things. */
const IMAGINED = { person: 1, domain: 2, list: 1, words: 3 };
// Kinds of evidence say the same thing several times over, so that their sum claims too much.
const TEMPER = 2.2;
const WEIGHTS = { person: 1, domain: 0.7, list: 1, subject: 0.55, text: 0.3 };

/** A label that may be given, with what speaks for it. `raw` is before it is held against the record of earlier ones. */
export type Judged = {
  readonly label: Label;
  readonly kind: ProposalKind;
  readonly raw: number;
  readonly because: Because;
};

/**
 * The likely decisions about a conversation with these features, the surest first, at most four; silence where nothing is
 * sure enough. What a person, her domain, a list and the words did before is weighed as in a naive Bayes classifier (log
 * odds against the usual share, each drawn towards it where little was counted), and the outcome is held against how often
 * such a confidence was right.
 */
export function propose(features: readonly string[], evidence: Evidence, given: AlreadyGiven): Proposal[] {
  const sure = judge(features, evidence)
    .map((judged) => ({ ...judged, confidence: calibrated(judged.raw, evidence.records[judged.kind] ?? NO_RECORD) }))
    .filter(({ confidence, label }) => confidence >= MIN_CONFIDENCE && !has(given, label))
    // Where it is filed has been decided; that its writer belongs to another record as well is no news.
    .filter(({ because }) => because.kind !== "belongs" || given.recordIds.length === 0)
    .toSorted((a, b) => b.confidence - a.confidence);
  const settles = sure.some(({ kind }) => kind === "settle");
  const taken = new Set<ProposalKind>();
  const kept = sure.filter(({ kind }) => {
    // What nobody had to do anything about needs no owner; and there is one place and one owner to propose.
    if (kind === "assign" && (settles || given.ownerId !== null)) return false;
    if (kind !== "categorise" && taken.has(kind)) return false;
    taken.add(kind);
    return true;
  });
  return kept.slice(0, MOST).map(proposalOf);
}

/** Every label that was ever given to something alike, with its raw confidence, the likeliest first. */
export function judge(features: readonly string[], { counts, precedents, named, belongs }: Evidence): Judged[] {
  const base = counts.get(EVERYTHING) ?? new Map<Label, number>();
  const decided = base.get(DECIDED) ?? 0;
  const codes = named.map((id) => LABEL_PREFIXES.file + id);
  const hers = belongs.map((id) => LABEL_PREFIXES.file + id);
  const belongsSays = BELONGS_SCORE - Math.log(Math.max(1, hers.length));
  if (decided < MIN_DECIDED && codes.length + hers.length === 0) return [];
  const known = byKind(counts, features);
  const candidates = new Set([
    ...codes,
    ...hers,
    ...precedents.flat(),
    ...[known.domain, known.list, known.subject, known.text].flat().flatMap(({ labels }) => [...labels.keys()]),
  ]);
  candidates.delete(DECIDED);
  const judged = [...candidates].map((label): Judged => {
    const usual = (base.get(label) ?? 0) / Math.max(1, decided);
    const parts: Part[] = [
      ...partsFor(label, usual, known, precedents),
      ...(hers.includes(label) ? [{ says: belongsSays, because: { kind: "belongs", was: 1, of: 1 } as const }] : []),
    ];
    const isNamed = codes.includes(label);
    const score = logit(clamped(usual)) + parts.reduce((sum, { says }) => sum + says, 0) + (isNamed ? NAMED_SCORE : 0);
    const strongest = parts.toSorted((a, b) => toldFirst(b) - toldFirst(a))[0];
    const because = isNamed || strongest === undefined ? ({ kind: "code", was: 1, of: 1 } as const) : strongest.because;
    return { label, kind: kindOf(label), raw: 1 / (1 + Math.exp(-score / TEMPER)), because };
  });
  return judged.toSorted((a, b) => b.raw - a.raw);
}

// Of two reasons that say about as much, the one about people is understood at once.
const PLAINER = 1.6;
const toldFirst = ({ says, because }: Part) => (because.kind === "words" ? says : says * PLAINER);

type Known = { readonly kind: FeatureKind; readonly text: string; readonly labels: ReadonlyMap<Label, number> };
type ByKind = { readonly [K in FeatureKind]: readonly Known[] };
type Part = { readonly says: number; readonly because: Because };

function byKind(counts: Evidence["counts"], features: readonly string[]): ByKind {
  const known: { [K in FeatureKind]: Known[] } = { everything: [], domain: [], list: [], subject: [], text: [] };
  for (const feature of features) {
    const labels = counts.get(feature);
    if (labels === undefined) continue;
    const { kind, text } = readFeature(feature);
    known[kind].push({ kind, text, labels });
  }
  return known;
}

const counted = ({ labels }: Known, label: Label) => ({ was: labels.get(label) ?? 0, of: labels.get(DECIDED) ?? 0 });

/** What each kind of evidence says about a label, in log odds against its usual share. */
function partsFor(label: Label, usual: number, known: ByKind, precedents: readonly (readonly Label[])[]): Part[] {
  const person = { was: precedents.filter((labels) => labels.includes(label)).length, of: precedents.length };
  const newness = Math.max(0, 1 - precedents.length / KNOWN_PERSON);
  const placed = (kind: "domain" | "list", weight: number, imagined: number): Part[] =>
    known[kind].map((one) => ({
      says: weight * against(usual, counted(one, label), imagined),
      because: { kind, text: one.text, ...counted(one, label) },
    }));
  return [
    ...(person.of === 0
      ? []
      : [
          {
            says: WEIGHTS.person * against(usual, person, IMAGINED.person),
            because: { kind: "person", ...person } as const,
          },
        ]),
    ...placed("domain", WEIGHTS.domain * newness, IMAGINED.domain),
    ...placed("list", WEIGHTS.list, IMAGINED.list),
    ...wordPart(known.subject, WEIGHTS.subject, usual, label),
    // By words of the text, where something is filed is not counted.
    ...(kindOf(label) === "file" ? [] : wordPart(known.text, WEIGHTS.text, usual, label)),
  ];
}

// Words of one letter say the same thing several times: only the few that say most are heard.
function wordPart(words: readonly Known[], weight: number, usual: number, label: Label): Part[] {
  if (words.length === 0) return [];
  const said = words.map((one) => against(usual, counted(one, label), IMAGINED.words));
  const loudest = said
    .map((_, at) => at)
    .toSorted((a, b) => Math.abs(said[b] ?? 0) - Math.abs(said[a] ?? 0))
    .slice(0, TELLING_WORDS);
  const says = weight * loudest.reduce((sum, at) => sum + (said[at] ?? 0), 0);
  const speaking = loudest.flatMap((at) => ((said[at] ?? 0) > 0 ? (words[at] ?? []) : []));
  const [first] = speaking;
  const { was, of } = first === undefined ? { was: 0, of: 0 } : counted(first, label);
  return [{ says, because: { kind: "words", words: speaking.slice(0, 2).map(({ text }) => text), was, of } }];
}

function against(usual: number, { was, of }: { was: number; of: number }, imagined: number): number {
  const share = (was + imagined * usual) / (of + imagined);
  return logit(clamped(share)) - logit(clamped(usual));
}

const LEAST = 0.002;
const clamped = (share: number) => Math.min(1 - LEAST, Math.max(LEAST, share));
const logit = (share: number) => Math.log(share / (1 - share));

/** The kind of decision that gives a label. */
export function kindOf(label: Label): ProposalKind {
  if (label === SETTLED_UNANSWERED) return "settle";
  for (const [kind, prefix] of Object.entries(LABEL_PREFIXES))
    if (label.startsWith(prefix)) return kind as ProposalKind;
  throw new Error(`${label} is no label that can be proposed`);
}

const PREFIX_LENGTH = 2;

function proposalOf({ label, kind, confidence, because }: Judged & { readonly confidence: number }): Proposal {
  const id = label.slice(PREFIX_LENGTH);
  switch (kind) {
    case "file":
      return { kind, recordId: trustedId<RecordId>(id), confidence, because };
    case "categorise":
      return { kind, categoryId: trustedId<CategoryId>(id), confidence, because };
    case "assign":
      return { kind, ownerId: trustedId<MemberId>(id), confidence, because };
    case "settle":
      return { kind, confidence, because };
  }
}

function has({ ownerId, categoryIds, recordIds }: AlreadyGiven, label: Label): boolean {
  const id = label.slice(PREFIX_LENGTH);
  return ownerId === id || categoryIds.some((one) => one === id) || recordIds.some((one) => one === id);
}
