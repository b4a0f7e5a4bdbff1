import { type CssNode, type Declaration, generate, lexer, type Value, walk } from "css-tree";

// What a letter may say of its looks; everything else is taken out. Nothing may be fetched (no url()), nothing may cover or
// leave the letter (no position, transform, negative margin), nothing may depend on the size of the window that shows it,
// as that is as high as the letter (no vh, vw).
const PROPERTIES = new Set([
  ...["color", "background", "background-color"],
  ...["font", "font-family", "font-size", "font-style", "font-weight", "font-variant"],
  ...["line-height", "letter-spacing", "word-spacing", "white-space", "word-break", "overflow-wrap"],
  ...[
    "text-align",
    "text-decoration",
    "text-decoration-line",
    "text-indent",
    "text-transform",
    "vertical-align",
    "direction",
  ],
  ...["width", "min-width", "max-width", "height", "min-height"],
  ...["margin", "margin-top", "margin-right", "margin-bottom", "margin-left"],
  ...["padding", "padding-top", "padding-right", "padding-bottom", "padding-left"],
  ...[
    "border",
    "border-top",
    "border-right",
    "border-bottom",
    "border-left",
    "border-width",
    "border-style",
    "border-color",
  ],
  ...["border-top-width", "border-right-width", "border-bottom-width", "border-left-width"],
  ...["border-top-style", "border-right-style", "border-bottom-style", "border-left-style"],
  ...["border-top-color", "border-right-color", "border-bottom-color", "border-left-color"],
  ...["border-radius", "border-collapse", "border-spacing", "table-layout", "caption-side", "empty-cells"],
  ...["list-style", "list-style-type", "display", "float", "clear", "visibility", "opacity", "max-height", "overflow"],
]);
const UNITS = new Set(["px", "pt", "pc", "in", "cm", "mm", "em", "rem", "ex", "ch"]);
const FUNCTIONS = new Set(["rgb", "rgba", "hsl", "hsla", "hwb", "lab", "lch", "oklab", "oklch", "color"]);
const DISPLAYS = new Set([
  ...["none", "block", "inline", "inline-block", "list-item", "table", "inline-table", "table-row", "table-cell"],
  ...["table-row-group", "table-header-group", "table-footer-group", "table-caption", "table-column"],
]);
// Wider and higher than any letter.
const MAX_LENGTH = 4_000;

/** A declaration that may stand: its property and its value as text. */
export type Declared = { readonly property: string; readonly value: string; readonly important: boolean };

/** The declaration as it may stand in a letter; null where it may not. */
export function allowedDeclaration({ property, value, important }: Declaration): Declared | null {
  const name = property.toLowerCase();
  if (!PROPERTIES.has(name) || value.type !== "Value" || !isHarmless(name, value)) return null;
  // `background` is reduced to its colour later; its pictures may be as odd as they like.
  if (name !== "background" && lexer.matchProperty(name, value).matched === null) return null;
  const text = generate(value);
  if (name === "display" && !DISPLAYS.has(text.toLowerCase())) return null;
  return { property: name, value: text, important: important !== false };
}

function isHarmless(property: string, value: Value): boolean {
  const mayFetch = property === "background";
  let isFine = true;
  walk(value, (node: CssNode) => {
    if (node.type === "Url") isFine &&= mayFetch;
    else if (node.type === "Function") isFine &&= mayFetch || FUNCTIONS.has(node.name.toLowerCase());
    else if (node.type === "Dimension") isFine &&= mayFetch || isFineLength(property, Number(node.value), node.unit);
    else if (node.type === "Raw") isFine = false;
  });
  return isFine;
}

function isFineLength(property: string, length: number, unit: string): boolean {
  if (unit.toLowerCase() === "deg") return true;
  const mayBeNegative = property === "text-indent" || property === "letter-spacing";
  return (
    UNITS.has(unit.toLowerCase()) && Math.abs(length) <= MAX_LENGTH && (mayBeNegative ? length > -100 : length >= 0)
  );
}
