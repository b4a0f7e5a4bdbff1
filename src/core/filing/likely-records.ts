import { type RecordId, trustedId } from "../kernel/ids";
import type { Asked, Evidence, Likely } from "./evidence";
import { EVERYTHING, wordFeatures } from "./features";
import { DECIDED, LABEL_PREFIXES, type Label, UNFILED } from "./lesson";
import type { CategoryPiece, RecordPiece } from "./pieces";
import { between, type Counts, drawn, sharedOut, type Told, told, usualShare } from "./shares";
import { type Says, type Weights, weighed } from "./weights";

/** How much each piece counts before anything was learned. */
export const RECORD_WEIGHTS: Weights<RecordPiece> = {
  person: 0.7,
  domain: 0.2,
  last: 0.1,
  lastButOne: 0,
  // A code in the letter says more than any habit.
  code: 25,
  belongs: 2.5,
  words: 0.15,
  ownWords: 0.3,
  category: 0.2,
  title: 1.4,
  none: 0.3,
};

const IMAGINED = { person: 2, domain: 3, words: 1.5, ownWords: 1, category: 4 };
const [LEAST_OF_A_WORD, MOST_OF_A_WORD] = [-0.7, 3];
// A word is a record's own where it is so many times, in logarithms, as frequent there as elsewhere; no record is rarer than this.
const ITS_OWN = 3;
const RAREST_RECORD = 1e-3;
// A word of a title counts as one where it stands in one letter of a hundred and fifty.
const USUAL_RARITY = Math.log(150);

/** The open records that anything speaks for, and none at all, in one choice: how likely each is for a letter. */
export function likelyRecords(
  asked: Asked,
  evidence: Evidence,
  categories: readonly Likely<CategoryPiece>[],
  weights: Weights<RecordPiece>,
): Likely<RecordPiece>[] {
  const labels = [...evidence.open.keys()].map((id) => LABEL_PREFIXES.file + id);
  const all = [UNFILED, ...labels].map((label) => ({ label, says: saysOf(label, asked, evidence, categories) }));
  const shares = sharedOut(all.map(({ says }) => weighed(weights, says)));
  return all.map((one, at) => ({ ...one, likelihood: shares[at] ?? 0 }));
}

function saysOf(
  label: Label,
  asked: Asked,
  { counts, last, named, belongs, open }: Evidence,
  categories: readonly Likely<CategoryPiece>[],
): Says<RecordPiece> {
  const id = trustedId<RecordId>(label.slice(LABEL_PREFIXES.file.length));
  const usual = usualShare(counts, label);
  const domain = drawn(told(counts, asked.domain, label), usual, IMAGINED.domain);
  const against = (feature: string, imagined: number) =>
    Math.log(drawn(told(counts, feature, label), usual, imagined) / usual);
  return {
    person: Math.log(drawn(told(counts, asked.person, label), domain, IMAGINED.person)),
    domain: Math.log(domain),
    last: last[0]?.includes(label) === true ? 1 : 0,
    lastButOne: last[1]?.includes(label) === true ? 1 : 0,
    code: named.includes(id) ? 1 : 0,
    belongs: belongs.includes(id) ? 1 / belongs.length : 0,
    words: asked.rarest.reduce(
      (sum, word) => sum + between(LEAST_OF_A_WORD, against(word, IMAGINED.words), MOST_OF_A_WORD),
      0,
    ),
    ownWords:
      label === UNFILED ? 0 : asked.rarest.reduce((sum, word) => sum + ownOf(told(counts, word, label), usual), 0),
    category: categories.reduce(
      (sum, category) => sum + category.likelihood * against(category.label, IMAGINED.category),
      0,
    ),
    title: wordFeatures(open.get(id) ?? "")
      .filter((word) => asked.unusual.has(word))
      .reduce((sum, word) => sum + rarityOf(word, counts), 0),
    none: label === UNFILED ? 1 : 0,
  };
}

function ownOf(one: Told, usual: number): number {
  if (one.was < 1) return 0;
  const more = Math.log(drawn(one, usual, IMAGINED.ownWords) / Math.max(usual, RAREST_RECORD));
  return Math.max(0, more - ITS_OWN);
}

function rarityOf(word: string, counts: Counts): number {
  const [known, decided] = [told(counts, word, DECIDED).of, told(counts, EVERYTHING, DECIDED).of];
  return Math.log(Math.max(1, decided) / Math.max(1, known)) / USUAL_RARITY;
}
