import { type EditorState, NodeSelection, Plugin, type Transaction } from "@tiptap/pm/state";
import { mergeAttributes, Node } from "@tiptap/react";
import { BLANK_ATTRIBUTE, type Blank, blankOf, CHOICES_ATTRIBUTE, DAYS_ATTRIBUTE } from "../../../core/templates/blank";
import { PASSAGE } from "./passage-node";

const BLANK = "blank";

// What stands before what is decided in the editor by others, as lists take Tab.
const FIRST = 1_000;

/** A place in a text that is filled before it goes: one thing, which typing replaces; Tab goes from one to the next. */
export const BlankNode = Node.create({
  name: BLANK,
  priority: FIRST,
  group: "inline",
  inline: true,
  atom: true,
  selectable: true,
  addAttributes() {
    const attribute = (name: string) => ({
      default: null,
      parseHTML: (element: HTMLElement) => element.getAttribute(name),
      renderHTML: (attributes: Record<string, string | null>) => {
        const value = attributes[name];
        return value == null ? {} : { [name]: value };
      },
    });
    return {
      [BLANK_ATTRIBUTE]: attribute(BLANK_ATTRIBUTE),
      [DAYS_ATTRIBUTE]: attribute(DAYS_ATTRIBUTE),
      [CHOICES_ATTRIBUTE]: attribute(CHOICES_ATTRIBUTE),
      label: { default: "", parseHTML: (element) => element.textContent, renderHTML: () => ({}) },
    };
  },
  parseHTML: () => [{ tag: `span[${BLANK_ATTRIBUTE}]` }],
  renderHTML: ({ node, HTMLAttributes }) => ["span", mergeAttributes(HTMLAttributes), node.attrs.label],
  renderText: ({ node }) => node.attrs.label,
  addKeyboardShortcuts() {
    const goes = (ahead: 1 | -1) => () =>
      this.editor.commands.command(({ state, dispatch }) => go(state, dispatch, ahead));
    return { Tab: goes(1), "Shift-Tab": goes(-1) };
  },
  addProseMirrorPlugins: () => [
    new Plugin({
      props: {
        handleTextInput: ({ state, dispatch }, _from, _to, text) => {
          const chosen = selectedBlank(state);
          const takes = chosen === null ? undefined : takenFor(chosen.blank, text);
          if (takes === undefined) return false;
          if (takes !== null) dispatch(state.tr.replaceSelectionWith(state.schema.text(takes), true));
          return true;
        },
      },
    }),
  ],
});

/**
 * What a blank takes instead of what is typed into it: a choice by its number, nothing (null) where that is no number of one
 * or no part of a number. Undefined where the text itself is taken.
 */
function takenFor(blank: Blank, typed: string): string | null | undefined {
  if (blank.kind === "choice") return blank.choices[Number(typed) - 1] ?? null;
  return blank.kind === "number" && !/^[\d.,+-]+$/.test(typed) ? null : undefined;
}

/** The blank that is chosen, with its place; null where none is. */
export function selectedBlank({ selection }: EditorState): { readonly at: number; readonly blank: Blank } | null {
  if (!(selection instanceof NodeSelection) || selection.node.type.name !== BLANK) return null;
  return { at: selection.from, blank: blankOf(selection.node.attrs, selection.node.attrs.label) };
}

/** The places of the blanks of a text that have to be filled; those of a passage that is left out do not. */
export function placesToFill({ doc }: EditorState): number[] {
  const places: number[] = [];
  doc.descendants((node, at) => {
    if (node.type.name === BLANK) places.push(at);
    return node.type.name !== PASSAGE;
  });
  return places;
}

/** Goes to the blank after what is chosen, or before it; not where there is none. */
function go(state: EditorState, dispatch: ((tr: Transaction) => void) | undefined, ahead: 1 | -1): boolean {
  const { from, to } = state.selection;
  const places = placesToFill(state);
  const place = ahead === 1 ? places.find((at) => at >= to) : places.findLast((at) => at < from);
  if (place === undefined) return false;
  dispatch?.(state.tr.setSelection(NodeSelection.create(state.doc, place)).scrollIntoView());
  return true;
}
