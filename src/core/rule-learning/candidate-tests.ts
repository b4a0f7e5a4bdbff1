import { domainOf, type EmailAddress, withoutSubaddress } from "../kernel/email-address";
import { foldedWords } from "../kernel/folded-words";
import type { Test } from "../rules/condition";
import type { RuledMessage } from "../rules/ruled-message";
import { type PlaceSet, placeSet } from "./place-set";

/** A message as far as is learned from it. */
export type LearnedMessage = Pick<RuledMessage, "from" | "to" | "cc" | "list" | "subject" | "ownText"> & {
  readonly fileNames: readonly string[];
};

/** What kind of thing some messages have in common. */
type Family = "sender" | "domain" | "list" | "recipient" | "tag" | "phrase" | "file" | "word";

/** A test that some of the examples pass, with which of the examples and of the other messages do. */
export type Candidate = {
  readonly family: Family;
  readonly value: string;
  readonly examples: PlaceSet;
  readonly others: PlaceSet;
  /** How much is said by naming it, in nats: its kind, and which of those that as many of the examples have. */
  readonly cost: number;
};

// Of people and lists there are few in an office's mail that some letters could have in common; of words there are many.
const COSTS: Readonly<Record<Family, number>> = {
  list: 1,
  sender: 2.5,
  domain: 2.8,
  recipient: 2,
  tag: 1.5,
  file: 2.5,
  phrase: 3.5,
  word: 7,
};

/** The test that asks for some values of one family. */
export function testOf(family: Family, values: readonly string[]): Test {
  switch (family) {
    case "sender":
      return {
        kind: "address",
        where: "from",
        of: values.map((address) => ({ kind: "address", address: address as EmailAddress })),
      };
    case "domain":
      return { kind: "address", where: "from", of: values.map((domain) => ({ kind: "domain", domain })) };
    case "recipient":
      return {
        kind: "address",
        where: "recipient",
        of: values.map((address) => ({ kind: "address", address: address as EmailAddress })),
      };
    case "list":
      return { kind: "list", of: values };
    case "tag":
      return { kind: "text", where: "subject", match: { how: "contains", values } };
    case "phrase":
      return { kind: "text", where: "subject", match: { how: "phrase", values } };
    case "file":
      return { kind: "text", where: "file", match: { how: "like", values } };
    case "word":
      return { kind: "text", where: "text", match: { how: "words", values } };
  }
}

/** Everything of each family that a message has, but for the words of its text. */
function valuesOf({ from, to, cc, list, subject, fileNames }: LearnedMessage): [Family, string][] {
  const own = [...to, ...cc].filter((address) => withoutSubaddress(address) !== address);
  return [
    ...(from === null
      ? []
      : ([
          ["sender", from],
          ["domain", domainOf(from)],
        ] as [Family, string][])),
    ...(list === null ? [] : ([["list", list]] as [Family, string][])),
    ...[...new Set(own)].map((address): [Family, string] => ["recipient", address]),
    ...tagsIn(subject).map((tag): [Family, string] => ["tag", tag]),
    ...[...new Set(fileNames.map(shapeOf))].flatMap((shape): [Family, string][] =>
      shape === null ? [] : [["file", shape]],
    ),
  ];
}

// `[tin]`, `(tin)` and `Tin:` at the beginning are names that a machine or a habit puts there.
function tagsIn(subject: string): string[] {
  const bracketed = [...subject.matchAll(/\[[^[\]]{1,40}\]|\([^()]{1,40}\)|\{[^{}]{1,40}\}/g)].map(([tag]) => tag);
  return [...new Set(bracketed.filter((tag) => !/\d/.test(tag)))];
}

// Digits are what differs from one file to the next.
function shapeOf(fileName: string): string | null {
  const shape = fileName.replace(/[*?\\]/g, "\\$&").replace(/\d+(?:[-_.]\d+)*(?=.)/g, "*");
  return shape.replace(/[^\p{L}]/gu, "").length < 4 && shape.includes("*") ? null : shape;
}

const MOST_WORDS = 5;

/** The phrases of a subject, of one to five words, without numbers; what answers begin with is none of it. */
function phrasesIn(subject: string): Set<string> {
  const bare = subject.replace(/^\s*(?:\p{L}{2,3}:\s*)+/u, "");
  const words = foldedWords(bare).trim().split(" ").filter(Boolean);
  const phrases = new Set<string>();
  for (let from = 0; from < words.length; from += 1) {
    for (let to = from + 1; to <= Math.min(words.length, from + MOST_WORDS); to += 1) {
      const part = words.slice(from, to);
      if (part.some((word) => /\d/.test(word))) break;
      if (part.some((word) => word.length > 1)) phrases.add(part.join(" "));
    }
  }
  return phrases;
}

