import { recordCodesIn } from "../threading/record-codes";

/** What a conversation shows before anybody decided about it: its first message from outside. */
export type Letter = {
  readonly from: string;
  /** The id of the mailing list it came through (RFC 2919); null when it came directly. */
  readonly listId: string | null;
  readonly subject: string;
  readonly ownText: string;
};

/**
 * What a feature is of: the sender, their domain, the list, or a word; everything is the base. What a conversation was
 * given is a feature for what else it was given: a category, a category of what is on no record, and a record.
 */
export type FeatureKind = keyof typeof PREFIXES;

const PREFIXES = {
  everything: "*",
  person: "p:",
  domain: "d:",
  list: "l:",
  word: "w:",
  category: "c:",
  unfiled: "u:",
  record: "r:",
} as const;

// Most features are words.
const READ = (Object.entries(PREFIXES) as [FeatureKind, string][]).toSorted(
  ([a], [b]) => Number(b === "word") - Number(a === "word"),
);

/** The one feature that every conversation has. */
export const EVERYTHING = PREFIXES.everything;

/** So many words of a letter are learned, those of its subject first. */
export const MAX_WORDS = 80;
/** How much of a letter's own text is read; further down letters are alike. */
export const READ_CHARACTERS = 4_000;
const MIN_WORD = 2;
const MAX_WORD = 24;

/**
 * The features of a letter, each once: its sender, their domain, its list, the first words of subject and text. Words are
 * letters, mixed with digits or not, folded by Unicode normalisation form KC and lower case; numbers alone are none.
 */
export function featuresOf({ from, listId, subject, ownText }: Letter): string[] {
  const address = from.toLowerCase();
  const domain = address.slice(address.lastIndexOf("@") + 1);
  return [
    EVERYTHING,
    ...(address === "" ? [] : [PREFIXES.person + address]),
    ...(domain === "" ? [] : [PREFIXES.domain + domain]),
    ...(listId === null || listId === "" ? [] : [PREFIXES.list + listId]),
    ...wordFeatures(`${subject}\n${ownText.slice(0, READ_CHARACTERS)}`),
  ];
}

/** A category as a feature of what has it and is on no record: who answers for a matter need not have the records in which it comes up. */
export function ofUnfiled(category: string): string {
  return PREFIXES.unfiled + category;
}

/** The features of the words of a text, each once. */
export function wordFeatures(text: string): string[] {
  return wordsOf(text).map((word) => PREFIXES.word + word);
}

function wordsOf(text: string): string[] {
  const words =
    text
      .normalize("NFKC")
      .toLowerCase()
      .match(/[\p{L}\p{M}\p{N}'’-]+/gu) ?? [];
  const telling = words.filter((word) => word.length >= MIN_WORD && word.length <= MAX_WORD && /\p{L}/u.test(word));
  return [...new Set(telling)].slice(0, MAX_WORDS);
}

/** What a feature is of, and its own text: "d:vane.example" is the domain vane.example. Throws for what is none. */
export function readFeature(feature: string): { readonly kind: FeatureKind; readonly text: string } {
  for (const [kind, prefix] of READ) {
    if (feature.startsWith(prefix)) return { kind, text: feature.slice(prefix.length) };
  }
  throw new Error(`${feature} is no feature`);
}

/** What may be reference codes of records in a letter. */
export function codesIn({ subject, ownText }: Letter): string[] {
  return recordCodesIn(`${subject} ${ownText.slice(0, READ_CHARACTERS)}`);
}
