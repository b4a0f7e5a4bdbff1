const BEFORE = "(^|[^[:alnum:]])";
const BETWEEN = "[^[:alnum:]]+";
const AFTER = "([^[:alnum:]]|$)";

const PLAIN = /^[a-z0-9]+$/i;

/** The words of a text as they are written, with one space between. */
export function spacedWords(text: string): string {
  return (text.match(/[\p{L}\p{N}\p{M}]+/gu) ?? []).join(" ");
}

/** Words after one another, as wholes, as a pattern (IEEE 1003.1, 9.4); null for letters whose variants it could not name. */
export function patternOfWords(phrase: string): string | null {
  const words = spacedWords(phrase).split(" ");
  return words.every((word) => PLAIN.test(word)) ? `${BEFORE}${words.join(BETWEEN)}${AFTER}` : null;
}

/** The words that a pattern looks for after one another; null for one that is no pattern of words. */
export function wordsOfPattern(pattern: string): string | null {
  if (!pattern.startsWith(BEFORE) || !pattern.endsWith(AFTER)) return null;
  const words = pattern.slice(BEFORE.length, -AFTER.length).split(BETWEEN);
  return words.every((word) => PLAIN.test(word)) ? words.join(" ") : null;
}
