import type { MemberId, RecordId } from "../kernel/ids";
import type { TrackRecord } from "./calibration";
import { EVERYTHING, readFeature } from "./features";
import { DECIDED, type Label } from "./lesson";
import type { Owned } from "./owned";
import { type Counts, told } from "./shares";

/** What could be decided about a conversation. */
export type ProposalKind = "file" | "categorise" | "assign" | "settle";

/** What a tray knows that speaks for or against a decision about one letter. */
export type Evidence = {
  /** What was decided where the letter's features were, and, once that is asked for, where its likely labels were given. */
  readonly counts: Counts;
  /** Who owned that. */
  readonly owners: Owned;
  /** The labels of the last conversations with the same person, the newest first. */
  readonly last: readonly (readonly Label[])[];
  /** The records whose reference codes stand in the letter. */
  readonly named: readonly RecordId[];
  /** The records to which its writer's address belongs, as the register says. */
  readonly belongs: readonly RecordId[];
  /** The records that take what is filed, of all that anything speaks for, with their titles. */
  readonly open: ReadonlyMap<RecordId, string>;
  /** Whether a category is given to anything more. */
  readonly isGiven: (category: string) => boolean;
  /** Who may own what is in the tray. */
  readonly mayOwn: readonly MemberId[];
  /** Who answers for an owner now: they, or whoever covers for them; null for nobody. */
  readonly inCharge: (id: MemberId) => MemberId | null;
  /** How much each piece of evidence counts by now, by kind. */
  readonly weights: { readonly [K in ProposalKind]?: Readonly<Record<string, number>> };
  /** What came of earlier proposals, by kind. */
  readonly records: { readonly [K in ProposalKind]?: TrackRecord };
};

/** The features of a letter by what they are of. */
export type Asked = {
  readonly person: string;
  readonly domain: string;
  readonly list: string;
  /** Those of its words that say most: the rarest that were there before. */
  readonly words: readonly string[];
  /** The first of them: what says of which record it is about, where there are many. */
  readonly rarest: readonly string[];
  /** All of its words that are not in letters of all kinds. */
  readonly unusual: ReadonlySet<string>;
};

/** So many words of a letter are asked about. */
export const ASKED_WORDS = 25;
/** So many of them about records. */
export const RAREST_WORDS = 8;
/** A record that such a word names is a candidate where it is so many times as frequent with the word as it is on the whole. */
export const TELLING = 3;
/** One that its sender, their domain or list had is a candidate where it was one of so many there. */
export const ONE_OF = 50;
const MIN_KNOWN = 2;
const UNUSUAL = 0.05;

/** What is asked about a letter with these features, where these counts are known. */
export function askedAbout(features: readonly string[], counts: Counts): Asked {
  const of = (kind: string) => features.find((feature) => readFeature(feature).kind === kind) ?? "";
  const words = features
    .filter((feature) => readFeature(feature).kind === "word")
    .map((word) => ({ word, known: told(counts, word, DECIDED).of }));
  const decided = told(counts, EVERYTHING, DECIDED).of;
  const rarest = words
    .filter(({ known }) => known >= MIN_KNOWN)
    .toSorted((a, b) => a.known - b.known || (a.word < b.word ? -1 : 1))
    .map(({ word }) => word);
  return {
    person: of("person"),
    domain: of("domain"),
    list: of("list"),
    words: rarest.slice(0, ASKED_WORDS),
    rarest: rarest.slice(0, RAREST_WORDS),
    unusual: new Set(words.filter(({ known }) => known <= UNUSUAL * decided).map(({ word }) => word)),
  };
}

/** A label that may be given, how likely it is from 0 to 1, and what each piece of evidence says. */
export type Likely<Piece extends string> = {
  readonly label: Label;
  readonly likelihood: number;
  readonly says: Readonly<Record<Piece, number>>;
};
