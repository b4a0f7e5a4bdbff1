import { type HtmlContents, wordsIn } from "../../core/text/better-part";

// Looked through once, tag by tag, as this is done for every message with both parts: a tree costs fifty times as much.
const MAX_SCANNED_CHARACTERS = 600_000;
const TAG = /<(\/?)([a-z][a-z0-9]{0,10})\b([^<>]{0,4000})>|<!--|-->/gi;
const UNSEEN = new Set(["script", "style", "title", "template"]);
const LINK = /\bhref\s{0,5}=\s{0,5}["']?\s{0,5}((?:https?:|mailto:|tel:)[^"'\s<>]{1,2000})/i;
const IS_TINY = /\b(?:width|height)\s{0,5}[=:]\s{0,5}["']?\s{0,5}[0-3](?:px)?\b(?!\d|%|\.)/i;
const BLANKS = /&(?:nbsp|#160|zwnj|#8204|shy|#173);/gi;
const MAX_LINKS = 200;

type Table = { row: number; rowsWithCells: number };
type Scan = {
  unseen: string | null;
  readonly links: Set<string>;
  pictures: number;
  tables: number;
  readonly open: Table[];
};

/** What an HTML part has to show. */
export function htmlContents(html: string): HtmlContents {
  const scanned = html.slice(0, MAX_SCANNED_CHARACTERS);
  const scan: Scan = { unseen: null, links: new Set(), pictures: 0, tables: 0, open: [] };
  const pieces: string[] = [];
  let from = 0;
  for (const tag of scanned.matchAll(TAG)) {
    if (scan.unseen === null) pieces.push(scanned.slice(from, tag.index));
    from = tag.index + tag[0].length;
    take(scan, tag);
  }
  if (scan.unseen === null) pieces.push(scanned.slice(from));
  const words = wordsIn(pieces.join(" ").replace(BLANKS, " "));
  return { words, links: [...scan.links], pictures: scan.pictures, tables: scan.tables };
}

function take(scan: Scan, [all, closes, written = "", attributes = ""]: RegExpExecArray): void {
  const name = all === "<!--" || all === "-->" ? "!" : written.toLowerCase();
  if (closes === "/" || all === "-->") takeEnd(scan, name);
  else if (scan.unseen === null) takeStart(scan, name, attributes);
}

function takeStart(scan: Scan, name: string, attributes: string): void {
  if (name === "!" || UNSEEN.has(name)) scan.unseen = name;
  else if (name === "a") takeLink(scan, attributes);
  else if (name === "img" && /\bsrc\s{0,5}=/i.test(attributes) && !IS_TINY.test(attributes)) scan.pictures += 1;
  else takeTable(scan, name);
}

function takeEnd(scan: Scan, name: string): void {
  if (scan.unseen === name) scan.unseen = null;
  else if (scan.unseen === null && name === "table") scan.open.pop();
}

function takeLink({ links }: Scan, attributes: string): void {
  const link = LINK.exec(attributes)?.[1];
  if (link !== undefined && links.size < MAX_LINKS) links.add(link.replaceAll("&amp;", "&"));
}

// Tables that only hold a layout together have one cell in a row, or one row.
function takeTable(scan: Scan, name: string): void {
  if (name === "table") scan.open.push({ row: 0, rowsWithCells: 0 });
  const table = scan.open.at(-1);
  if (table === undefined) return;
  if (name === "tr") table.row = 0;
  if (name !== "td" && name !== "th") return;
  table.row += 1;
  if (table.row !== 2) return;
  table.rowsWithCells += 1;
  if (table.rowsWithCells === 2) scan.tables += 1;
}
