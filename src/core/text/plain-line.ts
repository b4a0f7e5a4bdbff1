// Controls, and the marks that turn the direction of writing or show nothing (Unicode TR 36, 3.1 and 2.10): they disguise
// an extension, a sender's name or an address as another.
const UNSEEN = /[\p{Cc}\u200b-\u200f\u202a-\u202e\u2060-\u2069\ufeff]/gu;

/** Text on one line as a list may show it: without controls and marks of direction, white space folded. */
export function plainLine(text: string): string {
  return text.replace(/\s+/g, " ").replace(UNSEEN, "").trim();
}

/** Whether a text has marks in it that turn the direction of writing. */
export function turnsDirection(text: string): boolean {
  return /[\u202a-\u202e\u2066-\u2069]/.test(text);
}
