import { calibration, NO_RECORD } from "./calibration";
import type { Asked, Evidence, Likely, ProposalKind } from "./evidence";
import { EVERYTHING } from "./features";
import { DECIDED, SETTLED_UNANSWERED, UNFILED } from "./lesson";
import { CATEGORY_WEIGHTS, likelyCategories } from "./likely-categories";
import { type LikelyOwner, likelyOwners, OWNER_WEIGHTS } from "./likely-owners";
import { likelyRecords, RECORD_WEIGHTS } from "./likely-records";
import type { CategoryPiece, RecordPiece, SettlePiece } from "./pieces";
import { between, likelihood, logOdds, saysOdds, told, usualShare } from "./shares";
import { storedWeights, type Weights, weighed } from "./weights";

const SETTLE_WEIGHTS: Weights<SettlePiece> = { person: 0.9, list: 1, words: 0.2, usual: 1 };

/** How much each piece of evidence counts before anything was learned, by kind. */
export const BEGINNING: { readonly [K in ProposalKind]: Readonly<Record<string, number>> } = {
  file: RECORD_WEIGHTS,
  categorise: CATEGORY_WEIGHTS,
  assign: OWNER_WEIGHTS,
  settle: SETTLE_WEIGHTS,
};

/** Before so much was decided in a tray, nothing is judged but what stands in the letter itself. */
const MIN_DECIDED = 20;

/** Everything that may be decided about a letter, and how likely each is. */
export type Judged = {
  readonly asked: Asked;
  readonly categories: readonly Likely<CategoryPiece>[];
  /** One choice, with that of no record at all. */
  readonly records: readonly Likely<RecordPiece>[];
  /** One choice, with that of nobody. */
  readonly owners: readonly LikelyOwner[];
  readonly settle: Likely<SettlePiece>;
};

// What is less likely than this leads to nothing.
const LIKELY = 0.1;
const MOST_CATEGORIES = 6;
const MOST_RECORDS = 8;

/** The labels that a letter is likely to be given, by what it says alone: what else was given with them is asked for next. */
export function likelyLabels(asked: Asked, evidence: Evidence): string[] {
  const weights = weightsOf(evidence);
  const categories = likelyCategories(asked, evidence, [], weights.categorise);
  const records = likelyRecords(asked, evidence, [], weights.file).filter(({ label }) => label !== UNFILED);
  return [...likeliest(categories, MOST_CATEGORIES), ...likeliest(records, MOST_RECORDS)].map(({ label }) => label);
}

/**
 * Judges a letter: each kind of decision by the evidence for it, which counts as much as was learned (naive Bayes within
 * a piece, log-linear between them). Records are judged by what a letter is likely about, that again by where it is likely
 * filed, and owners by both.
 */
export function judge(asked: Asked, evidence: Evidence): Judged {
  const weights = weightsOf(evidence);
  const first = likelyCategories(asked, evidence, [], weights.categorise);
  const records = likelyRecords(asked, evidence, likeliest(first, MOST_CATEGORIES), weights.file);
  const categories = likelyCategories(asked, evidence, records, weights.categorise);
  const filed = likeliest(asTaken(records, evidence), MOST_RECORDS);
  const given = { categories: likeliest(categories, MOST_CATEGORIES), records: filed };
  const owners = likelyOwners(asked, evidence, given, weights.assign);
  return { asked, categories, records, owners, settle: settling(asked, evidence, weights.settle) };
}

// Who has a record counts as far as it is truly filed there, and not as far as it seems.
function asTaken(records: readonly Likely<RecordPiece>[], { records: known }: Evidence): Likely<RecordPiece>[] {
  const taken = calibration(known.file ?? NO_RECORD);
  const best = likeliestOf(records.filter(({ label }) => label !== UNFILED));
  return records.map((one) => (one === best ? { ...one, likelihood: taken(one.likelihood) } : one));
}

/** The likeliest of some; null of none. */
export const likeliestOf = <One extends Likely<string>>(all: readonly One[]): One | null =>
  all.reduce<One | null>((best, one) => (best !== null && best.likelihood >= one.likelihood ? best : one), null);

/** How much each piece of evidence counts in a tray by now. */
export function weightsOf({ weights }: Pick<Evidence, "weights">) {
  return {
    file: storedWeights(weights.file, RECORD_WEIGHTS),
    categorise: storedWeights(weights.categorise, CATEGORY_WEIGHTS),
    assign: storedWeights(weights.assign, OWNER_WEIGHTS),
    settle: storedWeights(weights.settle, SETTLE_WEIGHTS),
  };
}

/** Whether enough was decided in a tray to go by. */
export function isLearned({ counts }: Pick<Evidence, "counts">): boolean {
  return told(counts, EVERYTHING, DECIDED).of >= MIN_DECIDED;
}

function likeliest<Piece extends string>(all: readonly Likely<Piece>[], most: number): Likely<Piece>[] {
  return all
    .filter((one) => one.likelihood > LIKELY)
    .toSorted((a, b) => b.likelihood - a.likelihood)
    .slice(0, most);
}

const [LEAST_OF_A_WORD, MOST_OF_A_WORD] = [-0.5, 1.5];
const IMAGINED = { person: 1, list: 1, words: 3 };

function settling(asked: Asked, { counts }: Evidence, weights: Weights<SettlePiece>): Likely<SettlePiece> {
  const usual = usualShare(counts, SETTLED_UNANSWERED);
  const against = (feature: string, imagined: number) =>
    saysOdds(told(counts, feature, SETTLED_UNANSWERED), usual, imagined);
  const says = {
    person: against(asked.person, IMAGINED.person),
    list: against(asked.list, IMAGINED.list),
    words: asked.words.reduce(
      (sum, word) => sum + between(LEAST_OF_A_WORD, against(word, IMAGINED.words), MOST_OF_A_WORD),
      0,
    ),
    usual: logOdds(usual),
  };
  return { label: SETTLED_UNANSWERED, likelihood: likelihood(weighed(weights, says)), says };
}
