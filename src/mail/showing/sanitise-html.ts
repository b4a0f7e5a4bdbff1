import sanitizeHtml from "sanitize-html";
import { linkMismatch } from "../../core/message/link-mismatch";
import type { messageTexts } from "../../texts/en/message";
import { type Say, sayIn } from "../../texts/say";
import { isTooDeep, textOfHtml } from "../parsing/text-of-html";
import { letterHtml, looksOf } from "./letter-html";

// A hundred times a usual newsletter; over it the page of the reader would suffer.
const MAX_SHOWN_CHARACTERS = 1_000_000;

/** HTML mail made harmless, and what was held back. */
export type SafeHtml = {
  readonly html: string;
  readonly remoteContent: readonly string[];
  readonly warnings: readonly string[];
};

const TEXT_TAGS = [
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
];
const COLOUR = [/^#[0-9a-f]{3,8}$/i, /^[a-z]{3,20}$/i, /^rgba?\([\d\s,.%]{3,40}\)$/i];
const LENGTH = [/^-?[\d.]{1,8}(px|pt|em|rem|%)?(\s+-?[\d.]{1,8}(px|pt|em|rem|%)?){0,3}$/i, /^auto$/i];
const WORD = [/^[a-z -]{1,40}$/i];
const BORDER = [/^[\w\s#.(),%-]{1,60}$/];

export type SanitiseOptions = {
  /** The data of an image that the message carries; null when it carries none of this Content-ID. */
  readonly inlineImage?: (contentId: string) => string | null;
  /** Whether pictures from elsewhere stay in, as somebody asked for them. */
  readonly showsRemote?: boolean;
  /** The language of what is said in the letter beside its own words; English where it is left out. */
  readonly locale?: string;
};

/**
 * The policy: a written list of tags, attributes and style properties, everything else is taken out. Nothing may run
 * (script, handlers, forms, embedded objects, SVG), nothing may be fetched (images by Content-ID are given as data by
 * `inlineImage`, others are left out and named), nothing may cover the page (no positioning, no style sheets), and links
 * open apart without telling where they came from.
 */
export function sanitiseHtml(html: string, options: SanitiseOptions = {}): SafeHtml {
  if (isTooLarge(html)) return asText(html, sayerFor(options));
  const { html: safe, remoteContent, dropped } = withoutActiveContent(html, options, LISTED_STYLES);
  return finished(safe, remoteContent, dropped, sayerFor(options));
}

/**
 * A letter as it was meant to look: the same policy, with its style sheets and colours as far as they do no harm and can be
 * read, what it copies of earlier letters folded, and tables that are too wide in a frame of their own.
 */
export function shownHtml(html: string, options: SanitiseOptions = {}): SafeHtml {
  if (isTooLarge(html)) return asText(html, sayerFor(options));
  const { html: safe, remoteContent, dropped } = withoutActiveContent(html, options, null);
  const say = sayerFor(options);
  return finished(letterHtml(safe, looksOf(html), say("message.earlierText")), remoteContent, dropped, say);
}

type SayOfMessages = Say<typeof messageTexts>;
const sayerFor = ({ locale = "en" }: SanitiseOptions) => sayIn(locale) as SayOfMessages;

const isTooLarge = (html: string) => html.length > MAX_SHOWN_CHARACTERS || isTooDeep(html);

type AllowedStyles = NonNullable<sanitizeHtml.IOptions["allowedStyles"]>;
type Cleaned = {
  readonly html: string;
  readonly remoteContent: readonly string[];
  readonly dropped: ReadonlySet<string>;
};

const LISTED_STYLES: AllowedStyles = {
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
};

// Without a list of styles, classes and styles stay as they came, for whoever reads them next.
function withoutActiveContent(html: string, options: SanitiseOptions, allowedStyles: AllowedStyles | null): Cleaned {
  const { inlineImage = () => null, showsRemote = false } = options;
  const remoteContent: string[] = [];
  const dropped = new Set<string>();
  const safe = sanitizeHtml(html, {
    allowedTags: TEXT_TAGS,
    nonTextTags: ["script", "style", "textarea", "option", "noscript", "title", "head", "svg", "math", "template"],
    allowedAttributes: {
      "*": [
        "style",
        "align",
        "valign",
        "dir",
        "lang",
        "title",
        ...(allowedStyles === null ? ["class", "id", "bgcolor"] : []),
      ],
      a: ["href", "target", "rel"],
      img: ["src", "alt", "width", "height", "referrerpolicy"],
      font: ["color", "size", "face"],
      table: ["width", "border", "cellpadding", "cellspacing", "bgcolor"],
      td: ["width", "height", "colspan", "rowspan", "bgcolor"],
      th: ["width", "height", "colspan", "rowspan", "bgcolor"],
      tr: ["bgcolor"],
      col: ["width", "span"],
      ol: ["start", "type"],
    },
    ...(allowedStyles === null ? { parseStyleAttributes: false } : { allowedStyles }),
    allowedSchemes: ["http", "https", "mailto", "tel"],
    allowedSchemesByTag: { img: showsRemote ? ["data", "http", "https"] : ["data"] },
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
      img: (tagName, attribs) => {
        const shown = imageAttributes(attribs, inlineImage, showsRemote, remoteContent);
        if (shown.src !== undefined) return { tagName, attribs: shown };
        // What is held back leaves its words, not a broken picture.
        return { tagName: "span", attribs: {}, text: attribs.alt ?? "" };
      },
    },
  });
  return { html: safe, remoteContent, dropped };
}

function finished(
  safe: string,
  remoteContent: readonly string[],
  dropped: ReadonlySet<string>,
  say: SayOfMessages,
): SafeHtml {
  const warnings =
    dropped.size === 0 ? [] : [say("message.takenOut", { what: { all: [...dropped].sort(), by: "comma" } })];
  const { html: marked, dishonest } = markDishonestLinks(safe, say);
  if (dishonest > 0) warnings.push(say("message.linksNameOthers", { count: dishonest }));
  return { html: withBreaks(marked), remoteContent, warnings };
}

// The sanitiser's own output, so that a pattern is enough: attributes are quoted and every link is closed.
const LINK = /<a ([^<>]*)>((?:(?!<\/a>)[\s\S]){0,4000})<\/a>/g;

function markDishonestLinks(html: string, say: SayOfMessages): { html: string; dishonest: number } {
  let dishonest = 0;
  const marked = html.replace(LINK, (link: string, attributes: string, content: string) => {
    const href = /href="([^"]*)"/.exec(attributes)?.[1]?.replaceAll("&amp;", "&") ?? "";
    const site = linkMismatch(content.replace(/<[^<>]*>/g, ""), href);
    if (site === null) return link;
    dishonest += 1;
    return `${link} <span class="leads-elsewhere">${escaped(say("message.leadsTo", { site }))}</span>`;
  });
  return { html: marked, dishonest };
}

