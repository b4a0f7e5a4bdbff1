import type { Said } from "./said";

/** What is kept where only text is: what is to be said, or a text of somebody else. */
export type Kept = Said | string;

/** What is to be said as it is kept where only text is: it is said when somebody reads it, in their language. A text stays one. */
export const storedWording = (what: Kept): string => (typeof what === "string" ? what : JSON.stringify(what));

/** What is to be said of what was kept; what was kept as a text, whoever wrote that, stays as it was written. */
export function readStoredWording(stored: string): Kept {
  if (!stored.startsWith("{")) return stored;
  try {
    const kept: unknown = JSON.parse(stored);
    return isSaid(kept) ? kept : stored;
  } catch {
    return stored;
  }
}

function isSaid(kept: unknown): kept is Said {
  if (typeof kept !== "object" || kept === null || !("key" in kept) || !("values" in kept)) return false;
  return typeof kept.key === "string" && typeof kept.values === "object" && kept.values !== null;
}
