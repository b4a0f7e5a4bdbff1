/** What the HTML of a message has, as far as it matters for choosing between it and the text beside it. */
export type HtmlContents = {
  readonly words: number;
  /** Where its links lead. */
  readonly links: readonly string[];
  /** Pictures that are to be seen; one by which reading is counted is none. */
  readonly pictures: number;
  /** Tables with more than one row and more than one column. */
  readonly tables: number;
};

/** Which part of a message says more, and whether the text lacks most of the words, so that it is no account of it. */
export type BetterPart = { readonly part: "text" | "html"; readonly lacksWords: boolean };

// A text part that a program made of the HTML loses some words at the edges (preheaders, footers), not a third.
const MOST_OF_THE_WORDS = 0.66;

/**
 * Chooses between a message's text and its HTML: the HTML where it has what the text lacks (tables, links, pictures, most of
 * the words), otherwise the text.
 */
export function betterPart(text: string, html: HtmlContents): BetterPart {
  const lacksWords = wordsIn(text) < html.words * MOST_OF_THE_WORDS;
  const lacksLinks = html.links.some((link) => !text.includes(withoutEnd(link)));
  const part = lacksWords || lacksLinks || html.pictures > 0 || html.tables > 0 ? "html" : "text";
  return { part, lacksWords };
}

/** How many words a text has. */
export function wordsIn(text: string): number {
  return text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0;
}

// Texts write "www.example" where a link says "http://www.example/".
function withoutEnd(link: string): string {
  return link.replace(/^(?:mailto:|tel:|https?:\/\/)/i, "").replace(/[/?#].{0,1}$/, "");
}
