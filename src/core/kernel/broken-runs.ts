/**
 * A text in pieces, none of which has a run of more than `most` characters without a space: whatever lays text out takes
 * time by the square of its longest word (UAX 14 finds no place to break in one). Joined they are the text again.
 */
export function brokenRuns(text: string, most: number): string[] {
  const pieces: string[] = [];
  let start = 0;
  let run = 0;
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    run = code <= SPACE ? 0 : run + 1;
    // Never between the halves of a pair (UTF-16).
    if (run >= most && !(code >= 0xd800 && code < 0xdc00)) {
      pieces.push(text.slice(start, at + 1));
      start = at + 1;
      run = 0;
    }
  }
  if (start < text.length || pieces.length === 0) pieces.push(text.slice(start));
  return pieces;
}

const SPACE = 32;
