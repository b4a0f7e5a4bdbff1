import { recordCodesIn } from "../threading/record-codes";

/** What a conversation shows before anybody decided about it: its first message from outside. */
export type Letter = {
  readonly from: string;
  /** The id of the mailing list it came through (RFC 2919); null when it came directly. */
  readonly listId: string | null;
  readonly subject: string;
  readonly ownText: string;
};

/** What a feature is of: the sender's domain, the list, a word of the subject or of the text; everything is the base. */
export type FeatureKind = "everything" | "domain" | "list" | "subject" | "text";

const PREFIXES = { everything: "*", domain: "d:", list: "l:", subject: "s:", text: "t:" } as const;

/** What features begin with that are words of the text. */
export const TEXT_PREFIX = PREFIXES.text;

/** The one feature that every conversation has. */
export const EVERYTHING = PREFIXES.everything;

const MAX_SUBJECT_WORDS = 6;
const MAX_TEXT_WORDS = 10;
// What matters is said at the beginning; further down letters are alike.
const READ_CHARACTERS = 700;
const MIN_WORD = 4;
const MAX_WORD = 24;

// Words that letters have whatever they are about, so that they never stand for anything.
const EMPTY_WORDS = new Set(
  (
    "about after again also and any are attached been before best but can could dear does done each ever for from get " +
    "give good great has have hello hope into its just kind know last let like look made make many may meet might more " +
    "most much must need next not now off once only our out over please regards same see send sent shall should since " +
    "sincerely some soon still such sure take than thank thanks that the their them then there these they this those " +
    "though time today tomorrow until upon very want was week well were what when where which while will with within " +
    "would yes yesterday you your yours"
  ).split(" "),
);

/**
 * The features of a letter, each once: its sender's domain, its list, the first telling words of subject and text. Words
 * are letters only, folded by Unicode normalisation form KC and lower case; numbers of orders and invoices are none.
 */
export function featuresOf({ from, listId, subject, ownText }: Letter): string[] {
  const domain = from.slice(from.lastIndexOf("@") + 1).toLowerCase();
  return [
    EVERYTHING,
    ...(domain === "" ? [] : [PREFIXES.domain + domain]),
    ...(listId === null || listId === "" ? [] : [PREFIXES.list + listId]),
    ...wordsOf(subject, MAX_SUBJECT_WORDS).map((word) => PREFIXES.subject + word),
    ...wordsOf(ownText.slice(0, READ_CHARACTERS), MAX_TEXT_WORDS).map((word) => PREFIXES.text + word),
  ];
}

function wordsOf(text: string, most: number): string[] {
  const words =
    text
      .normalize("NFKC")
      .toLowerCase()
      .match(/[\p{L}\p{M}\p{N}'’-]+/gu) ?? [];
  const telling = words.filter(
    (word) => word.length >= MIN_WORD && word.length <= MAX_WORD && !/\p{N}/u.test(word) && !EMPTY_WORDS.has(word),
  );
  return [...new Set(telling)].slice(0, most);
}

/** What a feature is of, and its own text: "d:vane.example" is the domain vane.example. */
export function readFeature(feature: string): { readonly kind: FeatureKind; readonly text: string } {
  for (const [kind, prefix] of Object.entries(PREFIXES) as [FeatureKind, string][]) {
    if (feature.startsWith(prefix)) return { kind, text: feature.slice(prefix.length) };
  }
  throw new Error(`${feature} is no feature`);
}

/** What may be reference codes of records in a letter. */
export function codesIn({ subject, ownText }: Letter): string[] {
  return recordCodesIn(`${subject} ${ownText.slice(0, READ_CHARACTERS)}`);
}
