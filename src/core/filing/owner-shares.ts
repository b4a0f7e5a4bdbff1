import type { Likely } from "./evidence";
import { ofUnfiled, readFeature } from "./features";
import { type Label, UNFILED } from "./lesson";
import type { CategoryPiece, RecordPiece } from "./pieces";

/** Where a letter is likely filed, and what it is likely about. */
export type Given = {
  readonly categories: readonly Likely<CategoryPiece>[];
  readonly records: readonly Likely<RecordPiece>[];
};

type ShareOf = (label: Label) => number;

// Who has a record has most of what is filed to it, and who has its matter the rest.
const BY_RECORD = 0.9;
const HARDLY = 0.02;

/**
 * The share that each of some is likely to have of what a letter is: of its record as far as it has one, and else of what it
 * is about where it is on none. `usual` is the share of everything, `shareIn` that of what has one feature.
 */
export function shareOfEither(
  labels: readonly Label[],
  usual: ShareOf,
  { categories, records }: Given,
  shareIn: (feature: string) => ShareOf,
): ShareOf {
  const filed = records
    .filter(({ label }) => label !== UNFILED)
    .map(({ label, likelihood }) => ({ likelihood, share: shareIn(label) }));
  const sum = filed.reduce((mass, { likelihood }) => mass + likelihood, 0);
  const ofRecord = (label: Label) => filed.reduce((share, one) => share + one.likelihood * one.share(label), 0) / sum;
  const byRecord = sum < HARDLY ? 0 : BY_RECORD * Math.min(1, sum);
  const ofMatter = shareOfMatters(
    labels,
    usual,
    categories.map(({ label, likelihood }) => ({
      likelihood,
      share: shareIn(ofUnfiled(readFeature(label).text)),
    })),
  );
  return (label) => (byRecord === 0 ? 0 : byRecord * ofRecord(label)) + (1 - byRecord) * ofMatter(label);
}

type Matter = { readonly likelihood: number; readonly share: ShareOf };

/**
 * Categories do not exclude one another as records do: a letter may have several, and then each of them says something about
 * whose it is. So the shares are those in all sets of them, each as likely as it is that just these are given, in which
 * what each category says against the usual is multiplied (product of experts; Hinton 2002).
 */
function shareOfMatters(labels: readonly Label[], usual: ShareOf, matters: readonly Matter[]): ShareOf {
  const against = matters.map(({ share }) => labels.map((label) => share(label) / usual(label)));
  const shares = new Map<Label, number>(labels.map((label) => [label, 0]));
  let mass = 0;
  for (let set = 1; set < 1 << matters.length; set += 1) {
    const isIn = (at: number) => (set & (1 << at)) !== 0;
    const likely = matters.reduce((all, { likelihood }, at) => all * (isIn(at) ? likelihood : 1 - likelihood), 1);
    const products = labels.map((label, place) =>
      against.reduce((all, one, at) => (isIn(at) ? all * (one[place] ?? 1) : all), usual(label)),
    );
    const sum = products.reduce((all, one) => all + one, 0);
    for (const [place, label] of labels.entries())
      shares.set(label, (shares.get(label) ?? 0) + (likely * (products[place] ?? 0)) / sum);
    mass += likely;
  }
  return (label) => (mass < HARDLY ? usual(label) : (shares.get(label) ?? 0) / mass);
}
