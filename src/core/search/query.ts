/** One thing that a found message must have: a word, a word's beginning, or words next to each other. */
export type Term =
  | { readonly kind: "word"; readonly text: string }
  | { readonly kind: "beginning"; readonly text: string }
  | { readonly kind: "phrase"; readonly words: readonly string[] };

/** A query read: all terms must be found. */
export type Query = { readonly terms: readonly Term[] };

// A query is typed by a person; more is a pasted letter, and each term costs an index scan.
const MAX_TERMS = 12;
const MAX_WORD_CHARACTERS = 100;

/**
 * Reads what somebody typed into the search field: words, and phrases in quotes. The last word counts as a beginning
 * while no space or quote closes it, so that results come as one types. Punctuation inside a word divides it.
 */
export function readQuery(text: string): Query {
  const terms: Term[] = [];
  for (const match of text.matchAll(/"([^"]*)"?|[^\s"]+/g)) {
    const words = searchWords(match[1] ?? match[0]);
    const open = match[1] === undefined && match.index + match[0].length === text.length;
    if (match[1] !== undefined && words.length > 1) terms.push({ kind: "phrase", words });
    else {
      words.forEach((word, at) => {
        terms.push({ kind: open && at === words.length - 1 ? "beginning" : "word", text: word });
      });
    }
  }
  return { terms: terms.slice(0, MAX_TERMS) };
}

/** The words of a text as the index keeps them: lower case, without accents, letters and digits only. */
export function searchWords(text: string): string[] {
  return (foldText(text).match(/[\p{L}\p{N}]+/gu) ?? []).map((word) => word.slice(0, MAX_WORD_CHARACTERS));
}

/** Lower case without accents (Unicode NFKD, marks dropped), so that "Orgel" and "örgel" find each other. */
function foldText(text: string): string {
  return text
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase();
}

/** Whether a text has every term of a query, as a message that is found has; everything has those of an empty query. */
export function hasEvery(text: string, query: Query): boolean {
  const words = searchWords(text);
  return query.terms.every((term) => {
    if (term.kind === "word") return words.includes(term.text);
    if (term.kind === "beginning") return words.some((word) => word.startsWith(term.text));
    return words.some((_, at) => term.words.every((word, after) => words[at + after] === word));
  });
}

/** Where a text has one of the terms, as [start, end) pairs in order, for marking hits. Texts that folding lengthens are compared by character. */
export function hitsIn(text: string, query: Query): [number, number][] {
  const wanted = query.terms.flatMap((term) => (term.kind === "phrase" ? term.words : [term.text]));
  const beginnings = query.terms.filter((term) => term.kind === "beginning").map((term) => term.text);
  return [...text.matchAll(/[\p{L}\p{N}\p{M}]+/gu)]
    .filter((match) => {
      const word = foldText(match[0]);
      return wanted.includes(word) || beginnings.some((beginning) => word.startsWith(beginning));
    })
    .map((match) => [match.index, match.index + match[0].length]);
}
