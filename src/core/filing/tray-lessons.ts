import type { Instant } from "../kernel/instant";
import { periodOf } from "./fading";
import { type CountChange, countChanges, type Label } from "./lesson";
import { type Owned, ownedAt } from "./owned";
import type { Counts } from "./shares";

const LAST = 2;

/** What a tray has learned, kept in memory: the same counts as its tables have. */
export class TrayLessons {
  readonly #counts = new Map<string, Map<Label, number>>();
  readonly #owners = new Map<string, Map<Label, Map<number, number>>>();
  readonly #last = new Map<string, (readonly Label[])[]>();

  /** Counts a conversation with its labels, at the time when it was first decided about, in the place of what it was counted as. */
  learn(features: readonly string[], before: readonly Label[], labels: readonly Label[], at: Instant): void {
    const { counts, owners } = countChanges(features, before, labels);
    for (const { feature, label, by } of counts) add(inside(this.#counts, feature), label, by);
    for (const { feature, label, by } of owners) add(inside(inside(this.#owners, feature), label), periodOf(at), by);
  }

  /** Remembers what was decided last about what a person wrote. */
  remember(person: string, labels: readonly Label[]): void {
    this.#last.set(person, [labels, ...(this.#last.get(person) ?? [])].slice(0, LAST));
  }

  /** What was decided last about what a person wrote, the newest first. */
  lastWith(person: string): readonly (readonly Label[])[] {
    return this.#last.get(person) ?? [];
  }

  counts(): Counts {
    return this.#counts;
  }

  /** Who owned what has some features, as it is known at a moment. */
  ownersOf(features: readonly string[], now: Instant): Owned {
    const counted = features.map((feature) => {
      const labels = [...(this.#owners.get(feature) ?? [])];
      return [feature, new Map(labels.map(([label, periods]) => [label, [...periods]] as const))] as const;
    });
    return ownedAt(new Map(counted), now);
  }

  /** Everything that is counted, by feature and label (and period), without what came to nothing. */
  everything(): Readonly<Record<string, number>> {
    const all = [...this.#counts].flatMap(([feature, labels]) =>
      [...labels].map(([label, given]) => [`${feature} ${label}`, given] as const),
    );
    const owned = [...this.#owners].flatMap(([feature, labels]) =>
      [...labels].flatMap(([label, periods]) =>
        [...periods].map(([period, given]) => [`${feature} ${label} ${period}`, given] as const),
      ),
    );
    return Object.fromEntries([...all, ...owned].filter(([, given]) => given !== 0));
  }
}

function inside<K, L, V>(all: Map<K, Map<L, V>>, key: K): Map<L, V> {
  const found = all.get(key) ?? new Map<L, V>();
  all.set(key, found);
  return found;
}

function add<K>(counts: Map<K, number>, key: K, by: CountChange["by"]): void {
  counts.set(key, (counts.get(key) ?? 0) + by);
}
