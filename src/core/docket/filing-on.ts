import type { JournalEntry } from "../journal/entry";
import type { RecordId } from "../kernel/ids";
import type { Filing } from "../records/filing-means";

/**
 * How a conversation is filed on a record by its standing entries in order: as it was filed there last, with the particulars
 * that it has been given since. Null where it was never filed there; whether it still is, its docket says.
 */
export function filingOn(entries: readonly JournalEntry[], recordId: RecordId): Filing | null {
  const filed = entries.findLast(({ effect }) => effect.kind === "filed" && effect.recordId === recordId);
  if (filed?.effect.kind !== "filed") return null;
  const { kind: _, ...filing } = filed.effect;
  const since = entries.findLast(
    ({ effect, version }) =>
      effect.kind === "particulars-set" && effect.recordId === recordId && version > filed.version,
  )?.effect;
  return since?.kind === "particulars-set" ? { ...filing, fields: since.fields } : filing;
}
