import { type Place, ScriptFault, said } from "./script-problem";

/** A piece of a script. `comment` is the last comment before it. */
export type Token = {
  readonly kind: "word" | "tag" | "number" | "text" | "mark" | "end";
  /** Words and tags in lower case, a tag without its colon. */
  readonly value: string;
  readonly at: Place;
  readonly comment: string | null;
};

const SPACE = /[ \t\r\n]+/y;
const LINE_COMMENT = /#([^\r\n]*)/y;
const BRACKETED_COMMENT = /\/\*([\s\S]*?)\*\//y;
const NUMBER = /(\d+)([KMG]?)(?![a-z0-9_])/iy;
const WORD = /[a-z_][a-z0-9_]*/iy;
const TAG = /:([a-z_][a-z0-9_]*)/iy;
const QUOTED = /"([^"\\]*(?:\\[\s\S][^"\\]*)*)"/y;
const LONG_TEXT = /text:[ \t]*(?:#[^\r\n]*)?\r?\n([\s\S]*?)(?:^|(?<=\n))\.(?:\r?\n|$)/iy;
const MARK = /[[\](){},;]/y;

const FACTORS: Readonly<Record<string, number>> = { "": 1, K: 1024, M: 1024 ** 2, G: 1024 ** 3 };
// RFC 5228 2.4.1 asks for 31 bits; sizes of mail have no use for more than these.
const MAX_NUMBER = Number.MAX_SAFE_INTEGER;

/** The pieces of a script (RFC 5228 section 8.1), the last one its end. Throws `ScriptFault` for what is no piece. */
export function tokensOf(script: string): Token[] {
  const places = placesIn(script);
  const tokens: Token[] = [];
  let at = 0;
  let comment: string | null = null;
  const take = (pattern: RegExp): RegExpExecArray | null => {
    pattern.lastIndex = at;
    const found = pattern.exec(script);
    if (found !== null) at = pattern.lastIndex;
    return found;
  };
  while (at < script.length) {
    if (take(SPACE) !== null) continue;
    const note = take(LINE_COMMENT) ?? take(BRACKETED_COMMENT);
    if (note !== null) {
      comment = (note[1] ?? "").trim();
      continue;
    }
    const place = places(at);
    tokens.push({ ...pieceAt(take, place, script[at] ?? ""), at: place, comment });
    comment = null;
  }
  return [...tokens, { kind: "end", value: "", at: places(script.length), comment }];
}

function pieceAt(
  take: (pattern: RegExp) => RegExpExecArray | null,
  place: Place,
  letter: string,
): Pick<Token, "kind" | "value"> {
  const long = take(LONG_TEXT);
  // RFC 5228 2.4.2: a line that begins with a dot has one more in front.
  if (long !== null) return { kind: "text", value: (long[1] ?? "").replace(/^\./gm, "") };
  const quoted = take(QUOTED);
  if (quoted !== null) return { kind: "text", value: (quoted[1] ?? "").replace(/\\([\s\S])/g, "$1") };
  const number = take(NUMBER);
  if (number !== null) return { kind: "number", value: numberOf(number, place) };
  const word = take(WORD);
  if (word !== null) return { kind: "word", value: word[0].toLowerCase() };
  const tag = take(TAG);
  if (tag !== null) return { kind: "tag", value: (tag[1] ?? "").toLowerCase() };
  const mark = take(MARK);
  if (mark !== null) return { kind: "mark", value: mark[0] };
  if (letter === '"') throw new ScriptFault(place, said("sieve.theTextHasNoEnd"));
  if (letter === "/") throw new ScriptFault(place, said("sieve.theCommentHasNoEnd"));
  throw new ScriptFault(place, said("sieve.isNotExpected", { what: letter }));
}

function numberOf([, digits = "", unit = ""]: RegExpExecArray, place: Place): string {
  const number = Number(digits) * (FACTORS[unit.toUpperCase()] ?? 1);
  if (number > MAX_NUMBER) throw new ScriptFault(place, said("sieve.theNumberIsTooLarge"));
  return String(number);
}

// Asked for in the order of the script, so that each line is counted once.
function placesIn(script: string): (at: number) => Place {
  let line = 1;
  let begins = 0;
  return (at) => {
    for (let end = script.indexOf("\n", begins); end >= 0 && end < at; end = script.indexOf("\n", begins)) {
      line += 1;
      begins = end + 1;
    }
    return { line, column: at - begins + 1 };
  };
}
