import type { MemberId } from "../kernel/ids";
import type { Asked, Evidence, Likely } from "./evidence";
import { EVERYTHING } from "./features";
import { LABEL_PREFIXES, type Label, UNOWNED } from "./lesson";
import { type Given, shareOfEither } from "./owner-shares";
import type { OwnerPiece } from "./pieces";
import { drawn, sharedOut, told } from "./shares";
import { shareByTenure } from "./tenure";
import { type Says, type Weights, weighed } from "./weights";

/** How much each piece counts before anything was learned. */
export const OWNER_WEIGHTS: Weights<OwnerPiece> = {
  either: 0.75,
  tenure: 0.35,
  person: 0.5,
  last: 0.2,
  usual: 0.8,
  none: -1.1,
};

const IMAGINED = { usual: 2, either: 0.5, person: 2 };

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
  const choices = [{ label: UNOWNED, meant: UNOWNED }, ...charged];
  const saysOf = speaking(
    choices.map(({ meant }) => meant),
    asked,
    evidence,
    given,
  );
  const all = choices.map((one) => ({ ...one, says: saysOf(one.meant) }));
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

/** What speaks for each of some who may be meant. */
function speaking(
  labels: readonly Label[],
  asked: Asked,
  { owners, last }: Pick<Evidence, "owners" | "last">,
  given: Given,
): (label: Label) => Says<OwnerPiece> {
  const usually = new Map(
    labels.map((label) => [label, drawn(told(owners.faded, EVERYTHING, label), 1 / labels.length, IMAGINED.usual)]),
  );
  const usual = (label: Label) => usually.get(label) ?? 0;
  const share = (feature: string, label: Label, imagined: number) =>
    drawn(told(owners.faded, feature, label), usual(label), imagined);
  const either = shareOfEither(labels, usual, given, (feature) => (label) => share(feature, label, IMAGINED.either));
  const tenure = shareOfEither(labels, usual, given, (feature) =>
    shareByTenure(owners.cases.get(feature) ?? new Map(), owners.period, usual),
  );
  return (label) => ({
    either: Math.log(either(label) / usual(label)),
    tenure: Math.log(tenure(label) / usual(label)),
    person: Math.log(share(asked.person, label, IMAGINED.person) / usual(label)),
    last: last[0]?.includes(label) === true ? 1 : 0,
    usual: Math.log(usual(label)),
    none: label === UNOWNED ? 1 : 0,
  });
}
