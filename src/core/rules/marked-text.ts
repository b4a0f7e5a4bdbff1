import { RE2JS } from "re2js";
import { foldedWords } from "../kernel/folded-words";
import type { TextMatch } from "./condition";
import { patternProblem, wordsOf } from "./find-text";

/** From where to where in a text, in its characters. */
type Span = { readonly from: number; readonly to: number };

/** A piece of a text, and whether something that was looked for stands there. */
export type MarkedPiece = { readonly text: string; readonly hit: boolean };

const MAX_SPANS = 500;

/** A text in pieces, those marked that comparisons find in it; put together again they are the text. */
export function markedText(text: string, matches: readonly TextMatch[]): MarkedPiece[] {
  const pieces: MarkedPiece[] = [];
  let at = 0;
  for (const { from, to } of joined(matches.flatMap((match) => spansOf(match, text)))) {
    if (from > at) pieces.push({ text: text.slice(at, from), hit: false });
    pieces.push({ text: text.slice(from, to), hit: true });
    at = to;
  }
  return at < text.length ? [...pieces, { text: text.slice(at), hit: false }] : pieces;
}

function joined(spans: readonly Span[]): Span[] {
  const apart: Span[] = [];
  for (const span of spans.toSorted((a, b) => a.from - b.from)) {
    const last = apart.at(-1);
    if (last === undefined || span.from > last.to) apart.push(span);
    else apart[apart.length - 1] = { from: last.from, to: Math.max(last.to, span.to) };
  }
  return apart;
}

function spansOf(match: TextMatch, text: string): Span[] {
  return match.values.flatMap((value) => [...SPANS[match.how](value, text, match)].slice(0, MAX_SPANS));
}

const SPANS: Readonly<Record<TextMatch["how"], (value: string, text: string, match: TextMatch) => Iterable<Span>>> = {
  words: (value, text) => {
    const wanted = new Set(wordsOf(value));
    const found = wordsIn(text).filter(({ word }) => wanted.has(word));
    // All of them have to be there.
    return new Set(found.map(({ word }) => word)).size === wanted.size ? found : [];
  },
  phrase: (value, text) => {
    const wanted = wordsOf(value);
    const words = wanted.length === 0 ? [] : wordsIn(text);
    return words.flatMap(({ from }, at) => {
      const last = words[at + wanted.length - 1];
      const isIt = last !== undefined && wanted.every((word, next) => words[at + next]?.word === word);
      return isIt ? [{ from, to: last.to }] : [];
    });
  },
  is: (value, text, { isExact }) => (same(text, isExact) === same(value, isExact) ? whole(text) : []),
  contains: function* (value, text, { isExact }) {
    const [searched, wanted] = [same(text, isExact), same(value, isExact)];
    // A few letters are longer in lower case, so that their places are others.
    if (wanted === "" || searched.length !== text.length) return;
    for (let at = searched.indexOf(wanted); at >= 0; at = searched.indexOf(wanted, at + wanted.length))
      yield { from: at, to: at + wanted.length };
  },
  like: (_value, text) => whole(text),
  pattern: function* (value, text, { isExact }) {
    if (patternProblem(value) !== null) return;
    const found = RE2JS.compile(value, isExact ? 0 : RE2JS.CASE_INSENSITIVE).matcher(text);
    while (found.find()) if (found.end() > found.start()) yield { from: found.start(), to: found.end() };
  },
};

const same = (text: string, isExact: boolean | undefined) => (isExact === true ? text : text.toLowerCase());
const whole = (text: string): Span[] => (text === "" ? [] : [{ from: 0, to: text.length }]);

function wordsIn(text: string): (Span & { readonly word: string })[] {
  return [...text.matchAll(/[\p{L}\p{N}\p{M}]+/gu)].map(({ 0: word, index: from }) => {
    return { word: foldedWords(word).trim(), from, to: from + word.length };
  });
}
