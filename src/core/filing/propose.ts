import { type CategoryId, type MemberId, type RecordId, trustedId } from "../kernel/ids";
import { type Because, becauseOf } from "./because";
import { calibration, NO_RECORD } from "./calibration";
import type { Evidence, Likely } from "./evidence";
import { type HowSure, LEAST } from "./how-sure";
import { isLearned, type Judged, likeliestOf } from "./judge";
import { LABEL_PREFIXES, type Label, UNFILED, UNOWNED } from "./lesson";
import { logOdds } from "./shares";

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

/** What a conversation has already, so that it is not proposed. */
export type AlreadyGiven = {
  readonly ownerId: MemberId | null;
  readonly categoryIds: readonly CategoryId[];
  readonly recordIds: readonly RecordId[];
};

const MOST = 5;

/**
 * The likely decisions about a conversation that was judged, the surest first; silence where nothing is sure enough, or where
 * it is likeliest that nothing of the kind is decided; what is only usual has to be surer. Only what can be accepted is among what is chosen from.
 */
export function propose(
  judged: Judged,
  evidence: Evidence,
  given: AlreadyGiven,
  howSure: HowSure = "often",
): Proposal[] {
  const least = LEAST[howSure];
  const taken = {
    file: calibration(evidence.records.file ?? NO_RECORD),
    categorise: calibration(evidence.records.categorise ?? NO_RECORD),
    assign: calibration(evidence.records.assign ?? NO_RECORD),
    settle: calibration(evidence.records.settle ?? NO_RECORD),
  };
  const sure = sayings(judged, evidence, given)
    .map((one) => ({ ...one, confidence: taken[one.kind](one.confidence) }))
    .filter(({ kind, confidence }) => confidence >= least[kind])
    .toSorted((a, b) => b.confidence - a.confidence);
  // What nobody has to do anything about needs no owner.
  const settles = sure.some(({ kind }) => kind === "settle");
  return sure
    .filter(({ kind }) => !(settles && kind === "assign"))
    .map(({ likely, ...one }): Proposal => ({ ...one, because: becauseOf(one.kind, likely, judged, evidence) }))
    .filter(({ kind, confidence, because }) => because.kind !== "usual" || confidence >= LEAST.sure[kind])
    .slice(0, MOST);
}

/** A decision that could be proposed, and what was judged to be likely. */
type Saying = WithoutReason<Proposal> & { readonly likely: Likely<string> };
type WithoutReason<P> = P extends Proposal ? Omit<P, "because"> : never;

function sayings(judged: Judged, evidence: Evidence, given: AlreadyGiven): Saying[] {
  // Before that, only what stands in the letter or in the register speaks.
  const isEarly = !isLearned(evidence);
  const record = given.recordIds.length > 0 ? null : recordOf(judged);
  if (isEarly) return record !== null && speaksForItself(record, judged, evidence) ? [record] : [];
  const owner = given.ownerId === null ? ownerOf(judged) : null;
  const categories = judged.categories.filter(({ label }) => !given.categoryIds.some((id) => label.endsWith(id)));
  return [
    ...(record === null ? [] : [record]),
    ...categories.map(
      (one): Saying => ({
        kind: "categorise",
        categoryId: trustedId<CategoryId>(one.label.slice(LABEL_PREFIXES.categorise.length)),
        ...saidOf(one),
      }),
    ),
    ...(owner === null ? [] : [owner]),
    ...(speaksForSettling(judged.settle) ? [{ ...SETTLE, ...saidOf(judged.settle) }] : []),
  ];
}

const SETTLE = { kind: "settle" } as const;
const saidOf = (likely: Likely<string>) => ({ confidence: likely.likelihood, likely });

// That most letters need no answer is no reason to leave this one without: it has to say so itself, in log odds.
const SAYS_SO = 0.5;
const speaksForSettling = ({ likelihood, says }: Judged["settle"]) => logOdds(likelihood) - says.usual > SAYS_SO;

function speaksForItself({ likely }: Saying, judged: Judged, evidence: Evidence): boolean {
  return ["code", "belongs"].includes(becauseOf("file", likely, judged, evidence).kind);
}

function recordOf(judged: Judged): Saying | null {
  const best = likeliestOf(judged.records);
  if (best === null || best.label === UNFILED) return null;
  return {
    kind: "file",
    recordId: trustedId<RecordId>(best.label.slice(LABEL_PREFIXES.file.length)),
    ...saidOf(best),
  };
}

function ownerOf(judged: Judged): Saying | null {
  const best = likeliestOf(judged.owners);
  if (best === null || best.label === UNOWNED) return null;
  const [ownerId, meantId] = [memberOf(best.label), memberOf(best.meant)];
  return {
    kind: "assign",
    ownerId,
    ...(meantId === ownerId ? {} : { coversFor: meantId }),
    confidence: best.likelihood,
    likely: { ...best, label: best.meant },
  };
}

const memberOf = (label: Label) => trustedId<MemberId>(label.slice(LABEL_PREFIXES.assign.length));
