import { aspectOf } from "./aspect";
import type { JournalEntry } from "./entry";

/** What doing an undone entry again would do. */
export type RedoPlan =
  | { readonly kind: "redo"; readonly entry: JournalEntry }
  /** Somebody decided the same thing since it was undone. */
  | { readonly kind: "overtaken"; readonly entry: JournalEntry; readonly by: JournalEntry }
  /** It moved messages between conversations, which may not be as they were any more. */
  | { readonly kind: "not-again"; readonly entry: JournalEntry };

/**
 * What taking back some undoings of one conversation would do, oldest first. `undoings` carry the effects that they undid
 * and their own versions; `standing` are all entries of the conversation that have not been undone.
 */
export function planRedo(undoings: readonly JournalEntry[], standing: readonly JournalEntry[]): RedoPlan[] {
  // Undoings go from the newest effect to the oldest, so the last of them was the first to be done.
  return undoings
    .toSorted((a, b) => b.version - a.version)
    .map((entry): RedoPlan => {
      const { kind } = entry.effect;
      if (kind === "joined" || kind === "split-off") return { kind: "not-again", entry };
      const aspect = aspectOf(entry.effect);
      const by = standing.find(
        (other) => other.version > entry.version && aspectOf(other.effect) === aspect && aspect !== "note",
      );
      return by === undefined ? { kind: "redo", entry } : { kind: "overtaken", entry, by };
    });
}
