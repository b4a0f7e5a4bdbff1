import type { MemberId } from "../kernel/ids";
import { aspectOf } from "./aspect";
import type { JournalEntry } from "./entry";

/** What undoing one entry would do. */
export type UndoPlan =
  | { readonly kind: "undo"; readonly entry: JournalEntry }
  /** Somebody decided the same thing anew since; taking the old decision out would change nothing, or theirs. */
  | { readonly kind: "overtaken"; readonly entry: JournalEntry; readonly by: JournalEntry }
  /** It is a fact that the system found out, not a decision. */
  | { readonly kind: "not-a-decision"; readonly entry: JournalEntry };

/**
 * What undoing some entries of one conversation would do: newest first, each by itself. `standing` are all its entries
 * that have not been undone. An entry is overtaken when a newer one of the same aspect, not undone with it, stands.
 */
export function planUndo(undone: readonly JournalEntry[], standing: readonly JournalEntry[]): UndoPlan[] {
  const together = new Set(undone.map((entry) => entry.id));
  return undone
    .toSorted((a, b) => b.version - a.version)
    .map((entry): UndoPlan => {
      const aspect = aspectOf(entry.effect);
      if (aspect === "fact") return { kind: "not-a-decision", entry };
      const by = standing.find(
        (other) =>
          other.version > entry.version &&
          !together.has(other.id) &&
          aspectOf(other.effect) === aspect &&
          aspect !== "note",
      );
      return by === undefined ? { kind: "undo", entry } : { kind: "overtaken", entry, by };
    });
}

/**
 * The newest entry by somebody else that a decision about the same aspect would overwrite unseen: newer than the version
 * that the decider saw. Null when there is none.
 */
export function overwrittenUnseen(
  decision: Pick<JournalEntry, "effect">,
  seenVersion: number,
  decider: MemberId,
  standing: readonly JournalEntry[],
): JournalEntry | null {
  const aspect = aspectOf(decision.effect);
  if (aspect !== "owner" && aspect !== "standing") return null;
  const unseen = standing.filter(
    (entry) => entry.version > seenVersion && entry.by !== decider && aspectOf(entry.effect) === aspect,
  );
  return unseen.toSorted((a, b) => b.version - a.version)[0] ?? null;
}
