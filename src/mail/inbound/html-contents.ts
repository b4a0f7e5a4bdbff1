import { type HtmlContents, wordsIn } from "../../core/message/better-part";

// Looked through with patterns, as this is done for every message with both parts: a tree costs fifty times as much.
const MAX_SCANNED_CHARACTERS = 600_000;
const UNSEEN = /<(script|style|title|head|template)\b[\s\S]*?<\/\1\s*>|<!--[\s\S]*?-->/gi;
const LINK = /<a\b[^<>]{0,2000}?\bhref\s*=\s*["']?\s*((?:https?:|mailto:|tel:)[^"'\s<>]{1,2000})/gi;
const IMAGE = /<img\b[^<>]{0,3000}>/gi;
const IS_TINY = /\b(?:width|height)\s*[=:]\s*["']?\s*[0-3](?:px)?\b(?!\d|%|\.)/i;
const TABLE = /<table\b/gi;
const MAX_LINKS = 200;

/** What an HTML part has to show. */
export function htmlContents(html: string): HtmlContents {
  const seen = html.slice(0, MAX_SCANNED_CHARACTERS).replace(UNSEEN, " ");
  const text = seen.replace(/<[^<>]{0,20000}>/g, " ").replace(/&(?:nbsp|#160|zwnj|#8204|shy|#173);/gi, " ");
  const links = new Set(
    [...seen.matchAll(LINK)].slice(0, MAX_LINKS).map((match) => (match[1] ?? "").replaceAll("&amp;", "&")),
  );
  const pictures = (seen.match(IMAGE) ?? []).filter((image) => /\bsrc\s*=/i.test(image) && !IS_TINY.test(image)).length;
  return { words: wordsIn(text), links: [...links], pictures, tables: tablesIn(seen) };
}

// Tables that only hold a layout together have one cell in a row, or one row.
function tablesIn(html: string): number {
  const starts = [...html.matchAll(TABLE)].map(({ index }) => index);
  return starts.filter((start, at) => {
    const own = html.slice(start, starts[at + 1] ?? start + 200_000).split(/<\/table/i)[0] ?? "";
    const rows = own
      .split(/<tr\b/i)
      .slice(1)
      .map((row) => row.split(/<t[dh]\b/i).length - 1);
    return rows.filter((cells) => cells > 1).length > 1;
  }).length;
}
