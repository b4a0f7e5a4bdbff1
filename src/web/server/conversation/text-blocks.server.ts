import { LinkifyIt } from "linkify-it";
import { drawnPassages } from "../../../core/text/drawn-passages";
import { quoteLevels } from "../../../core/text/quote-levels";

/** A piece of text, a link where `href` is one. */
type TextPiece = { readonly key: number; readonly text: string; readonly href: string | null };
export type TextBlock = {
  readonly key: number;
  readonly level: number;
  /** Drawn with characters, which have to stand under each other. */
  readonly isDrawn: boolean;
  readonly pieces: readonly TextPiece[];
};

const linkify = new LinkifyIt({ fuzzyLink: false, fuzzyIP: false });
// A text of nothing but links is not read; it is shown plain.
const MAX_LINKED_CHARACTERS = 100_000;

/** A plain text ready to be drawn: by depth of quotation, its addresses as links. */
export function textBlocks(text: string): TextBlock[] {
  return quoteLevels(text)
    .flatMap(({ level, text: block }) => drawnPassages(block).map((passage) => ({ ...passage, level })))
    .map(({ level, isDrawn, text: passage }, key) => ({ key, level, isDrawn, pieces: pieces(passage.trimEnd()) }));
}

function pieces(text: string): TextPiece[] {
  const links = text.length > MAX_LINKED_CHARACTERS ? null : linkify.match(text);
  const found: TextPiece[] = [];
  const add = (piece: string, href: string | null) => found.push({ key: found.length, text: piece, href });
  let from = 0;
  for (const { index, lastIndex, url } of links ?? []) {
    if (index > from) add(text.slice(from, index), null);
    add(text.slice(index, lastIndex), /^(https?|mailto):/i.test(url) ? url : null);
    from = lastIndex;
  }
  if (from < text.length) add(text.slice(from), null);
  return found;
}
