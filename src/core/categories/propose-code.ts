const LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";

/**
 * A code of two or three letters for a category of this name that none of `taken` has: its initials, else its first
 * letters, else the first with a later one, else the first that is free in the alphabet.
 */
export function proposeCode(name: string, taken: ReadonlySet<string>): string {
  // Letters with marks are taken without them, as a code is typed in a hurry (Unicode normalisation form D, UAX #15).
  const plain = name.normalize("NFD").replaceAll(/\p{M}/gu, "").toUpperCase();
  const words = plain.match(/[A-Z]+/g) ?? [];
  const letters = words.join("");
  const first = letters[0] ?? "C";
  const initials = words.map(([initial]) => initial).join("");
  const candidates = [
    initials.slice(0, 2),
    letters.slice(0, 2),
    ...[...letters.slice(2)].map((letter) => first + letter),
    initials.slice(0, 3),
    letters.slice(0, 3),
    ...[...LETTERS].map((letter) => first + letter),
    ...[...LETTERS].flatMap((a) => [...LETTERS].map((b) => first + a + b)),
  ];
  return candidates.find((code) => code.length >= 2 && !taken.has(code)) ?? "";
}
