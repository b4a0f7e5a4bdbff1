/** Words of many languages as the alternatives of a regular expression. */
export const alternatives = (words: readonly string[]) => words.join("|");
