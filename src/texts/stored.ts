import type { Sayable, Wording } from "./said";

/** What is to be said as it is kept where only text is: it is said when somebody reads it, in their language. A text stays one. */
export const storedWording = (what: Sayable): string =>
  typeof what === "object" ? JSON.stringify(what) : String(what);

/** What is to be said of what was kept; what was kept as a text before stays as it was written. */
export function readStoredWording(stored: string): Sayable {
  if (!stored.startsWith("{")) return stored;
  try {
    return JSON.parse(stored) as Wording;
  } catch {
    return stored;
  }
}
