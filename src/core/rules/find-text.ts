import { RE2JS, RE2JSSyntaxException } from "re2js";
import { foldedWords } from "../kernel/folded-words";
import type { Relation, TextMatch } from "./condition";

/** A text that is compared in several ways, each made once and only when it is asked for. */
export type SearchedText = { readonly text: string; readonly lower: string; readonly folded: string };

/** How a text loses the case of its letters. */
type Lower = (text: string) => string;
const lowerAll: Lower = (text) => text.toLowerCase();

/** A text with its letters of ASCII in lower case, others as they are (RFC 4790 9.2, `i;ascii-casemap`). */
export const lowerAscii: Lower = (text) => text.replace(/[A-Z]+/g, lowerAll);

/** A text to be searched. */
export function searchedText(text: string, toLower = lowerAll): SearchedText {
  let lower: string | null = null;
  let folded: string | null = null;
  return {
    text,
    get lower() {
      lower ??= toLower(text);
      return lower;
    },
    get folded() {
      folded ??= foldedWords(text);
      return folded;
    },
  };
}

/** What of a text it was that matched; null where nothing did. */
export type Finder = (searched: SearchedText) => string | null;

/** A comparison made ready for many texts. One whose pattern is no pattern finds nothing: `patternProblem` says so before. */
export function finderOf({ how, values, isExact }: TextMatch, toLower = lowerAll): Finder {
  const each = values.map((value) => FINDERS[how](value, isExact === true, toLower));
  const [only] = each;
  if (only !== undefined && each.length === 1) return only;
  return (searched) => {
    for (const find of each) {
      const found = find(searched);
      if (found !== null) return found;
    }
    return null;
  };
}

const FINDERS: Readonly<Record<TextMatch["how"], (value: string, isExact: boolean, toLower: Lower) => Finder>> = {
  words: (value) => {
    const each = wordsOf(value).map((word) => ` ${word} `);
    return ({ folded }) => (each.length > 0 && each.every((word) => folded.includes(word)) ? value : null);
  },
  phrase: (value) => {
    const phrase = foldedWords(value);
    return ({ folded }) => (phrase.trim() !== "" && folded.includes(phrase) ? value : null);
  },
  is: (value, isExact, toLower) => {
    const wanted = isExact ? value : toLower(value);
    return (searched) => ((isExact ? searched.text : searched.lower) === wanted ? value : null);
  },
  contains: (value, isExact, toLower) => {
    const wanted = isExact ? value : toLower(value);
    return (searched) => ((isExact ? searched.text : searched.lower).includes(wanted) ? value : null);
  },
  like: (value, isExact) => {
    const pattern = RE2JS.compile(`\\A(?:${patternOfWildcards(value)})\\z`, isExact ? 0 : RE2JS.CASE_INSENSITIVE);
    return ({ text }) => (pattern.test(text) ? text : null);
  },
  pattern: (value, isExact) => {
    const pattern = patternProblem(value) === null ? RE2JS.compile(value, isExact ? 0 : RE2JS.CASE_INSENSITIVE) : null;
    const beginning = pattern === null || isExact ? "" : beginningOf(value);
    return ({ text, lower }) => {
      // Without that it is not there. Some letters beyond ASCII are one with others that are in it.
      if (!lower.includes(beginning) && IS_ASCII.test(lower)) return null;
      // Whether it is there is found in one pass; where it stands only then.
      if (pattern?.test(text) !== true) return null;
      const at = pattern.matcher(text);
      return at.find() ? (at.group() ?? "") : null;
    };
  },
};

const IS_ASCII = /^[\0-\x7f]*$/;

// What every text begins with in the place where the pattern is found, in lower case; empty where nothing is known of it.
function beginningOf(pattern: string): string {
  return RE2JS.compile(pattern).re2().prefix.toLowerCase();
}

/** The words that have to be in a text for `words` or `phrase` to find a value in it. */
export function wordsOf(value: string): string[] {
  return foldedWords(value).trim().split(" ").filter(Boolean);
}

// RFC 5228 2.7.1: a backslash makes the next letter a plain one.
function patternOfWildcards(value: string): string {
  return value.replace(/\\(.)|\*|\?|[^\\*?]+|\\$/gsu, (piece, plain?: string) => {
    if (plain !== undefined) return RE2JS.quote(plain);
    if (piece === "*") return "(?s:.*)";
    return piece === "?" ? "(?s:.)" : RE2JS.quote(piece);
  });
}

const MAX_PATTERN_CHARACTERS = 1_000;
// What takes more steps than this for each letter is no pattern that somebody wrote.
const MAX_PROGRAM = 5_000;

/** Why a text is no pattern of RE2, in the words of its engine or by its size; null when it is one. */
export function patternProblem(value: string): string | "too-large" | null {
  if (value.length > MAX_PATTERN_CHARACTERS) return "too-large";
  try {
    return RE2JS.compile(value).programSize() > MAX_PROGRAM ? "too-large" : null;
  } catch (problem) {
    if (problem instanceof RE2JSSyntaxException) return problem.error;
    throw problem;
  }
}

const HOLDS: Readonly<Record<Relation, (order: number) => boolean>> = {
  gt: (order) => order > 0,
  ge: (order) => order >= 0,
  lt: (order) => order < 0,
  le: (order) => order <= 0,
  eq: (order) => order === 0,
  ne: (order) => order !== 0,
};

/** Whether one value stands to another as it should (RFC 5231): as numbers, or letter by letter without case. */
export function relates(one: string, relation: Relation, other: string, isNumber: boolean): boolean {
  if (isNumber) return HOLDS[relation](numberOf(one) - numberOf(other) || 0);
  const [a, b] = [one.toLowerCase(), other.toLowerCase()];
  return HOLDS[relation](a < b ? -1 : a > b ? 1 : 0);
}

// RFC 4790 9.1: the digits it begins with; what begins with none is beyond all numbers, and equal to its like.
function numberOf(text: string): number {
  const digits = /^\d+/.exec(text)?.[0];
  return digits === undefined ? Number.MAX_VALUE : Number(digits);
}
