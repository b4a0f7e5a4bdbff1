import { hitsIn, type Query, readQuery } from "../../core/search/query";
import { firstWords } from "../../core/text/new-text";
import type { TrayGrant } from "../../storage/access/index";
import { type SheetRow, searchConversations } from "../../storage/lists/index";
import type { Deps } from "../base/deps";

/** A piece of text; `hit` is true where it is what was asked for. */
export type Piece = { readonly text: string; readonly hit: boolean };

/** A conversation found, with the place in it that has what was asked for. */
export type SearchResult = {
  readonly row: SheetRow;
  readonly subject: Piece[];
  readonly from: string;
  readonly excerpt: Piece[];
  /** The name of a file that has it; null where none that comes with it has all of it. */
  readonly file: string | null;
};

const MAX_RESULTS = 60;
const EXCERPT_CHARACTERS = 220;
const BEFORE_HIT = 60;

/** Searches subjects, people and bodies of a tray, newest first; an empty query finds nothing. Bin and Junk only where one looks `everywhere`. */
export async function search(
  deps: Deps,
  grant: TrayGrant,
  text: string,
  limit: number = MAX_RESULTS,
  where: "kept" | "everywhere" = "kept",
): Promise<SearchResult[]> {
  const query = readQuery(text);
  if (query.terms.length === 0) return [];
  const found = await searchConversations(deps.db, grant, query, limit, where);
  return found.map(({ hitText, hitFrom, hitFile, ...row }) => ({
    row,
    subject: piecesOf(row.subject, hitsIn(row.subject, query)),
    from: hitFrom,
    excerpt: excerptOf(hitText, query),
    file: hitFile,
  }));
}

// Some words before the first hit and some after it; hits are looked for again, as the excerpt is on one line.
function excerptOf(text: string, query: Query): Piece[] {
  const from = Math.max(0, (hitsIn(text, query)[0]?.[0] ?? 0) - BEFORE_HIT);
  const start = from === 0 ? 0 : text.indexOf(" ", from) + 1;
  const excerpt = firstWords(text.slice(start), EXCERPT_CHARACTERS);
  return piecesOf(excerpt, hitsIn(excerpt, query));
}

function piecesOf(text: string, hits: readonly (readonly [number, number])[]): Piece[] {
  const pieces: Piece[] = [];
  let at = 0;
  for (const [begin, end] of hits) {
    if (begin > at) pieces.push({ text: text.slice(at, begin), hit: false });
    pieces.push({ text: text.slice(begin, end), hit: true });
    at = end;
  }
  if (at < text.length) pieces.push({ text: text.slice(at), hit: false });
  return pieces;
}
