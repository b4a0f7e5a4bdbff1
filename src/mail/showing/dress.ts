import { generate, parse, walk } from "css-tree";
import { type ChildNode, type Element, isTag, isText } from "domhandler";
import type { Styles } from "./cascade";
import { colourOver, darkInk, darkPaper, type Ground, type Opaque, readable } from "./colours";

/** The colours of the page that a letter is shown on, and of its links, in the light and in the dark. */
export const LETTER_PAGE = {
  light: { ink: "#22282b", paper: "#fbfaf6" },
  dark: { ink: "#e8e5dc", paper: "#23282a" },
  link: { light: "#0e5a66", dark: "#79bcc6" },
} as const;

/** What an element stands on and writes in, as it is drawn. */
type Grounds = { readonly light: Ground; readonly dark: Ground };

const KEPT_ATTRIBUTES = new Set([
  ...["align", "valign", "dir", "lang", "title", "href", "target", "rel", "src", "alt", "width", "height"],
  ...[
    "referrerpolicy",
    "open",
    "size",
    "border",
    "cellpadding",
    "cellspacing",
    "colspan",
    "rowspan",
    "span",
    "start",
    "type",
  ],
]);
const COLOURS = new Set(["color", "background", "background-color"]);

/**
 * Writes into each element of a letter what holds for it and nothing else, with colours that can be read: a text keeps its
 * colour where it stands out from what is under it, and is moved as far as it has to be where not. For the dark each pair is
 * computed anew. What its sender hides is taken out.
 */
export function dress(root: Element, stylesOf: (element: Element) => Styles): void {
  dressElement(root, stylesOf, { light: LETTER_PAGE.light, dark: LETTER_PAGE.dark });
}

function dressElement(element: Element, stylesOf: (element: Element) => Styles, above: Grounds): void {
  const styles = stylesOf(element);
  const grounds = groundsOf(element, styles, above);
  const children: ChildNode[] = [];
  for (const child of element.children) {
    if (isTag(child) && isHidden(stylesOf(child))) continue;
    if (isTag(child)) dressElement(child, stylesOf, grounds);
    children.push(child);
  }
  element.children = children;
  const looks = [
    ...[...styles].filter(([property]) => !COLOURS.has(property)).map(([property, value]) => said(property, value)),
    ...colourLooks(element, styles, above, grounds),
  ];
  const kept = Object.entries(element.attribs).filter(([name]) => KEPT_ATTRIBUTES.has(name));
  element.attribs = Object.fromEntries(looks.length === 0 ? kept : [...kept, ["style", looks.join(";")]]);
}

function groundsOf(element: Element, styles: Styles, above: Grounds): Grounds {
  const written = paperOf(styles);
  const paper = written === null ? null : colourOver(written, above.light.paper);
  const light = paper ?? above.light.paper;
  const dark = paper === null ? above.dark.paper : darkPaper(paper, LETTER_PAGE.dark);
  const ink = inkOf(element, styles, light);
  const isRead = element.children.some((child) => isText(child) && child.data.trim() !== "");
  const inks = {
    light: ink?.light ?? above.light.ink,
    dark: ink?.dark ?? (ink === null ? above.dark.ink : darkInk(ink.light, dark)),
  };
  return {
    light: { paper: light, ink: isRead ? readable(inks.light, light, LETTER_PAGE.light) : inks.light },
    dark: { paper: dark, ink: isRead ? readable(inks.dark, dark, LETTER_PAGE.dark) : inks.dark },
  };
}

function inkOf(
  element: Element,
  styles: Styles,
  paper: Opaque,
): { readonly light: Opaque; readonly dark: Opaque | null } | null {
  const written = styles.get("color");
  const ink = written === undefined ? null : colourOver(written, paper);
  if (ink !== null) return { light: ink, dark: null };
  return element.name === "a" && element.attribs.href !== undefined ? LETTER_PAGE.link : null;
}

function paperOf(styles: Styles): string | null {
  const colour = styles.get("background-color");
  if (colour !== undefined) return colour;
  const shorthand = styles.get("background");
  return shorthand === undefined ? null : colourIn(shorthand);
}

// Of a background with pictures the colour beneath them is shown; of a gradient, its first.
function colourIn(shorthand: string): string | null {
  let found: string | null = null;
  walk(parse(shorthand, { context: "value" }), (node) => {
    const isColour =
      node.type === "Hash" || node.type === "Identifier" || (node.type === "Function" && !/gradient/i.test(node.name));
    const text = isColour ? generate(node) : "";
    if (found === null && text !== "" && colourOver(text, "#ffffff") !== null) found = text;
  });
  return found;
}

function colourLooks(element: Element, styles: Styles, above: Grounds, { light, dark }: Grounds): string[] {
  const written = paperOf(styles);
  const isOnItsOwn = written !== null && colourOver(written, above.light.paper) !== null;
  const isSame = light.ink === above.light.ink && dark.ink === above.dark.ink && element.name !== "a";
  const isLink = element.name === "a" && light.ink === LETTER_PAGE.link.light && dark.ink === LETTER_PAGE.link.dark;
  return [
    ...(isSame || isLink ? [] : [`color:light-dark(${light.ink},${dark.ink})`]),
    ...(isOnItsOwn ? [`background-color:light-dark(${light.paper},${dark.paper})`] : []),
  ];
}

// Fonts that are not here give way to the ones that ship, not to whatever the browser has.
const SERIF = /(?:^|[\s,"'])(?:serif|georgia|times|garamond|palatino|cambria|baskerville|bookman)/i;
const SANS = /sans-serif/i;
const MONO = /mono|courier|consolas|menlo/i;

function said(property: string, value: string): string {
  if (property !== "font-family") return `${property}:${value}`;
  const families = value.replaceAll('"', "'").replace(/,\s*(?:sans-serif|serif)\s*$/i, "");
  if (MONO.test(value)) return `font-family:${value.replaceAll('"', "'")}`;
  const shipped =
    SERIF.test(value) && !SANS.test(value) ? "'Source Serif 4 Variable',serif" : "'Source Sans 3 Variable',sans-serif";
  return `font-family:${families},${shipped}`;
}

const isNothing = (value: string | undefined) => value !== undefined && Number.parseFloat(value) === 0;

// Programs hide the words that lists show beside the subject, and what is meant for other screens.
function isHidden(styles: Styles): boolean {
  const [display, visibility] = [styles.get("display"), styles.get("visibility")];
  if (display === "none" || visibility === "hidden") return true;
  const isShut = isNothing(styles.get("max-height")) && styles.get("overflow") !== "visible";
  return isShut || isNothing(styles.get("opacity")) || isNothing(styles.get("font-size"));
}
