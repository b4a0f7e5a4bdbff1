import { type RecordId, trustedId } from "../kernel/ids";
import { type Asked, ONE_OF, TELLING } from "./evidence";
import { EVERYTHING, wordFeatures } from "./features";
import { LABEL_PREFIXES, type Label, UNFILED } from "./lesson";
import { type Counts, type Told, told } from "./shares";

/**
 * The records for which something speaks, open or not: those that a letter's sender, their domain or its list had, and those
 * that its rarest words name.
 */
export function candidateRecords({ person, domain, list, rarest }: Asked, counts: Counts): RecordId[] {
  const near = [person, domain, list].flatMap((feature) =>
    recordsWith(counts, feature).filter((label) => isSeen(told(counts, feature, label))),
  );
  const telling = rarest.flatMap((word) => recordsWith(counts, word).filter((label) => tells(counts, word, label)));
  const labels = new Set([...near, ...telling]);
  return [...labels].map((label) => trustedId<RecordId>(label.slice(LABEL_PREFIXES.file.length)));
}

/** So many records are candidates for the words of their titles. */
export const MOST_TITLED = 20;

/**
 * Of some records those whose titles have unusual words of a letter, those with most of them first: nothing was filed yet to
 * one that was opened just now.
 */
export function titledRecords(
  titles: Iterable<readonly [id: string, title: string]>,
  { unusual }: Pick<Asked, "unusual">,
): RecordId[] {
  return [...titles]
    .map(([id, title]) => ({ id, shared: wordFeatures(title).filter((word) => unusual.has(word)).length }))
    .filter(({ shared }) => shared > 0)
    .toSorted((a, b) => b.shared - a.shared || (a.id < b.id ? -1 : 1))
    .slice(0, MOST_TITLED)
    .map(({ id }) => trustedId<RecordId>(id));
}

const recordsWith = (counts: Counts, feature: string): Label[] =>
  [...(counts.get(feature)?.keys() ?? [])].filter(
    (label) => label.startsWith(LABEL_PREFIXES.file) && label !== UNFILED,
  );

const isSeen = ({ was, of }: Told) => was > 0 && was * ONE_OF >= of;

function tells(counts: Counts, word: string, label: Label): boolean {
  const [beside, usual] = [told(counts, word, label), told(counts, EVERYTHING, label)];
  return beside.was > 0 && beside.was * usual.of >= TELLING * beside.of * usual.was;
}
