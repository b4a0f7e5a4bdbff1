import { type ChildNode, Element, isTag, isText, Text } from "domhandler";
import { headerBlockAt } from "../../core/message/header-block";
import { attributionAt } from "../../core/text/attribution";
import { isDivider } from "../../core/text/history-marks";

const BLOCKS = /^(?:p|div|table|tr|ul|ol|li|blockquote|pre|h[1-6]|hr|center|section)$/;
// Programs mark what they copy by class; there is no standard for it.
const MARKED = /(?:^|\s)(?:\S*[_-]quote\S*|quote\S*|\S*quoted\S*)/i;
const LABELLED = /^\s*\*{0,2}\p{L}[\p{L} .]{1,24}\s?[:：]/u;
const READ_CHARACTERS = 3_000;
const MAX_HEADER_NODES = 100;
const MAX_QUOTATIONS = 200;
// A passage that one answers to is no longer than this.
const MAX_PASSAGE_CHARACTERS = 600;

/**
 * Folds what a letter copies of earlier ones, as in a text: marked quotations that nothing follows or that are long, and all
 * that stands below copied header lines. Where nothing else is in it, the fold is open.
 */
export function foldHistory(root: Element, earlier: string): void {
  const header = headerWithin(root);
  if (header !== null) foldFrom(root, header, earlier);
  for (const quotation of quotationsIn(root).slice(0, MAX_QUOTATIONS)) {
    if (
      hasOwnAfter(root, quotation) &&
      linesOf([quotation], MAX_PASSAGE_CHARACTERS + 1).length <= MAX_PASSAGE_CHARACTERS
    )
      continue;
    fold(root, quotation, [...attributionsBefore(quotation), quotation], earlier);
  }
}

// The text of nodes with their lines, at most so many characters of it.
function linesOf(nodes: readonly ChildNode[], limit: number): string {
  let text = "";
  const visit = (node: ChildNode): void => {
    if (text.length > limit) return;
    if (isText(node)) text += node.data.replace(/\s+/g, " ");
    if (!isTag(node)) return;
    const breaks = BLOCKS.test(node.name) || node.name === "br";
    if (breaks) text += "\n";
    node.children.forEach(visit);
    if (breaks && node.name !== "br") text += "\n";
  };
  nodes.forEach(visit);
  return text.slice(0, limit);
}

const trimmedLines = (text: string) =>
  text
    .replace(/\u00a0/g, " ")
    .replace(/^\s+/, "")
    .split("\n")
    .map((line) => line.trim());

const siblingsFrom = (node: ChildNode): ChildNode[] => {
  const all = node.parent?.children ?? [];
  return all.slice(all.indexOf(node)) as ChildNode[];
};

// The innermost element, or text, at which copied header lines or a divider begin.
function headerWithin(element: Element): ChildNode | null {
  for (const [at, child] of element.children.entries()) {
    if (isTag(child) && isQuotation(child)) continue;
    const inner = isTag(child) ? headerWithin(child) : null;
    if (inner !== null) return inner;
    if (beginsHistory(element.children.slice(at, at + MAX_HEADER_NODES))) return child;
  }
  return null;
}

// Whether history begins with the first of these nodes.
function beginsHistory(nodes: readonly ChildNode[]): boolean {
  const beginning = linesOf(nodes.slice(0, 1), 200).replace(/\u00a0/g, " ");
  if (!LABELLED.test(beginning) && !isDivider(beginning.trim())) return false;
  const lines = trimmedLines(linesOf(nodes, READ_CHARACTERS));
  return isDivider(lines[0] ?? "") || headerBlockAt(lines, 0) !== null;
}

const isQuotation = ({ name, attribs }: Element) =>
  name === "blockquote" || (name === "div" && MARKED.test(attribs.class ?? ""));

function quotationsIn(element: Element): Element[] {
  return element.children.flatMap((child) => {
    if (!isTag(child) || child.name === "details") return [];
    return isQuotation(child) ? [child] : quotationsIn(child);
  });
}

// Everything from a node to the end of the letter goes into one fold, where the node stands.
function foldFrom(root: Element, from: ChildNode, earlier: string): void {
  const moved: ChildNode[] = [];
  let node: ChildNode = from;
  for (;;) {
    const siblings = siblingsFrom(node);
    moved.push(...(node === from ? siblings : siblings.slice(1)));
    const { parent } = node;
    if (parent === null || parent === root || !(parent instanceof Element)) break;
    node = parent;
  }
  fold(root, from, moved, earlier);
}

function fold(root: Element, place: ChildNode, nodes: readonly ChildNode[], earlier: string): void {
  const { parent } = place;
  if (!(parent instanceof Element)) return;
  const [first = place] = nodes.filter((node) => node.parent === parent);
  const at = parent.children.indexOf(first);
  const moved = new Set(nodes);
  for (const one of new Set(nodes.map((node) => node.parent))) {
    if (one instanceof Element) one.children = one.children.filter((child) => !moved.has(child));
  }
  const isAll = linesOf([root], 400).trim() === "";
  const summary = new Element("summary", {}, [new Text(earlier)]);
  const details = new Element("details", isAll ? { open: "" } : {}, [summary, ...nodes]);
  for (const node of details.children) node.parent = details;
  details.parent = parent;
  parent.children.splice(at, 0, details);
}

function attributionsBefore(quotation: Element): ChildNode[] {
  const siblings = (quotation.parent?.children ?? []) as ChildNode[];
  const before = siblings.slice(0, siblings.indexOf(quotation)).filter((node) => linesOf([node], 10).trim() !== "");
  const last = before.at(-1);
  if (last === undefined) return [];
  const lines = trimmedLines(linesOf([last], 600)).filter((line) => line !== "");
  const attribution = attributionAt(lines, 0);
  return attribution !== null && attribution.before === "" && attribution.lines === lines.length ? [last] : [];
}

// Whether anything that is not quoted stands after a quotation.
function hasOwnAfter(root: Element, quotation: Element): boolean {
  let node: ChildNode = quotation;
  while (node !== root && node.parent instanceof Element) {
    const after = siblingsFrom(node).slice(1);
    if (after.some((one) => (isTag(one) ? ownIn(one) : linesOf([one], 10).trim() !== ""))) return true;
    node = node.parent;
  }
  return false;
}

function ownIn(element: Element): boolean {
  if (isQuotation(element) || element.name === "details") return false;
  return element.children.some((child) => (isTag(child) ? ownIn(child) : linesOf([child], 10).trim() !== ""));
}
