import type { TrayId } from "../../core/kernel/ids";
import { type Instant, MINUTE, SECOND } from "../../core/kernel/instant";
import type { Change } from "../../core/ports";

/** What of a tray is remembered: who and what there is in it, or what is counted in it. */
type Remembered = "people" | "counts";

/** What is the same for everybody who looks at a tray: worked out once, until something happens that may make it another. */
export type TrayMemory = {
  /** What is known of a tray, or of all (null), under a name; else what `workOut` gives, once for all who ask meanwhile. */
  readonly recall: <T>(trayId: TrayId | null, what: Remembered, name: string, workOut: () => Promise<T>) => Promise<T>;
  /** Forgets what a change may have made another: counts of its tray, and where it may be about anything, people everywhere. */
  readonly hear: (change: Pick<Change, "trayId" | "only"> & { readonly isAnything: boolean }) => void;
  /** Forgets who there is, as somebody's rights are others. */
  readonly hearOfAccess: () => void;
  readonly forgetAll: () => void;
};

// Ages and days go on without anything happening, and the operator's tool may change what nobody tells of.
const LONGEST = 10 * SECOND;
// What takes long is counted for at most a twentieth of the time, however many decide at once...
const SHARE = 20;
const LONG = 60;
// ...and nobody waits for longer than this where there is a count of a moment ago.
const TOO_LONG = 120;
const OLDEST = MINUTE;
// Lists can be filtered by whatever somebody writes into an address.
const MOST_NAMES = 500;

type Kept = {
  readonly at: Instant;
  readonly value: Promise<unknown>;
  /** How long it took, in milliseconds; null while it is being worked out. */
  took: number | null;
  /** Something has happened since. */
  isBehind: boolean;
  /** It is being worked out again. */
  isRenewed: boolean;
};

/**
 * An empty memory; `now` is the clock by which what it knows grows old. `onBehind` is called when somebody was given a
 * count from before the last change, as it takes long to count: after so many milliseconds it can be had as it is. With
 * nobody to hear that (null) everything is counted again after every change.
 */
export function trayMemory(now: () => Instant, onBehind: ((trayId: TrayId, ms: number) => void) | null): TrayMemory {
  type OfTray = Map<string, Kept>;
  const kept = { people: new Map<TrayId | null, OfTray>(), counts: new Map<TrayId | null, OfTray>() };
  const ageOf = ({ at }: Kept) => now() - at;
  const isExact = (known: Kept) => !known.isBehind && ageOf(known) >= 0 && ageOf(known) < LONGEST;
  const isSpared = ({ took }: Kept) => onBehind !== null && took !== null && took >= LONG;
  // Until when it may be given although it is behind.
  const restOf = (known: Kept) => (known.took ?? 0) * SHARE - ageOf(known);
  const maySuffice = (known: Kept) =>
    isSpared(known) &&
    ageOf(known) >= 0 &&
    ageOf(known) < OLDEST &&
    (restOf(known) > 0 || (known.took ?? 0) >= TOO_LONG);

  function renew(ofTray: OfTray, name: string, workOut: () => Promise<unknown>): Kept {
    const at = now();
    const fresh: Kept = { at, value: workOut(), took: null, isBehind: false, isRenewed: false };
    fresh.value.then(
      () => {
        fresh.took = now() - at;
      },
      // What went wrong is not remembered.
      () => {
        if (ofTray.get(name) === fresh) ofTray.delete(name);
      },
    );
    return fresh;
  }

  function namesOf(what: Remembered, trayId: TrayId | null): OfTray {
    const ofTray: OfTray = kept[what].get(trayId) ?? new Map();
    kept[what].set(trayId, ofTray);
    return ofTray;
  }

  function anew(ofTray: OfTray, name: string, workOut: () => Promise<unknown>): Kept {
    if (ofTray.size >= MOST_NAMES) ofTray.clear();
    const fresh = renew(ofTray, name, workOut);
    ofTray.set(name, fresh);
    return fresh;
  }

  // Meanwhile what is known is given.
  function renewBehind(ofTray: OfTray, name: string, known: Kept, workOut: () => Promise<unknown>): void {
    known.isRenewed = true;
    const fresh = renew(ofTray, name, workOut);
    const keep = () => {
      known.isRenewed = false;
      if (ofTray.get(name) === known && fresh.took !== null) ofTray.set(name, fresh);
    };
    fresh.value.then(keep, keep);
  }

  return {
    recall<T>(trayId: TrayId | null, what: Remembered, name: string, workOut: () => Promise<T>): Promise<T> {
      const ofTray = namesOf(what, trayId);
      const known = ofTray.get(name);
      if (known !== undefined && isExact(known)) return known.value as Promise<T>;
      if (known === undefined || !maySuffice(known)) return anew(ofTray, name, workOut).value as Promise<T>;
      if (restOf(known) <= 0 && !known.isRenewed) renewBehind(ofTray, name, known, workOut);
      if (trayId !== null) onBehind?.(trayId, Math.max(restOf(known), known.took ?? 0));
      return known.value as Promise<T>;
    },
    hear({ trayId, only, isAnything }) {
      if (only !== undefined) return;
      const ofTray = kept.counts.get(trayId);
      for (const [name, known] of ofTray ?? []) {
        known.isBehind = true;
        // What is still being worked out may be from before the change.
        if (!isSpared(known)) ofTray?.delete(name);
      }
      if (isAnything) kept.people.clear();
    },
    hearOfAccess: () => kept.people.clear(),
    forgetAll() {
      kept.people.clear();
      kept.counts.clear();
    },
  };
}
