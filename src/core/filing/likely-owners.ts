import type { MemberId } from "../kernel/ids";
import type { Asked, Evidence, Likely } from "./evidence";
import { EVERYTHING } from "./features";
import { LABEL_PREFIXES, type Label, UNFILED, UNOWNED } from "./lesson";
import type { CategoryPiece, OwnerPiece, RecordPiece } from "./pieces";
import { type Counts, drawn, sharedOut, type Told } from "./shares";
import { type Says, type Weights, weighed } from "./weights";

/** How much each piece counts before anything was learned. */
export const OWNER_WEIGHTS: Weights<OwnerPiece> = {
  record: 0.75,
  category: 1,
  person: 0.6,
  last: 0.4,
  usual: 0.95,
  none: 0,
};

const IMAGINED = { usual: 2, record: 0.7, category: 1, person: 2 };
const HARDLY = 0.02;

type Given = {
  readonly categories: readonly Likely<CategoryPiece>[];
  readonly records: readonly Likely<RecordPiece>[];
};

/**
 * Who may own what is in the tray, and nobody, in one choice: how likely each is for a letter, given where it is likely to
 * be filed and what it is likely about. Whoever is away is judged as themselves; who covers for them is found afterwards.
 */
export function likelyOwners(
  asked: Asked,
  evidence: Pick<Evidence, "owners" | "last" | "mayOwn">,
  given: Given,
  weights: Weights<OwnerPiece>,
): Likely<OwnerPiece>[] {
  const labels = [UNOWNED, ...evidence.mayOwn.map((id: MemberId) => LABEL_PREFIXES.assign + id)];
  const all = labels.map((label) => ({ label, says: saysOf(label, labels.length, asked, evidence, given) }));
  const shares = sharedOut(all.map(({ says }) => weighed(weights, says)));
  return all.map((one, at) => ({ ...one, likelihood: shares[at] ?? 0 }));
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
    return { sum, says: sum < HARDLY ? 0 : Math.log(share / sum / usual) };
  };
  const filed = shareIn(
    records.filter((record) => record.label !== UNFILED),
    IMAGINED.record,
  );
  return {
    record: Math.min(1, filed.sum) * filed.says,
    category: shareIn(categories, IMAGINED.category).says,
    person: Math.log(drawn(toldOfOwner(owners, asked.person, label), usual, IMAGINED.person) / usual),
    last: last[0]?.includes(label) === true ? 1 : 0,
    usual: Math.log(usual),
    none: label === UNOWNED ? 1 : 0,
  };
}
