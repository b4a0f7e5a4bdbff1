/** A note as it is written: paragraphs and lists, in order. Every line knows where it begins in the text. */
export type NoteBlock = { readonly kind: "lines" | "list"; readonly lines: readonly NoteLine[] };
export type NoteLine = { readonly text: string; readonly from: number };

const ITEM = /^\s*[-*•]\s+/;

/** A note cut into paragraphs, at empty lines, and lists, whose lines begin with a dash, a star or a dot. */
export function noteBlocks(text: string): NoteBlock[] {
  const blocks: { kind: NoteBlock["kind"]; lines: NoteLine[] }[] = [];
  let at = 0;
  let isOpen = false;
  for (const line of text.split("\n")) {
    const mark = ITEM.exec(line)?.[0].length ?? 0;
    const kind = mark > 0 ? "list" : "lines";
    const last = blocks.at(-1);
    if (line.trim() === "") isOpen = false;
    else {
      const piece = { text: line.slice(mark), from: at + mark };
      if (isOpen && last?.kind === kind) last.lines.push(piece);
      else blocks.push({ kind, lines: [piece] });
      isOpen = true;
    }
    at += line.length + 1;
  }
  return blocks;
}

/** How long a note can be written anew, in milliseconds: long enough for what one sees a moment too late. */
export const NOTE_EDITABLE_MS = 30 * 60_000;
