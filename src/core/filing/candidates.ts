import { type RecordId, trustedId } from "../kernel/ids";
import { type Asked, ONE_OF, TELLING } from "./evidence";
import { EVERYTHING } from "./features";
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

const recordsWith = (counts: Counts, feature: string): Label[] =>
  [...(counts.get(feature)?.keys() ?? [])].filter(
    (label) => label.startsWith(LABEL_PREFIXES.file) && label !== UNFILED,
  );

const isSeen = ({ was, of }: Told) => was > 0 && was * ONE_OF >= of;

function tells(counts: Counts, word: string, label: Label): boolean {
  const [beside, usual] = [told(counts, word, label), told(counts, EVERYTHING, label)];
  return beside.was > 0 && beside.was * usual.of >= TELLING * beside.of * usual.was;
}
