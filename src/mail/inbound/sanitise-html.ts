import sanitizeHtml from "sanitize-html";
import { isTooDeep, textOfHtml } from "./text-of-html";

// A hundred times a usual newsletter; over it the page of the reader would suffer.
const MAX_SHOWN_CHARACTERS = 1_000_000;

/** HTML mail made harmless, and what was held back. */
export type SafeHtml = {
  readonly html: string;
  readonly remoteContent: readonly string[];
  readonly warnings: readonly string[];
};

const TEXT_TAGS = [
  ...[
    "p",
    "div",
    "span",
    "br",
    "hr",
    "h1",
    "h2",
    "h3",
    "h4",
    "h5",
    "h6",
    "blockquote",
    "pre",
    "code",
    "center",
    "font",
  ],
  ...[
    "b",
    "strong",
    "i",
    "em",
    "u",
    "s",
    "strike",
    "small",
    "big",
    "sub",
    "sup",
    "abbr",
    "cite",
    "q",
    "tt",
    "kbd",
    "a",
  ],
  ...[
    "ul",
    "ol",
    "li",
    "dl",
    "dt",
    "dd",
    "table",
    "caption",
    "thead",
    "tbody",
    "tfoot",
    "tr",
    "td",
    "th",
    "col",
    "colgroup",
    "img",
  ],
];
const COLOUR = [/^#[0-9a-f]{3,8}$/i, /^[a-z]{3,20}$/i, /^rgba?\([\d\s,.%]{3,40}\)$/i];
const LENGTH = [/^-?[\d.]{1,8}(px|pt|em|rem|%)?(\s+-?[\d.]{1,8}(px|pt|em|rem|%)?){0,3}$/i, /^auto$/i];
const WORD = [/^[a-z -]{1,40}$/i];
const BORDER = [/^[\w\s#.(),%-]{1,60}$/];

/**
 * The policy: a written list of tags, attributes and style properties, everything else is taken out. Nothing may run
 * (script, handlers, forms, embedded objects, SVG), nothing may be fetched (images by Content-ID are given as data by
 * `inlineImage`, others are left out and named), nothing may cover the page (no positioning, no style sheets), and links
 * open apart without telling where they came from.
 */
export function sanitiseHtml(html: string, inlineImage: (contentId: string) => string | null = () => null): SafeHtml {
  if (html.length > MAX_SHOWN_CHARACTERS || isTooDeep(html)) return asText(html);
  const remoteContent: string[] = [];
  const dropped = new Set<string>();
  const safe = sanitizeHtml(html, {
    allowedTags: TEXT_TAGS,
    nonTextTags: ["script", "style", "textarea", "option", "noscript", "title", "head", "svg", "math", "template"],
    allowedAttributes: {
      "*": ["style", "align", "valign", "dir", "lang", "title"],
      a: ["href", "target", "rel"],
      img: ["src", "alt", "width", "height"],
      font: ["color", "size", "face"],
      table: ["width", "border", "cellpadding", "cellspacing", "bgcolor"],
      td: ["width", "height", "colspan", "rowspan", "bgcolor"],
      th: ["width", "height", "colspan", "rowspan", "bgcolor"],
      tr: ["bgcolor"],
      col: ["width", "span"],
      ol: ["start", "type"],
    },
    allowedStyles: {
      "*": {
        color: COLOUR,
        "background-color": COLOUR,
        "font-size": LENGTH,
        "font-weight": [/^(\d{3}|bold|normal|bolder|lighter)$/],
        "font-style": WORD,
        "font-family": [/^[\w\s,'"-]{1,200}$/],
        "text-align": WORD,
        "text-decoration": WORD,
        "line-height": LENGTH,
        "vertical-align": WORD,
        "white-space": WORD,
        width: LENGTH,
        "max-width": LENGTH,
        margin: LENGTH,
        padding: LENGTH,
        "padding-left": LENGTH,
        "padding-right": LENGTH,
        "padding-top": LENGTH,
        "padding-bottom": LENGTH,
        border: BORDER,
        "border-left": BORDER,
        "border-top": BORDER,
        "border-bottom": BORDER,
        "border-collapse": WORD,
      },
    },
    allowedSchemes: ["http", "https", "mailto", "tel"],
    allowedSchemesByTag: { img: ["data"] },
    allowProtocolRelative: false,
    disallowedTagsMode: "discard",
    onOpenTag: (tag) => {
      if (["script", "form", "input", "iframe", "object", "embed", "svg", "meta", "base", "link"].includes(tag))
        dropped.add(tag);
    },
    transformTags: {
      a: (tagName, attribs) => ({
        tagName,
        attribs: { ...attribs, target: "_blank", rel: "noopener noreferrer nofollow" },
      }),
      img: (tagName, attribs) => ({ tagName, attribs: imageAttributes(attribs, inlineImage, remoteContent) }),
    },
    exclusiveFilter: (frame) => frame.tag === "img" && frame.attribs.src === undefined && !frame.attribs.alt,
  });
  const warnings = dropped.size === 0 ? [] : [`taken out: ${[...dropped].sort().join(", ")}`];
  return { html: safe, remoteContent, warnings };
}

function asText(html: string): SafeHtml {
  const text = textOfHtml(html);
  return {
    html: `<pre>${escaped(text)}</pre>`,
    remoteContent: [],
    warnings: ["too large or nested too deep to be shown as it was sent: this is its text"],
  };
}

const ENTITIES: Readonly<Record<string, string>> = { "&": "&amp;", "<": "&lt;", ">": "&gt;" };

function escaped(text: string): string {
  return text.replace(/[&<>]/g, (character) => ENTITIES[character] ?? "");
}

// RFC 2392: cid: names a part of the same message.
function imageAttributes(
  attribs: Record<string, string>,
  inlineImage: (contentId: string) => string | null,
  remoteContent: string[],
): Record<string, string> {
  const { src = "", ...others } = attribs;
  const contentId = /^cid:(.+)$/i.exec(src.trim())?.[1];
  if (contentId !== undefined) {
    const data = inlineImage(decodeLoosely(contentId));
    return data === null ? others : { ...others, src: data };
  }
  if (/^data:image\/(png|jpeg|gif|webp);base64,/i.test(src)) return { ...others, src };
  if (src !== "") remoteContent.push(src.slice(0, 2_000));
  return others;
}

function decodeLoosely(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
