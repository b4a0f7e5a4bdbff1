import { type RecordId, trustedId } from "../kernel/ids";
import type { Evidence, Likely, ProposalKind } from "./evidence";
import { EVERYTHING, readFeature } from "./features";
import { type Judged, weightsOf } from "./judge";
import { isOfOwner, LABEL_PREFIXES, type Label, UNFILED } from "./lesson";
import { drawn, type Told, told, usualShare } from "./shares";

/** Why something is proposed: in how many of how many it was so, and of which it is told. */
export type Because = Told &
  (
    | { readonly kind: "person" | "usual" }
    | { readonly kind: "domain" | "list"; readonly text: string }
    | { readonly kind: "words"; readonly words: readonly string[] }
    /** Its reference code stands in the letter. */
    | { readonly kind: "code" }
    /** Words of its title stand in the letter. */
    | { readonly kind: "title" }
    /** The register says that the writer belongs to it. */
    | { readonly kind: "belongs" }
    /** What is likely filed to a record, or given a category, was decided so. */
    | { readonly kind: "record"; readonly recordId: RecordId }
    | { readonly kind: "category"; readonly category: string }
  );

/** What weighed most for a label, in terms of what was counted. */
export function becauseOf(
  kind: ProposalKind,
  { label, says }: Likely<string>,
  judged: Judged,
  evidence: Evidence,
): Because {
  const weights: Readonly<Record<string, number>> = weightsOf(evidence)[kind];
  const speaking = Object.keys(weights)
    .map((piece) => ({
      piece,
      weight: (weights[piece] ?? 0) * (toldAgainst(kind, piece, label, says, judged, evidence) ?? 0),
    }))
    .filter(({ weight }) => weight > 0)
    .toSorted((a, b) => b.weight - a.weight);
  for (const { piece } of speaking) {
    const because = pieceInTerms(piece, label, judged, evidence);
    if (because !== null) return because;
  }
  return { kind: "usual", ...counted(evidence, EVERYTHING, label) };
}

// The shares of one choice speak by themselves; what they say more than for everything is the reason.
function toldAgainst(
  kind: ProposalKind,
  piece: string,
  label: Label,
  says: Readonly<Record<string, number>>,
  { asked }: Judged,
  { counts }: Evidence,
): number | undefined {
  if (kind !== "file" || (piece !== "person" && piece !== "domain")) return says[piece];
  const usual = usualShare(counts, label);
  return Math.log(drawn(told(counts, piece === "person" ? asked.person : asked.domain, label), usual, 1) / usual);
}

const counted = ({ counts, owners }: Evidence, feature: string, label: Label): Told =>
  isOfOwner(label) ? rounded(told(owners.faded, feature, label)) : told(counts, feature, label);

const rounded = ({ was, of }: Told): Told => ({ was: Math.round(was), of: Math.round(of) });

const MOST_WORDS = 2;

function pieceInTerms(piece: string, label: Label, judged: Judged, evidence: Evidence): Because | null {
  const { asked } = judged;
  const at = (feature: string) => counted(evidence, feature, label);
  switch (piece) {
    case "code":
    case "title":
    case "belongs":
      return { kind: piece, was: 1, of: 1 };
    case "person":
    case "last":
    case "lastButOne":
      return someOf({ kind: "person", ...at(asked.person) });
    case "domain":
    case "list":
      return someOf({ kind: piece, text: readFeature(asked[piece]).text, ...at(asked[piece]) });
    case "words":
    case "ownWords":
      return matchWords(label, judged, evidence);
    case "record":
      return byGiven(judged.records, (found) => ({
        kind: "record",
        recordId: trustedId<RecordId>(found.slice(LABEL_PREFIXES.file.length)),
        ...at(found),
      }));
    case "category":
      return byGiven(judged.categories, (found) => ({
        kind: "category",
        category: found.slice(LABEL_PREFIXES.categorise.length),
        ...at(found),
      }));
    case "either":
    case "tenure":
      return pieceInTerms("record", label, judged, evidence) ?? pieceInTerms("category", label, judged, evidence);
    default:
      return null;
  }
}

const someOf = (because: Because): Because | null => (because.was > 0 ? because : null);

// Of what it is likely given, that of which it was decided most often so.
function byGiven(all: readonly Likely<string>[], tell: (label: Label) => Because): Because | null {
  const speaking = all
    .filter(({ label, likelihood }) => label !== UNFILED && likelihood >= LIKELY)
    .map(({ label, likelihood }) => ({ likelihood, because: tell(label) }))
    .filter(({ because }) => because.was > 0)
    .toSorted((a, b) => shareOf(b) - shareOf(a));
  return speaking[0]?.because ?? null;
}

const LIKELY = 0.1;
const shareOf = ({ likelihood, because: { was, of } }: { likelihood: number; because: Told }) =>
  likelihood * drawn({ was, of }, 0, 1);

const SHORT = 4;
const isShort = (word: string) => readFeature(word).text.length < SHORT;

function matchWords(label: Label, { asked }: Judged, { counts }: Evidence): Because | null {
  const usual = usualShare(counts, label);
  const speaking = asked.words
    .map((word) => ({ word, ...told(counts, word, label) }))
    .filter(({ was }) => was > 0)
    // Of two that say as much, a short one hardly means anything; else the one that comes first does.
    .toSorted((a, b) => drawn(b, usual, 2) - drawn(a, usual, 2) || Number(isShort(a.word)) - Number(isShort(b.word)));
  const [first] = speaking;
  if (first === undefined) return null;
  const words = speaking.slice(0, MOST_WORDS).map(({ word }) => readFeature(word).text);
  return { kind: "words", words, was: first.was, of: first.of };
}
