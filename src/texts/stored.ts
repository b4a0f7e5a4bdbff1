import type { Sayable, Wording } from "./said";

/** What is to be said as it is kept where only text is: it is said when somebody reads it, in their language. */
export const storedWording = (wording: Wording): string => JSON.stringify(wording);

/** What is to be said of what was kept; what was kept as a text before stays as it was written. */
export function readStoredWording(stored: string): Sayable {
  if (!stored.startsWith("{")) return stored;
  try {
    return JSON.parse(stored) as Wording;
  } catch {
    return stored;
  }
}
