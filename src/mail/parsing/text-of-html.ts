import { convert, type FormatCallback, type HtmlToTextOptions } from "html-to-text";

// Over these it is cut off or left out; the message as it was sent is there in full.
export const MAX_HTML_CHARACTERS = 600_000;
// The converter's time grows with the square of the depth: 100,000 open elements took it a minute.
const MAX_OPEN_ELEMENTS = 500;
const MAX_DEPTH = 200;
const MAX_CHILD_NODES = 20_000;

const BLOCK = { leadingLineBreaks: 2, trailingLineBreaks: 2 };

// Cells of a layout follow each other on a line.
const cell: FormatCallback = (element, walk, builder) => {
  walk(element.children, builder);
  builder.addInline(" ");
};

const COMMON: HtmlToTextOptions = {
  wordwrap: false,
  formatters: { cell },
  limits: { maxInputLength: MAX_HTML_CHARACTERS, maxDepth: MAX_DEPTH, maxChildNodes: MAX_CHILD_NODES },
  selectors: [
    { selector: "img", format: "skip" },
    { selector: "a", options: { hideLinkHrefIfSameAsText: true, ignoreHref: false, noAnchorUrl: true } },
    { selector: "blockquote", format: "blockquote", options: BLOCK },
    ...["h1", "h2", "h3", "h4", "h5", "h6"].map((selector) => ({ selector, options: { uppercase: false } })),
    { selector: "table", format: "block" },
    { selector: "tr", format: "block", options: { leadingLineBreaks: 1, trailingLineBreaks: 1 } },
    { selector: "td", format: "cell" },
    { selector: "th", format: "cell" },
  ],
};

// Programs mark the history they copy with such classes; there is no standard for it.
const HISTORY = ["[class*=_quote]", "[class*=-quote]", "[class^=quote]", "[class*=quoted]", "[class*=_extra]"];
const SIGNATURE = ["[class*=signature]", "[id*=signature]", "[id^=Signature]"];

const signature: FormatCallback = (element, walk, builder) => {
  builder.openBlock({ leadingLineBreaks: 2 });
  builder.addLiteral("-- ");
  builder.addLineBreak();
  walk(element.children, builder);
  builder.closeBlock({ trailingLineBreaks: 2 });
};

const MARKED: HtmlToTextOptions = {
  ...COMMON,
  formatters: { ...COMMON.formatters, signature },
  selectors: [
    ...(COMMON.selectors ?? []),
    ...HISTORY.map((selector) => ({ selector, format: "blockquote", options: BLOCK })),
    ...SIGNATURE.map((selector) => ({ selector, format: "signature" })),
  ],
};

/** HTML as readable text: links with their targets, quotes as quotes, no pictures. Over `MAX_HTML_CHARACTERS` it is cut. */
export function textOfHtml(html: string): string {
  return converted(html, COMMON);
}

/** The same with the history that programs mark by class as a quotation, and the signature behind its delimiter, so that the text can be divided. */
export function markedTextOfHtml(html: string): string {
  return converted(html, MARKED);
}

function converted(html: string, options: HtmlToTextOptions): string {
  const taken = html.slice(0, MAX_HTML_CHARACTERS);
  return isTooDeep(taken) ? withoutTags(taken) : convert(taken, options);
}

const CONTAINERS =
  /<(\/?)(?:div|table|span|font|blockquote|center|section|article|ul|ol|b|i|u|em|strong|a|sub|sup|small|big|fieldset|form|object|svg|g|math|details|select|button|label|main|nav|header|footer|aside|dl|h[1-6]|[a-z]+-[a-z-]+)[\s/>]/gi;

/** Whether more elements stand open inside each other than any real message has. */
export function isTooDeep(html: string): boolean {
  let open = 0;
  for (const [, closes] of html.matchAll(CONTAINERS)) {
    open = closes === "/" ? Math.max(0, open - 1) : open + 1;
    if (open > MAX_OPEN_ELEMENTS) return true;
  }
  return false;
}

const TAG = /<(\/?)([a-z][a-z0-9-]*)[^<>]*>/gi;
const UNSEEN = new Set(["script", "style", "title", "template"]);
const BREAKS = /^(?:br|p|div|tr|li|h[1-6])$/;

function withoutTags(html: string): string {
  const pieces: string[] = [];
  let unseen: string | null = null;
  let from = 0;
  for (const tag of html.matchAll(TAG)) {
    const name = (tag[2] ?? "").toLowerCase();
    if (unseen === null) pieces.push(html.slice(from, tag.index), BREAKS.test(name) ? "\n" : " ");
    if (unseen === null && UNSEEN.has(name) && tag[1] === "") unseen = name;
    else if (unseen === name && tag[1] === "/") unseen = null;
    from = tag.index + tag[0].length;
  }
  if (unseen === null) pieces.push(html.slice(from));
  return pieces
    .join("")
    .replace(/[ \t]+/g, " ")
    .trim();
}
