/** A passage of a text; `isDrawn` where its lines only say what they mean under each other, as a table of characters does. */
export type Passage = { readonly text: string; readonly isDrawn: boolean };

const RULED = /[|+│┃].*[|+│┃]|^[\s+\-=_|:─━┌┐└┘├┤┬┴┼]{5,}$/u;
const IN_COLUMNS = /\S {3,}\S.*\S {3,}\S|\S\t+\S.*\t+\S/;
const LEAST_LINES = 3;
const MOST_OF_THEM = 0.6;

/** Cuts a plain text between what is drawn with characters and what is read, at empty lines; put together it is the text again. */
export function drawnPassages(text: string): Passage[] {
  const passages: Passage[] = [];
  // An odd piece is the empty lines between two.
  for (const [at, piece] of text.split(/(\n[ \t]*\n[\s]*)/).entries()) {
    const last = passages.at(-1);
    const isDrawn = at % 2 === 0 && looksDrawn(piece);
    if (last !== undefined && (at % 2 === 1 || (last.isDrawn === isDrawn && !isDrawn)))
      passages[passages.length - 1] = { ...last, text: last.text + piece };
    else passages.push({ text: piece, isDrawn });
  }
  return passages;
}

function looksDrawn(piece: string): boolean {
  const lines = piece.split("\n");
  const drawn = lines.filter((line) => RULED.test(line) || IN_COLUMNS.test(line)).length;
  return lines.length >= LEAST_LINES && drawn >= lines.length * MOST_OF_THEM;
}
