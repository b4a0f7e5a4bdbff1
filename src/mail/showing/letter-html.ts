import render from "dom-serializer";
import { type ChildNode, Element, isTag } from "domhandler";
import { Parser, parseDocument } from "htmlparser2";
import { cascadeOf } from "./cascade";
import { dress } from "./dress";
import { foldHistory } from "./fold-history";
import { readSheets } from "./style-sheet";

const MAX_SHEETS = 50;

/** What a letter says of its looks outside its elements: its sheets, and the attributes of its body. */
export type Looks = { readonly sheets: readonly string[]; readonly body: Readonly<Record<string, string>> };

/** Gathers the style sheets of a letter and the attributes of its body, before these are taken out. */
export function looksOf(html: string): Looks {
  const sheets: string[] = [];
  let body: Record<string, string> = {};
  let isInSheet = false;
  const parser = new Parser({
    onopentag: (name, attributes) => {
      isInSheet = name === "style" && sheets.length < MAX_SHEETS;
      if (isInSheet) sheets.push("");
      if (name === "body") body = { ...body, ...attributes };
    },
    ontext: (text) => {
      if (isInSheet) sheets.push(`${sheets.pop() ?? ""}${text}`);
    },
    onclosetag: () => {
      isInSheet = false;
    },
  });
  parser.end(html);
  return { sheets, body };
}

/** Draws sanitised HTML, whose classes and styles are still as they came, as the letter looks; what is older is folded under a word for it. */
export function letterHtml(sanitised: string, { sheets, body }: Looks, earlier: string): string {
  const document = parseDocument(sanitised);
  const { class: className, id, bgcolor, text, style, dir } = body;
  const said = Object.entries({ class: className, id, bgcolor, text, style, dir }).filter(
    ([, value]) => value !== undefined,
  );
  const root = new Element("body", Object.fromEntries(said) as Record<string, string>, document.children);
  for (const child of root.children) child.parent = root;
  foldHistory(root, earlier);
  dress(root, cascadeOf(readSheets(sheets)));
  letTablesScroll(root);
  root.name = "div";
  return render(root, { encodeEntities: "utf8", selfClosingTags: true });
}

// A table wider than the paper scrolls by itself, and the letter around it stays.
function letTablesScroll(element: Element): void {
  element.children = element.children.map((child): ChildNode => {
    if (!isTag(child)) return child;
    if (child.name !== "table") {
      letTablesScroll(child);
      return child;
    }
    const frame = new Element("div", { class: "wide" }, [child]);
    frame.parent = element;
    child.parent = frame;
    return frame;
  });
}
