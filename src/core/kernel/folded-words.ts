/** A text as words are looked for in it: letters of any writing, without case and accents, one space around each word. */
export function foldedWords(text: string): string {
  const bare = text.normalize("NFKD").replace(/\p{M}/gu, "").toLowerCase();
  return ` ${bare.replace(/[^\p{L}\p{N}]+/gu, " ").trim()} `;
}

/** Whether a plain text has each of these words as a whole, wherever they stand; false for none. */
export function hasWords(plain: string, words: string): boolean {
  const each = foldedWords(words).trim().split(" ");
  return each[0] !== "" && each.every((word) => plain.includes(` ${word} `));
}
