import type { TrayId } from "../core/kernel/ids";
import { type Instant, SECOND } from "../core/kernel/instant";
import type { Change } from "../core/ports";

/** What of a tray is remembered: who and what there is in it, or what is counted in it. */
export type Remembered = "people" | "counts";

/** What is the same for everybody who looks at a tray: worked out once, until something happens that may make it another. */
export type TrayMemory = {
  /** What is known under a name, or else what `workOut` gives, once for all who ask meanwhile. */
  readonly recall: <T>(trayId: TrayId, what: Remembered, name: string, workOut: () => Promise<T>) => Promise<T>;
  /** Forgets what a change may have made another: counts of its tray, and where it may be about anything, people everywhere. */
  readonly hear: (change: Pick<Change, "trayId" | "only"> & { readonly isAnything: boolean }) => void;
  /** Forgets who there is, as somebody's rights are others. */
  readonly hearOfAccess: () => void;
  readonly forgetAll: () => void;
};

// Ages and days go on without anything happening, and the operator's tool may change what nobody tells of.
const LONGEST = 10 * SECOND;

type Kept = { readonly at: Instant; readonly value: Promise<unknown> };

/** An empty memory; `now` is the clock by which what it knows grows old. */
export function trayMemory(now: () => Instant): TrayMemory {
  const kept = { people: new Map<TrayId, Map<string, Kept>>(), counts: new Map<TrayId, Map<string, Kept>>() };
  return {
    recall<T>(trayId: TrayId, what: Remembered, name: string, workOut: () => Promise<T>): Promise<T> {
      const ofTray = kept[what].get(trayId) ?? new Map<string, Kept>();
      kept[what].set(trayId, ofTray);
      const known = ofTray.get(name);
      if (known !== undefined && now() < known.at + LONGEST && now() >= known.at) return known.value as Promise<T>;
      const value = workOut();
      ofTray.set(name, { at: now(), value });
      // What went wrong is not remembered.
      value.catch(() => {
        if (ofTray.get(name)?.value === value) ofTray.delete(name);
      });
      return value;
    },
    // A whole map is let go of, so that what is being worked out from before the change is kept for nobody.
    hear({ trayId, only, isAnything }) {
      if (only !== undefined) return;
      kept.counts.delete(trayId);
      if (isAnything) kept.people.clear();
    },
    hearOfAccess: () => kept.people.clear(),
    forgetAll() {
      kept.people.clear();
      kept.counts.clear();
    },
  };
}
