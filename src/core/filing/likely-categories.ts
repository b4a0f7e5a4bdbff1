import type { Asked, Evidence, Likely } from "./evidence";
import { EVERYTHING } from "./features";
import { LABEL_PREFIXES, type Label, UNFILED } from "./lesson";
import type { CategoryPiece, RecordPiece } from "./pieces";
import {
  between,
  type Counts,
  clamped,
  drawn,
  type Labelled,
  likelihood,
  logOdds,
  saysOdds,
  told,
  toldIn,
  usualShare,
} from "./shares";
import { type Says, type Weights, weighed } from "./weights";

/** How much each piece counts before anything was learned. */
export const CATEGORY_WEIGHTS: Weights<CategoryPiece> = {
  person: 0.5,
  domain: 0.5,
  list: 0.9,
  words: 0.5,
  record: 0,
  usual: 0.85,
  bias: -0.4,
};

/** How many imagined cases of the usual share stand beside what was counted: more where counts are of many small things. */
const IMAGINED = { person: 1.5, domain: 2, list: 1, words: 2, record: 2 };
// So many precedents, and a person's domain says nothing that they do not say themselves.
const KNOWN_PERSON = 6;
const [LEAST_OF_A_WORD, MOST_OF_A_WORD] = [-1, 3];
const HARDLY_FILED = 0.05;

/** Every category that is still given, by itself: how likely it is for a letter, given where that is likely to be filed. */
export function likelyCategories(
  asked: Asked,
  evidence: Pick<Evidence, "counts" | "isGiven">,
  records: readonly Likely<RecordPiece>[],
  weights: Weights<CategoryPiece>,
): Likely<CategoryPiece>[] {
  const { counts, isGiven } = evidence;
  const all = [...(counts.get(EVERYTHING)?.keys() ?? [])].filter((label) =>
    label.startsWith(LABEL_PREFIXES.categorise),
  );
  const given = all.filter((label) => isGiven(label.slice(LABEL_PREFIXES.categorise.length)));
  // Looked up once, and not for each of a hundred categories.
  const seen: Seen = {
    person: counts.get(asked.person),
    domain: counts.get(asked.domain),
    list: counts.get(asked.list),
    words: asked.words.map((word) => counts.get(word)),
  };
  return given.map((label) => {
    const says = saysOf(label, seen, counts, records);
    return { label, likelihood: likelihood(weighed(weights, says)), says };
  });
}

type Seen = { readonly [K in "person" | "domain" | "list"]: Labelled } & { readonly words: readonly Labelled[] };

function saysOf(
  label: Label,
  seen: Seen,
  counts: Counts,
  records: readonly Likely<RecordPiece>[],
): Says<CategoryPiece> {
  const usual = usualShare(counts, label);
  const usualOdds = logOdds(usual);
  const says = (labels: Labelled, imagined: number) => saysOdds(toldIn(labels, label), usual, imagined, usualOdds);
  const newness = Math.max(0, 1 - toldIn(seen.person, label).of / KNOWN_PERSON);
  return {
    person: says(seen.person, IMAGINED.person),
    domain: newness * says(seen.domain, IMAGINED.domain),
    list: says(seen.list, IMAGINED.list),
    words: seen.words.reduce(
      (sum, word) => sum + between(LEAST_OF_A_WORD, says(word, IMAGINED.words), MOST_OF_A_WORD),
      0,
    ),
    record: byRecord(label, usual, counts, records),
    usual: usualOdds,
    bias: 1,
  };
}

function byRecord(label: Label, usual: number, counts: Counts, records: readonly Likely<RecordPiece>[]): number {
  let [share, filed] = [0, 0];
  for (const record of records) {
    const one = told(counts, record.label, label);
    if (record.label === UNFILED || one.of === 0) continue;
    share += record.likelihood * drawn(one, usual, IMAGINED.record);
    filed += record.likelihood;
  }
  return filed < HARDLY_FILED ? 0 : filed * (logOdds(clamped(share / filed)) - logOdds(usual));
}
