import type { DraftOnDevice } from "../../../core/writing/draft";

// `name` is the conversation's id, or that of a draft that belongs to none or is shared.
const keyOf = (name: string) => `common-tray-draft-${name}`;

/** Keeps a draft in this browser; one that keeps nothing loses with the page what the server has not got. */
export function saveLocalDraft(name: string, kept: DraftOnDevice): void {
  try {
    localStorage.setItem(keyOf(name), JSON.stringify(kept));
  } catch {
    // Storage is full or forbidden: writing goes on without it.
  }
}

/** The draft that this device has under a name; null when there is none. */
export function localDraft(name: string): DraftOnDevice | null {
  try {
    const kept: Partial<DraftOnDevice> | null = JSON.parse(localStorage.getItem(keyOf(name)) ?? "null");
    return typeof kept?.draft?.html === "string" && typeof kept.id === "string" ? (kept as DraftOnDevice) : null;
  } catch {
    return null;
  }
}

/** Forgets the draft once it is sent. */
export function forgetLocalDraft(name: string): void {
  try {
    localStorage.removeItem(keyOf(name));
  } catch {
    // Nothing was kept.
  }
}
