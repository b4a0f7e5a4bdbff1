import type { MemberId } from "../kernel/ids";
import type { Asked, Evidence, Likely } from "./evidence";
import { EVERYTHING, ofUnfiled, readFeature } from "./features";
import { LABEL_PREFIXES, type Label, UNFILED, UNOWNED } from "./lesson";
import type { CategoryPiece, OwnerPiece, RecordPiece } from "./pieces";
import { type Counts, drawn, sharedOut, type Told } from "./shares";
import { type Says, type Weights, weighed } from "./weights";

/** How much each piece counts before anything was learned. */
export const OWNER_WEIGHTS: Weights<OwnerPiece> = {
  record: 0.5,
  category: 0.7,
  either: 0.8,
  person: 0.6,
  last: 0.4,
  usual: 1,
  none: -0.5,
};

const IMAGINED = { usual: 2, record: 0.5, category: 1, person: 2 };
const HARDLY = 0.02;
// Who has a record has most of what is filed to it, and who has a matter a little.
const BY_RECORD = 0.85;

type Given = {
  readonly categories: readonly Likely<CategoryPiece>[];
  readonly records: readonly Likely<RecordPiece>[];
};

/** Somebody who may own it, and for whom that is meant: for themselves, or the likeliest of those for whom they answer. */
export type LikelyOwner = Likely<OwnerPiece> & { readonly meant: Label };

/**
 * Who may own what is in the tray, and nobody, in one choice: how likely each is for a letter, given where it is likely to
 * be filed and what it is likely about. Whoever is away is judged as themselves, and that goes to who covers for them.
 */
export function likelyOwners(
  asked: Asked,
  evidence: Pick<Evidence, "owners" | "last" | "mayOwn" | "inCharge">,
  given: Given,
  weights: Weights<OwnerPiece>,
): LikelyOwner[] {
  const charged = evidence.mayOwn.flatMap((id) => {
    const who = evidence.inCharge(id);
    return who === null ? [] : [{ label: labelOf(who), meant: labelOf(id) }];
  });
  const all = [{ label: UNOWNED, meant: UNOWNED }, ...charged].map((one, _, { length }) => ({
    ...one,
    says: saysOf(one.meant, length, asked, evidence, given),
  }));
  const shares = sharedOut(all.map(({ says }) => weighed(weights, says)));
  return together(all.map((one, at) => ({ ...one, likelihood: shares[at] ?? 0 })));
}

const labelOf = (id: MemberId): Label => LABEL_PREFIXES.assign + id;

// Whoever covers has what is meant for several together.
function together(all: readonly LikelyOwner[]): LikelyOwner[] {
  const owners = new Map<Label, LikelyOwner>();
  for (const one of all.toSorted((a, b) => b.likelihood - a.likelihood)) {
    const likelier = owners.get(one.label);
    const likelihood = (likelier?.likelihood ?? 0) + one.likelihood;
    owners.set(one.label, { ...(likelier ?? one), likelihood });
  }
  return [...owners.values()];
}

/** In how many of the cases with a feature somebody was the owner, the newer the more. */
export function toldOfOwner(owners: Counts, feature: string, label: Label): Told {
  const labels = owners.get(feature);
  if (labels === undefined) return { was: 0, of: 0 };
  return { was: labels.get(label) ?? 0, of: [...labels.values()].reduce((sum, one) => sum + one, 0) };
}

function saysOf(
  label: Label,
  choices: number,
  asked: Asked,
  { owners, last }: Pick<Evidence, "owners" | "last">,
  { categories, records }: Given,
): Says<OwnerPiece> {
  const usual = drawn(toldOfOwner(owners, EVERYTHING, label), 1 / choices, IMAGINED.usual);
  const shareIn = (all: readonly Likely<string>[], imagined: number) => {
    const sum = all.reduce((mass, { likelihood }) => mass + likelihood, 0);
    const share = all.reduce(
      (part, one) => part + one.likelihood * drawn(toldOfOwner(owners, one.label, label), usual, imagined),
      0,
    );
    return { sum, share: sum < HARDLY ? usual : share / sum, says: sum < HARDLY ? 0 : Math.log(share / sum / usual) };
  };
  const filed = shareIn(
    records.filter((record) => record.label !== UNFILED),
    IMAGINED.record,
  );
  const about = shareIn(categories, IMAGINED.category);
  const unfiled = categories.map((one) => ({ ...one, label: ofUnfiled(readFeature(one.label).text) }));
  const elsewhere = shareIn(unfiled, IMAGINED.category);
  const byRecord = BY_RECORD * Math.min(1, filed.sum);
  return {
    record: Math.min(1, filed.sum) * filed.says,
    category: about.says,
    either: Math.log((byRecord * filed.share + (1 - byRecord) * elsewhere.share) / usual),
    person: Math.log(drawn(toldOfOwner(owners, asked.person, label), usual, IMAGINED.person) / usual),
    last: last[0]?.includes(label) === true ? 1 : 0,
    usual: Math.log(usual),
    none: label === UNOWNED ? 1 : 0,
  };
}
