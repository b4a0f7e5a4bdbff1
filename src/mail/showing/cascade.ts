import { compile, is } from "css-select";
import { type Selector, SelectorType } from "css-what";
import type { Element } from "domhandler";
import type { Declared } from "./allowed-styles";
import { readStyleAttribute, type StyleRule } from "./style-sheet";

// How often a selector is held against an element; a newsletter takes some ten thousand.
const MAX_MATCHES = 1_000_000;

/** What holds for an element by the letter's sheets and its own attributes: values by property. */
export type Styles = Map<string, string>;

type Indexed = { readonly rule: StyleRule; readonly order: number; readonly matches: (element: Element) => boolean };

/** Gives for each element of a letter what holds for it, without what is inherited. */
export function cascadeOf(rules: readonly StyleRule[]): (element: Element) => Styles {
  const index = indexed(rules);
  const known = new WeakMap<Element, Styles>();
  let matches = 0;
  return (element) => {
    const before = known.get(element);
    if (before !== undefined) return before;
    const found: Indexed[] = [];
    for (const candidate of candidatesOf(index, element)) {
      matches += 1;
      if (matches > MAX_MATCHES) break;
      if (candidate.matches(element)) found.push(candidate);
    }
    found.sort((a, b) => a.rule.specificity - b.rule.specificity || a.order - b.order);
    const styles = applied([
      ...presentational(element),
      ...found.flatMap(({ rule }) => rule.declarations),
      ...readStyleAttribute(element.attribs.style ?? ""),
    ]);
    known.set(element, styles);
    return styles;
  };
}

// What is important wins over what is not, whatever stands later (CSS Cascade 4, section 6.2).
function applied(declarations: readonly Declared[]): Styles {
  const styles: Styles = new Map();
  for (const important of [false, true]) {
    for (const one of declarations) {
      if (one.important !== important) continue;
      // A shorthand takes back what was said of its parts.
      for (const known of [...styles.keys()]) if (known.startsWith(`${one.property}-`)) styles.delete(known);
      styles.delete(one.property);
      styles.set(one.property, one.value);
    }
  }
  return styles;
}

// Attributes for looks count as rules that anything else overrides (HTML, section 15.2).
function presentational(element: Element): Declared[] {
  const { bgcolor, color, text } = element.attribs;
  const said = [
    ["background-color", bgcolor],
    ["color", element.name === "font" ? color : element.name === "body" ? text : undefined],
  ] as const;
  return said.flatMap(([property, value]) =>
    value === undefined ? [] : [{ property, value: legacyColour(value), important: false }],
  );
}

// "ffffff" without its mark is common.
const legacyColour = (value: string) => (/^[0-9a-f]{6}$/i.test(value.trim()) ? `#${value.trim()}` : value.trim());

type Index = { readonly byKey: ReadonlyMap<string, readonly Indexed[]>; readonly others: readonly Indexed[] };

// By what the element itself has to be, so that of a thousand rules only a few are tried on it.
function indexed(rules: readonly StyleRule[]): Index {
  const byKey = new Map<string, Indexed[]>();
  const others: Indexed[] = [];
  rules.forEach((rule, order) => {
    let compiled: ((element: Element) => boolean) | null = null;
    const matches = (element: Element) => {
      compiled ??= compiledOf(rule.selector);
      return compiled(element);
    };
    const key = keyOf(rule.selector);
    const place = key === null ? others : (byKey.get(key) ?? []);
    place.push({ rule, order, matches });
    if (key !== null) byKey.set(key, place);
  });
  return { byKey, others };
}

function compiledOf(selector: readonly Selector[]): (element: Element) => boolean {
  try {
    const query = compile([[...selector]]);
    return (element) => is(element, query as never);
  } catch {
    return () => false;
  }
}

function* candidatesOf({ byKey, others }: Index, element: Element): Generator<Indexed> {
  const classes = (element.attribs.class ?? "").split(/\s+/).filter((name) => name !== "");
  const keys = [`#${element.attribs.id ?? ""}`, ...new Set(classes.map((name) => `.${name}`)), element.name];
  for (const key of keys) yield* byKey.get(key) ?? [];
  yield* others;
}

const COMBINATORS = new Set<Selector["type"]>([
  SelectorType.Descendant,
  SelectorType.Child,
  SelectorType.Sibling,
  SelectorType.Adjacent,
]);

function keyOf(selector: readonly Selector[]): string | null {
  const last = selector.slice(selector.findLastIndex(({ type }) => COMBINATORS.has(type)) + 1);
  const named = (name: string, action: string) =>
    last.find((part) => part.type === SelectorType.Attribute && part.name === name && part.action === action);
  const id = named("id", "equals");
  if (id?.type === SelectorType.Attribute) return `#${id.value}`;
  const className = named("class", "element");
  if (className?.type === SelectorType.Attribute) return `.${className.value}`;
  const tag = last.find(({ type }) => type === SelectorType.Tag);
  return tag?.type === SelectorType.Tag ? tag.name.toLowerCase() : null;
}
