/** How much of a text is shown at once, in characters: more takes a browser long to lay out, and nobody reads it in one go. */
export const SHOWN_AT_ONCE = { first: 20_000, next: 100_000 } as const;

/** A part of a text that begins at a place, and how many characters there are after it. */
export type TextPart = { readonly text: string; readonly left: number };

/** The part of at most so many characters that begins at `from`; it ends at the end of a line or a word where there is one. */
export function textPart(text: string, from: number, most: number): TextPart {
  const rest = text.slice(from);
  if (rest.length <= most) return { text: rest, left: 0 };
  const head = rest.slice(0, most);
  const end = [head.lastIndexOf("\n"), head.lastIndexOf(" ")].find((at) => at > most / 2) ?? most - 1;
  // Never between the halves of a pair (UTF-16).
  const last = head.charCodeAt(end);
  const length = last >= 0xd800 && last < 0xdc00 ? end : end + 1;
  return { text: head.slice(0, length), left: rest.length - length };
}
