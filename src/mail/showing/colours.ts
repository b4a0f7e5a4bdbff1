import { type Color, clampChroma, converter, formatHex, parse, wcagContrast } from "culori";

/** An opaque colour as `#rrggbb`. */
export type Opaque = string;

/** What stands on what. */
export type Ground = { readonly ink: Opaque; readonly paper: Opaque };

/** The contrast that text has to have (WCAG 2.2, 1.4.3). */
const LEAST_CONTRAST = 4.5;
// Under this nobody meant it to be read like that: something under it is missing.
const NOT_MEANT = 1.7;

const toRgb = converter("rgb");
const toOklch = converter("oklch");

/** A colour of a letter over what is under it; null where it is none, or lets all of that through. */
export function colourOver(written: string, under: Opaque): Opaque | null {
  const colour = parse(written.trim().toLowerCase());
  if (colour === undefined) return null;
  const { r, g, b } = toRgb(clampChroma(colour, "oklch"));
  const alpha = Math.min(1, Math.max(0, colour.alpha ?? 1));
  if (alpha === 0) return null;
  const below = toRgb(under);
  if (below === undefined) return null;
  const mixed = (top: number, bottom: number) => Math.min(1, Math.max(0, top * alpha + bottom * (1 - alpha)));
  return formatHex({ mode: "rgb", r: mixed(r, below.r), g: mixed(g, below.g), b: mixed(b, below.b) }) ?? null;
}

/** A text's colour on a paper, as near to what was chosen as can be read; what cannot have been meant gives way to ink. */
export function readable(ink: Opaque, paper: Opaque, page: Ground): Opaque {
  const contrast = wcagContrast(ink, paper);
  if (contrast >= LEAST_CONTRAST) return ink;
  const best = furthest(paper, page);
  if (contrast < NOT_MEANT) return best;
  const colour = toOklch(ink);
  if (colour === undefined) return best;
  const step = lightnessOf(best) > lightnessOf(paper) ? 0.02 : -0.02;
  for (let l = colour.l + step; l > 0 && l < 1; l += step) {
    const moved = formatHex(clampChroma({ ...colour, l } as Color, "oklch"));
    if (moved !== undefined && wcagContrast(moved, paper) >= LEAST_CONTRAST) return moved;
  }
  return best;
}

// Of the page's own two the one that stands out more; where a colour in the middle takes neither, black or white.
function furthest(paper: Opaque, page: Ground): Opaque {
  const tried = [page.ink, page.paper, "#000000", "#ffffff"];
  const good = tried.slice(0, 2).find((ink) => wcagContrast(ink, paper) >= LEAST_CONTRAST);
  return good ?? tried.reduce((best, ink) => (wcagContrast(ink, paper) > wcagContrast(best, paper) ? ink : best));
}

const lightnessOf = (colour: Opaque) => toOklch(colour)?.l ?? 0;

/** A paper of a letter for the dark: what is light becomes as dark as the page, in its hue; what is dark or strong stays. */
export function darkPaper(paper: Opaque, page: Ground): Opaque {
  const colour = toOklch(paper);
  if (colour === undefined || colour.l < 0.62) return paper;
  if (colour.l > 0.97 && colour.c < 0.02) return page.paper;
  const l = lightnessOf(page.paper) + (1 - colour.l) * 0.45;
  return formatHex(clampChroma({ ...colour, l, c: colour.c * 0.7 }, "oklch")) ?? page.paper;
}

/** A text's colour for the dark: what was dark becomes as light, in its hue, where its paper is dark. */
export function darkInk(ink: Opaque, paper: Opaque): Opaque {
  const colour = toOklch(ink);
  if (colour === undefined || colour.l > 0.6 || lightnessOf(paper) > 0.5) return ink;
  return formatHex(clampChroma({ ...colour, l: 0.93 - colour.l * 0.45 }, "oklch")) ?? ink;
}
