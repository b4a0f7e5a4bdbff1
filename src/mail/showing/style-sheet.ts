import { type CssNode, generate, type List, parse, type Rule } from "css-tree";
import { parse as parseSelector, type Selector, SelectorType } from "css-what";
import { allowedDeclaration, type Declared } from "./allowed-styles";

// A style sheet of 200 kB has some thousand rules.
const MAX_SHEET_CHARACTERS = 500_000;
const MAX_RULES = 5_000;
const MAX_SELECTORS_EACH = 50;
const MAX_SELECTOR_PARTS = 30;

/** A rule for one selector, with what decides which of two wins (Selectors 4, section 17; CSS Cascade 4, section 6). */
export type StyleRule = {
  readonly selector: readonly Selector[];
  readonly specificity: number;
  readonly declarations: readonly Declared[];
};

/**
 * The rules of style sheets that hold for a letter on a screen, in their order. Conditions on the size of the screen are
 * not looked at: a letter is shown in its plain form. It never throws; what cannot be read is passed over.
 */
export function readSheets(sheets: readonly string[]): StyleRule[] {
  const rules: StyleRule[] = [];
  const text = withoutComments(sheets.join("\n").slice(0, MAX_SHEET_CHARACTERS));
  try {
    const sheet = parse(text, { parseValue: true, onParseError: () => undefined });
    if (sheet.type === "StyleSheet") collect(sheet.children, rules);
  } catch {
    // Nested beyond what the parser takes: the letter goes without.
  }
  return rules;
}

// Mail wraps its sheets into HTML comments.
const withoutComments = (text: string) => text.replace(/<!--|-->/g, " ");

function collect(nodes: List<CssNode>, rules: StyleRule[]): void {
  for (const node of nodes) {
    if (rules.length >= MAX_RULES) return;
    if (node.type === "Rule") rules.push(...rulesOf(node));
    if (node.type === "Atrule" && node.name === "media" && node.block !== null && isForScreens(node.prelude))
      collect(node.block.children, rules);
  }
}

const isForScreens = (prelude: CssNode | null) =>
  prelude !== null && /^(?:only )?(?:screen|all)$/i.test(generate(prelude));

function rulesOf({ prelude, block }: Rule): StyleRule[] {
  const declarations = block.children
    .toArray()
    .flatMap((node) => (node.type === "Declaration" ? (allowedDeclaration(node) ?? []) : []));
  if (declarations.length === 0) return [];
  return selectorsOf(generate(prelude)).map((selector) => ({
    selector,
    specificity: specificityOf(selector),
    declarations,
  }));
}

function selectorsOf(text: string): Selector[][] {
  try {
    return parseSelector(text)
      .slice(0, MAX_SELECTORS_EACH)
      .filter((selector) => selector.length <= MAX_SELECTOR_PARTS && selector.every(isMatchable));
  } catch {
    return [];
  }
}

const STRUCTURAL = new Set([
  "first-child",
  "last-child",
  "only-child",
  "first-of-type",
  "last-of-type",
  "nth-child",
  "link",
  "root",
]);

// What depends on where the pointer is, or makes boxes of its own, is not drawn.
function isMatchable(part: Selector): boolean {
  if (part.type === SelectorType.PseudoElement) return false;
  return part.type !== SelectorType.Pseudo || STRUCTURAL.has(part.name);
}

function specificityOf(selector: readonly Selector[]): number {
  return selector.reduce((sum, part) => sum + weightOf(part), 0);
}

function weightOf(part: Selector): number {
  if (part.type === SelectorType.Attribute) return part.name === "id" && part.action === "equals" ? 10_000 : 100;
  if (part.type === SelectorType.Pseudo) return 100;
  return part.type === SelectorType.Tag ? 1 : 0;
}

/** The declarations of a style attribute that may stand, in their order. */
export function readStyleAttribute(text: string): Declared[] {
  try {
    const list = parse(text.slice(0, MAX_SHEET_CHARACTERS), {
      context: "declarationList",
      onParseError: () => undefined,
    });
    if (list.type !== "DeclarationList") return [];
    return list.children
      .toArray()
      .flatMap((node) => (node.type === "Declaration" ? (allowedDeclaration(node) ?? []) : []));
  } catch {
    return [];
  }
}
