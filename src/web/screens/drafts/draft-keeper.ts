import { type Draft, type DraftOnDevice, isSameDraft, type KeptDraft } from "../../../core/writing/draft";

/** What the server said to a draft: kept as a version, or what stands there instead, null where it was sent or thrown away. */
export type Saved =
  | { readonly kind: "kept"; readonly version: number }
  | { readonly kind: "differs"; readonly there: KeptDraft | null }
  /** It keeps no such thing, and says why. */
  | { readonly kind: "refused"; readonly problem: string };

/** How it stands with what was typed. */
export type KeepingState =
  | { readonly kind: "untouched" | "saving" | "saved" | "unreachable" | "ended" }
  | { readonly kind: "differs"; readonly there: KeptDraft }
  | { readonly kind: "refused"; readonly problem: string };

type Keeper = {
  /** Something was typed. */
  readonly typed: (draft: Draft) => void;
  /** Saves at once what is not saved yet. */
  readonly saveNow: () => void;
  /** Writing goes on with this: what stands there is written over with the next words, or with these at once. */
  readonly goOnWith: (kept: DraftOnDevice) => void;
  /** Nothing is saved any more: it was sent. */
  readonly stop: () => void;
  readonly now: () => DraftOnDevice;
};

type KeeperOptions = {
  readonly first: DraftOnDevice;
  /** Saves it on the server, and rejects where nobody knows whether it did; null where only this device keeps it. */
  readonly save: ((kept: KeptDraft) => Promise<Saved>) | null;
  /** Whether it is to be said first with which of two it goes on. */
  readonly isHeld?: boolean;
  /** Keeps it on this device. */
  readonly keepHere: (kept: DraftOnDevice) => void;
  readonly onState: (state: KeepingState) => void;
};

const PAUSE_MS = 1_000;
const AGAIN_MS = 5_000;

/**
 * Keeps a draft while it is written: on this device with each letter, on the server after a pause and again until it is
 * there. What somebody wrote on it elsewhere is never written over without being asked.
 */
export function draftKeeper({ first, save, keepHere, onState, isHeld: waits = false }: KeeperOptions): Keeper {
  let kept = first;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let isSaving = false;
  let isHeld = waits;
  const set = (next: DraftOnDevice) => {
    kept = next;
    keepHere(next);
  };
  const later = (ms: number) => {
    clearTimeout(timer);
    timer = setTimeout(saveNow, ms);
  };
  const hear = (saved: Saved, asked: DraftOnDevice) => {
    // Tried again with what is typed next.
    if (saved.kind === "refused") return onState(saved);
    // An answer that was lost on the way comes to this.
    const isThere = saved.kind === "differs" && saved.there !== null && isSameDraft(saved.there.draft, asked.draft);
    if (saved.kind === "kept" || isThere) {
      const { version } = saved.kind === "kept" ? saved : (saved.there ?? asked);
      set({ ...kept, version, isSaved: kept.draft === asked.draft });
      if (kept.isSaved) onState({ kind: "saved" });
      else later(PAUSE_MS);
      return;
    }
    isHeld = true;
    onState(saved.there === null ? { kind: "ended" } : { kind: "differs", there: saved.there });
  };
  function saveNow(): void {
    clearTimeout(timer);
    if (save === null || isSaving || isHeld || kept.isSaved) return;
    const asked = kept;
    isSaving = true;
    save(asked)
      .then(
        (saved) => isHeld || hear(saved, asked),
        () => {
          if (isHeld) return;
          onState({ kind: "unreachable" });
          later(AGAIN_MS);
        },
      )
      .finally(() => {
        isSaving = false;
      });
  }
  return {
    typed: (draft) => {
      set({ ...kept, draft, isSaved: false });
      if (save === null || isHeld) return;
      onState({ kind: "saving" });
      later(PAUSE_MS);
    },
    saveNow,
    now: () => kept,
    goOnWith: (next) => {
      set(next);
      isHeld = false;
      if (next.isSaved) onState({ kind: "saved" });
      else {
        onState({ kind: "saving" });
        saveNow();
      }
    },
    stop: () => {
      isHeld = true;
      clearTimeout(timer);
    },
  };
}
