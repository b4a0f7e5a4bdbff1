/** A pattern in the other notation, or the part of it that has no counterpart there. */
export type Translated = { readonly pattern: string } | { readonly lacks: string };

// What a class may have by its name, and what the same is as a part of a set.
const CLASSES: Readonly<Record<string, string>> = { d: "0-9", w: "[:alnum:]_", s: "[:space:]" };
const NEGATED: Readonly<Record<string, string>> = { D: "d", W: "w", S: "s" };

/**
 * An extended regular expression (IEEE 1003.1, 9.4) in the notation of RE2. In sets a backslash is itself, unless a class
 * (`\w`, `\d`, `\s`) was meant.
 */
export function patternFromPosix(posix: string): Translated {
  let pattern = "";
  let at = 0;
  while (at < posix.length) {
    const end = posix[at] === "[" ? endOfPosixSet(posix, at) : at + (posix[at] === "\\" ? 2 : 1);
    const piece = posix.slice(at, end ?? posix.length);
    const read = end === null ? null : pieceOfPosix(piece);
    if (read === null) return { lacks: piece };
    pattern += read;
    at += piece.length;
  }
  return { pattern };
}

// A set, a letter with a backslash or one without; null for what RE2 has no counterpart of.
function pieceOfPosix(piece: string): string | null {
  if (piece.length > 1 && piece.startsWith("["))
    return /\[[.=]/.test(piece) ? null : piece.replace(/\\(?![wsdWSD])/g, "\\\\");
  if (/^\\[1-9]$/.test(piece)) return null;
  return piece === "\\<" || piece === "\\>" ? "\\b" : piece;
}

// The place behind the bracket that ends a set; one that comes first is a member of it, as are those within a class.
function endOfPosixSet(posix: string, from: number): number | null {
  let at = from + 1;
  if (posix[at] === "^") at += 1;
  if (posix[at] === "]") at += 1;
  while (at < posix.length && posix[at] !== "]") {
    const inner = posix[at] === "[" && /[:.=]/.test(posix[at + 1] ?? "") ? posix[at + 1] : null;
    const end = inner === null ? -1 : posix.indexOf(`${inner}]`, at + 2);
    at = end < 0 ? at + 1 : end + 2;
  }
  return at < posix.length ? at + 1 : null;
}

/** A pattern of RE2 as an extended regular expression, where that can find the same. */
export function patternInPosix(pattern: string): Translated {
  // A dot is any letter there.
  let rest = pattern.replace(/^\(\?s\)/, "");
  let posix = "";
  while (rest !== "") {
    const set = /^\[\^?\]?(?:\\.|\[:\w+:\]|[^\]\\])*\]/s.exec(rest)?.[0];
    const [taken, written] = set === undefined ? pieceInPosix(rest) : [set, setInPosix(set)];
    if (written === null) return { lacks: taken };
    posix += written;
    rest = rest.slice(taken.length);
  }
  return { pattern: posix };
}

/** The next piece that is no set, and how it is written; null where it cannot be. */
function pieceInPosix(rest: string): readonly [taken: string, written: string | null] {
  const [letter = "", next = ""] = rest;
  if (letter === "\\") return [`\\${next}`, escapeInPosix(next)];
  if (rest.startsWith("(?:")) return ["(?:", "("];
  if (rest.startsWith("(?")) return [rest.slice(0, 4), null];
  // Few or many is all the same to whether it is found.
  const lazy = /^([*+?]|\{\d+(?:,\d*)?\})\?/.exec(rest);
  if (lazy !== null) return [lazy[0], lazy[1] ?? null];
  return [letter, letter];
}

function escapeInPosix(letter: string): string | null {
  if (Object.hasOwn(CLASSES, letter)) return `[${CLASSES[letter]}]`;
  if (Object.hasOwn(NEGATED, letter)) return `[^${CLASSES[NEGATED[letter] as string]}]`;
  if (letter === "t") return "\t";
  return /[a-z0-9<>'`]/i.test(letter) || letter === "" ? null : `\\${letter}`;
}

// Within a set a bracket comes first, a hyphen last and a roof not first, for nothing takes their meaning there.
function setInPosix(set: string): string | null {
  const isNot = set.startsWith("[^");
  const pieces = set.slice(isNot ? 2 : 1, -1).match(/\\.|\[:\w+:\]|[\s\S]/g) ?? [];
  const members = pieces.map(memberInPosix);
  if (members.includes(null)) return null;
  const isOdd = (at: number) => /^\\?[\]^]$|^\\-$/.test(pieces[at] ?? "");
  const odd = members.filter((_member, at) => isOdd(at));
  const plain = members.filter((_member, at) => !isOdd(at)).join("");
  const ends = ["^", "-"].filter((one) => odd.includes(one)).join("");
  const written = `${odd.includes("]") ? "]" : ""}${plain}${ends}`;
  return written.startsWith("^") && !isNot ? null : `[${isNot ? "^" : ""}${written}]`;
}

function memberInPosix(piece: string): string | null {
  if (!piece.startsWith("\\")) return piece;
  const letter = piece.slice(1);
  if (Object.hasOwn(CLASSES, letter)) return CLASSES[letter] ?? null;
  return /[a-z0-9]/i.test(letter) ? null : letter;
}