const MAX_TEXT = 4_000;

function wordsIn({ ownText }: LearnedMessage): Set<string> {
  return new Set(foldedWords(ownText.slice(0, MAX_TEXT)).trim().split(" "));
}

/** What candidates are looked for with: the least share of the examples that has to have one, and how many words at most. */
const LEAST_SHARE = 0.1;
const MOST_TEXT_WORDS = 12;
// A word that so many of all letters have says nothing of some of them.
const COMMON = 0.25;

/** The tests that some of the examples pass, each with those of the other messages that pass it too. */
export function candidatesFor(examples: readonly LearnedMessage[], others: readonly LearnedMessage[]): Candidate[] {
  const plain = places(examples.map(valuesOf));
  const phrases = places(
    examples.map(({ subject }) => [...phrasesIn(subject)].map((one): [Family, string] => ["phrase", one])),
  );
  const words = places(examples.map((message) => [...wordsIn(message)].map((one): [Family, string] => ["word", one])));
  const least = Math.max(1, Math.ceil(examples.length * LEAST_SHARE));
  const kept = [
    ...plain,
    ...withoutParts(phrases),
    ...[...words].filter(([, { at }]) => at.length === examples.length),
  ].filter(([, { at }]) => at.length >= least);
  const wanted = placesAmong(others, kept);
  const candidates = kept.map(([key, { family, value, at }]): Candidate => {
    const alike = kept.filter(([, one]) => one.family === family && one.at.length >= at.length).length;
    return {
      family,
      value,
      examples: placeSet(examples.length, at),
      others: placeSet(others.length, wanted.get(key) ?? []),
      cost: COSTS[family] + Math.log(alike),
    };
  });
  return withFewWords(candidates, wanted, others.length);
}

// Where each of what is looked for stands among the others, looking at each of them once.
function placesAmong(
  others: readonly LearnedMessage[],
  kept: readonly (readonly [key: string, having: Having])[],
): ReadonlyMap<string, readonly number[]> {
  const wanted = new Map<string, number[]>(kept.map(([key]) => [key, []]));
  const phrases = kept.flatMap(([key, { family, value }]) =>
    family === "phrase" ? [[` ${value} `, wanted.get(key) ?? []] as const] : [],
  );
  const asksForWords = kept.some(([, { family }]) => family === "word");
  for (const [place, message] of others.entries()) {
    for (const [family, value] of valuesOf(message)) wanted.get(`${family} ${value}`)?.push(place);
    const subject = phrases.length === 0 ? "" : foldedWords(message.subject);
    for (const [phrase, all] of phrases) if (subject.includes(phrase)) all.push(place);
    if (asksForWords) for (const word of wordsIn(message)) wanted.get(`word ${word}`)?.push(place);
  }
  return wanted;
}

type Having = { readonly family: Family; readonly value: string; readonly at: number[] };

function places(messages: readonly (readonly [Family, string][])[]): Map<string, Having> {
  const having = new Map<string, Having>();
  for (const [place, values] of messages.entries()) {
    for (const [family, value] of values) {
      const key = `${family} ${value}`;
      const known = having.get(key) ?? { family, value, at: [] };
      known.at.push(place);
      having.set(key, known);
    }
  }
  return having;
}

// Of phrases that the same examples have only the longest says all that they have in common.
function withoutParts(phrases: ReadonlyMap<string, Having>): [string, Having][] {
  const byPlaces = new Map<string, [string, Having][]>();
  for (const entry of phrases) {
    const where = entry[1].at.join(" ");
    byPlaces.set(where, [...(byPlaces.get(where) ?? []), entry]);
  }
  return [...byPlaces.values()].flatMap((same) =>
    same.filter(
      ([, one]) =>
        !same.some(
          ([, other]) => other.value.length > one.value.length && ` ${other.value} `.includes(` ${one.value} `),
        ),
    ),
  );
}

// The words that the fewest other letters have.
function withFewWords(
  candidates: readonly Candidate[],
  wanted: ReadonlyMap<string, readonly number[]>,
  size: number,
): Candidate[] {
  const found = (value: string) => wanted.get(`word ${value}`)?.length ?? 0;
  const words = candidates
    .filter(({ family, value }) => family === "word" && value.length > 2 && found(value) <= size * COMMON)
    .toSorted((a, b) => found(a.value) - found(b.value))
    .slice(0, MOST_TEXT_WORDS);
  return [...candidates.filter(({ family }) => family !== "word"), ...words];
}
