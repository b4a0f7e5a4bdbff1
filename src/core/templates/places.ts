import { Parser } from "htmlparser2";
import { BLANK_ATTRIBUTE, type Blank, blankOf, PASSAGE_ATTRIBUTE } from "./blank";

/** A blank in the HTML of a text, from the first character of its element up to the one behind it. */
export type BlankPlace = { readonly start: number; readonly end: number; readonly blank: Blank };

/** A passage that is left out unless somebody takes it in. */
export type PassagePlace = { readonly start: number; readonly end: number; readonly question: string };

type Open = {
  readonly at: number;
  readonly attributes: Readonly<Record<string, string>>;
  readonly what: "blank" | "passage" | null;
};

/**
 * The blanks and the passages of a text, in its order, as a browser would read it (WHATWG HTML 13.2). What stands in a blank
 * is its label; a passage may have blanks, and passages, within. An element that is never closed ends with the text.
 */
export function placesIn(html: string): { readonly blanks: BlankPlace[]; readonly passages: PassagePlace[] } {
  const blanks: BlankPlace[] = [];
  const passages: PassagePlace[] = [];
  const open: Open[] = [];
  // The blank that one is in, whatever else stands within.
  let within: { readonly element: Open; text: string } | null = null;
  const parser = new Parser({
    onopentag: (_, attributes) => {
      const element = { at: parser.startIndex, attributes, what: whatIs(attributes) };
      open.push(element);
      if (within === null && element.what === "blank") within = { element, text: "" };
    },
    ontext: (text) => {
      if (within !== null) within.text += text;
    },
    onclosetag: () => {
      const closed = open.pop();
      if (closed === undefined) return;
      const { at: start, attributes, what } = closed;
      const end = Math.min(parser.endIndex + 1, html.length);
      if (what === "passage") passages.push({ start, end, question: attributes[PASSAGE_ATTRIBUTE] ?? "" });
      if (within?.element !== closed) return;
      blanks.push({ start, end, blank: blankOf(attributes, within.text.replace(/\s+/g, " ").trim()) });
      within = null;
    },
  });
  parser.end(html);
  // A passage is closed after those within.
  return { blanks, passages: passages.toSorted((a, b) => a.start - b.start) };
}

function whatIs(attributes: Readonly<Record<string, string>>): Open["what"] {
  if (BLANK_ATTRIBUTE in attributes) return "blank";
  return PASSAGE_ATTRIBUTE in attributes ? "passage" : null;
}
