import type { Evidence, Likely, ProposalKind } from "./evidence";
import { BEGINNING, type Judged, weightsOf } from "./judge";
import { isOfOwner, LABEL_PREFIXES, type Label, SETTLED_UNANSWERED, UNFILED, UNOWNED } from "./lesson";
import { stepped } from "./weights";

/** What came of what was judged: how much each piece of evidence counts from now on, and how sure it was and whether rightly. */
export type Outcome = {
  readonly weights: Readonly<Record<string, number>>;
  readonly said: readonly { readonly confidence: number; readonly right: boolean }[];
};

/** What is learned from a kind of decision that has been made, or not, about what was judged; null where it says nothing. */
export function outcomeOf(
  kind: ProposalKind,
  judged: Judged,
  labels: readonly Label[],
  evidence: Pick<Evidence, "weights">,
): Outcome | null {
  const weights = weightsOf(evidence);
  switch (kind) {
    case "categorise":
      return ofEach(judged.categories, labels, weights.categorise, BEGINNING.categorise);
    case "settle":
      return ofEach([judged.settle], labels, weights.settle, BEGINNING.settle);
    case "file":
      return ofOne(judged.records, labels, weights.file, BEGINNING.file);
    case "assign":
      // What nobody had to do anything about says nothing of who would have.
      return labels.includes(SETTLED_UNANSWERED) && !labels.some((label) => isOfOwner(label) && label !== UNOWNED)
        ? null
        : ofOne(judged.owners, labels, weights.assign, BEGINNING.assign);
  }
}

// Less likely than this, a label is no candidate of which one would say how sure one was.
const CANDIDATE = 0.1;

function ofEach(
  all: readonly Likely<string>[],
  labels: readonly Label[],
  weights: Readonly<Record<string, number>>,
  beginning: Readonly<Record<string, number>>,
): Outcome {
  const off = all.map(({ label, likelihood, says }) => ({ says, by: (labels.includes(label) ? 1 : 0) - likelihood }));
  const said = all
    .filter(({ likelihood }) => likelihood >= CANDIDATE)
    .map(({ label, likelihood }) => ({ confidence: likelihood, right: labels.includes(label) }));
  return { weights: stepped(weights, beginning, off), said };
}

function ofOne(
  all: readonly Likely<string>[],
  labels: readonly Label[],
  weights: Readonly<Record<string, number>>,
  beginning: Readonly<Record<string, number>>,
): Outcome | null {
  const right = all.filter(({ label }) => labels.includes(label));
  const best = all.toSorted((a, b) => b.likelihood - a.likelihood)[0];
  if (best === undefined) return null;
  // That there is none is never said, so that it says nothing of how sure one is.
  const said = isNone(best.label) ? [] : [{ confidence: best.likelihood, right: right.includes(best) }];
  // It was none of those that anything spoke for: there is nothing to weigh.
  if (right.length === 0) return { weights, said };
  const off = all.map(({ label, likelihood, says }) => ({
    says,
    by: (labels.includes(label) ? 1 / right.length : 0) - likelihood,
  }));
  return { weights: stepped(weights, beginning, off), said };
}

const isNone = (label: Label) => label === UNFILED || label === UNOWNED;

/** The kinds of decision that labels show to have been made. */
export function kindsMade(labels: readonly Label[]): ProposalKind[] {
  const made = (prefix: string) => labels.some((label) => label.startsWith(prefix) && !label.endsWith(":-"));
  return [
    ...(made(LABEL_PREFIXES.file) ? (["file"] as const) : []),
    ...(made(LABEL_PREFIXES.categorise) ? (["categorise"] as const) : []),
    ...(made(LABEL_PREFIXES.assign) ? (["assign"] as const) : []),
    ...(labels.includes(SETTLED_UNANSWERED) ? (["settle"] as const) : []),
  ];
}
