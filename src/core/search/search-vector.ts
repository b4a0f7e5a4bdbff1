import type { EmailAddress, Mailbox } from "../kernel/email-address";
import { searchWords } from "./query";

/** The texts of a message that are searched. */
export type SearchedTexts = {
  readonly subject: string;
  readonly people: string;
  readonly ownText: string;
  /** Quoted history and the like: found by its words, not by phrases, as it is in full in the message it comes from. */
  readonly restText: string;
};

/**
 * The people of a message as they are searched: those outside. The tray's own addresses, and what others call it, stand in
 * all of its mail, and tell nothing of any.
 */
export function searchedPeople(people: readonly Mailbox[], own: readonly EmailAddress[]): string {
  const outside = people.filter(({ address }) => !own.includes(address));
  return outside.map(({ name, address }) => `${name} ${address}`).join("\n");
}

// A tsvector holds at most 1 MiB; a longer text is found by its beginning.
const MAX_CHARACTERS = 150_000;
// PostgreSQL 12.11: positions end at 16,383, and a word has at most 256 of them.
const MAX_POSITION = 16_383;
const MAX_POSITIONS_OF_A_WORD = 200;
// A phrase never reaches from one text into the next.
const GAP = 10;

/**
 * The text form of a PostgreSQL tsvector of a message: subject with weight A, people B, own text D in order, other words
 * without a place. Made here and not by `to_tsvector`, so that words are folded and divided as queries are.
 */
export function searchVector(texts: SearchedTexts): string {
  const places = new Map<string, string[]>();
  let position = 0;
  const add = (text: string, weight: string) => {
    for (const word of searchWords(text.slice(0, MAX_CHARACTERS))) {
      position = Math.min(position + 1, MAX_POSITION);
      const known = places.get(word);
      if (known === undefined) places.set(word, [`${position}${weight}`]);
      else if (known.length < MAX_POSITIONS_OF_A_WORD) known.push(`${position}${weight}`);
    }
    position = Math.min(position + GAP, MAX_POSITION);
  };
  add(texts.subject, "A");
  add(texts.people, "B");
  add(texts.ownText, "");
  for (const word of searchWords(texts.restText.slice(0, MAX_CHARACTERS))) {
    if (!places.has(word)) places.set(word, []);
  }
  return [...places].map(([word, at]) => (at.length === 0 ? `'${word}'` : `'${word}':${at.join(",")}`)).join(" ");
}