function asText(html: string, say: SayOfMessages): SafeHtml {
  const text = textOfHtml(html);
  return {
    html: withBreaks(`<pre>${escaped(text)}</pre>`),
    remoteContent: [],
    warnings: [say("message.shownAsText")],
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
  showsRemote: boolean,
  remoteContent: string[],
): Record<string, string> {
  const { src = "", ...others } = attribs;
  const contentId = /^cid:(.+)$/i.exec(src.trim())?.[1];
  if (contentId !== undefined) {
    const data = inlineImage(decodeLoosely(contentId));
    return data === null ? others : { ...others, src: data };
  }
  if (/^data:image\/(png|jpeg|gif|webp);base64,/i.test(src)) return { ...others, src };
  if (src === "") return others;
  if (showsRemote && /^https?:\/\//i.test(src)) return { ...others, src, referrerpolicy: "no-referrer" };
  remoteContent.push(src.slice(0, 2_000));
  return others;
}

function decodeLoosely(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

// Far more than a line has. A browser takes the square of a word's length to lay it out.
const MOST_UNBROKEN = 200;
const HAS_LONG_RUN = new RegExp(`[^\\s<>]{${MOST_UNBROKEN}}`);
// The sanitiser's own output: what stands between two tags is text.
const BETWEEN_TAGS = /(^|>)([^<>]+)/g;
const LETTER = /&#?\w{1,31};|[^&]|&/gu;

/** Sanitised HTML with places to break in words that have no end. */
function withBreaks(html: string): string {
  if (!HAS_LONG_RUN.test(html)) return html;
  return html.replace(BETWEEN_TAGS, (_, before: string, text: string) => before + brokenText(text));
}

// Never within an entity.
function brokenText(text: string): string {
  let run = 0;
  return text.replace(LETTER, (letter) => {
    run = /\s/.test(letter) ? 0 : run + 1;
    if (run < MOST_UNBROKEN) return letter;
    run = 0;
    return `${letter}<wbr>`;
  });
}
