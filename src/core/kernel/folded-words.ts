const IS_ASCII = /^[\0-\x7f]*$/;

/** A text as words are looked for in it: letters of any writing, without case and accents, one space around each word. */
export function foldedWords(text: string): string {
  // Most texts are of such letters only, for which there is a shorter way to the same.
  if (IS_ASCII.test(text))
    return ` ${text
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, " ")
      .trim()} `;
  const bare = text.normalize("NFKD").replace(/\p{M}/gu, "").toLowerCase();
  return ` ${bare.replace(/[^\p{L}\p{N}]+/gu, " ").trim()} `;
}

/** Whether a plain text has each of these words as a whole, wherever they stand; false for none. */
export function hasWords(plain: string, words: string): boolean {
  const each = foldedWords(words).trim().split(" ");
  return each[0] !== "" && each.every((word) => plain.includes(` ${word} `));
}
