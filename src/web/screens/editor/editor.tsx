import { NodeSelection } from "@tiptap/pm/state";
import { EditorContent, type Editor as Tiptap, useEditor, useEditorState } from "@tiptap/react";
import StarterKit from "@tiptap/starter-kit";
import { Bold, Italic, List, ListOrdered, type LucideIcon, TextQuote } from "lucide-react";
import { type ReactNode, useEffect, useId, useLayoutEffect, useRef } from "react";
import { writingTexts } from "../../../texts/en/writing";
import type { PlainKey } from "../../../texts/say";
import { useKeyDesk } from "../../keys/key-desk";
import { useSay } from "../../ui/texts/use-say";
import { BlankBar, BlankFields } from "./blank-bar";
import { BlankNode, placesToFill } from "./blank-node";
import { passageNode } from "./passage-node";

type EditorProps = {
  readonly html: string;
  readonly problem: string | undefined;
  readonly onChange: (html: string) => void;
  /** Whether it is a template that is written, whose blanks are not filled. */
  readonly isTemplate?: boolean;
  /** What stands beside the tools, with what puts HTML where the cursor is. */
  readonly aside?: (insert: (html: string) => void) => ReactNode;
};

type Tool = {
  readonly label: PlainKey<typeof writingTexts>;
  readonly icon: LucideIcon;
  readonly mark: string;
  readonly toggle: (editor: Tiptap) => void;
};

const TOOLS: readonly Tool[] = [
  { label: "writing.bold", icon: Bold, mark: "bold", toggle: (editor) => editor.chain().focus().toggleBold().run() },
  {
    label: "writing.italic",
    icon: Italic,
    mark: "italic",
    toggle: (editor) => editor.chain().focus().toggleItalic().run(),
  },
  {
    label: "writing.list",
    icon: List,
    mark: "bulletList",
    toggle: (editor) => editor.chain().focus().toggleBulletList().run(),
  },
  {
    label: "writing.numberedList",
    icon: ListOrdered,
    mark: "orderedList",
    toggle: (editor) => editor.chain().focus().toggleOrderedList().run(),
  },
  {
    label: "writing.quotation",
    icon: TextQuote,
    mark: "blockquote",
    toggle: (editor) => editor.chain().focus().toggleBlockquote().run(),
  },
];

/** The text of a message of ours, or of a template. Loaded when one writes, as it is larger than everything else together. */
export default function Editor({ html, problem, onChange, isTemplate = false, aside }: EditorProps) {
  const say = useSay(writingTexts);
  const id = useId();
  // It is made after it has been drawn, which on a slow computer takes longer than anything else that opens.
  const { awaitOpening } = useKeyDesk();
  const isReady = useRef(() => {});
  useLayoutEffect(() => {
    isReady.current = awaitOpening();
    return isReady.current;
  }, [awaitOpening]);
  const editor = useEditor({
    extensions: [
      StarterKit.configure({ heading: false, codeBlock: false, horizontalRule: false }),
      BlankNode,
      passageNode(isTemplate),
    ],
    content: html,
    onCreate: ({ editor: created }) => {
      created.commands.setTextSelection(created.state.doc.content.size);
      requestAnimationFrame(() => {
        takeFocus(created);
        isReady.current();
      });
    },
    immediatelyRender: false,
    onUpdate: ({ editor: changed }) => onChange(changed.isEmpty ? "" : changed.getHTML()),
    editorProps: {
      // These keys send, wherever in the text one is; they are no line break in it.
      handleKeyDown: (_, { key, ctrlKey, metaKey }) => key === "Enter" && (ctrlKey || metaKey),
      attributes: {
        class: "editor-text text-[15px] leading-[23px]",
        role: "textbox",
        dir: "auto",
        "aria-multiline": "true",
        "aria-label": say("writing.text"),
      },
    },
  });
  useEffect(() => {
    // What was refused for a blank goes on in it.
    if (problem !== undefined && editor !== null && !isTemplate) goToBlank(editor, 0);
  }, [problem, editor, isTemplate]);
  return (
    <div className={`mt-2.5 rounded-control border bg-paper ${problem === undefined ? "border-rule" : "border-late"}`}>
      {/* One who writes by keyboard comes from the subject to the text, and to what stands above it after it. */}
      <div className="flex flex-col-reverse">
        <EditorContent
          editor={editor}
          className="px-3 py-2"
          aria-describedby={problem === undefined ? undefined : `${id}-problem`}
        />
        {editor !== null && (isTemplate ? <BlankFields editor={editor} /> : <BlankBar editor={editor} />)}
        {problem !== undefined && (
          <p id={`${id}-problem`} className="px-3 pt-1.5 text-sm text-late">
            {problem}
          </p>
        )}
        <div
          role="toolbar"
          aria-label={say("writing.textForm")}
          className="flex flex-wrap items-center gap-0.5 border-b border-hair px-1.5 py-1"
        >
          {editor !== null && (
            <>
              {TOOLS.map((tool) => (
                <ToolButton key={tool.mark} editor={editor} tool={tool} />
              ))}
              {aside?.((inserted) => insert(editor, inserted, isTemplate))}
            </>
          )}
        </div>
      </div>
    </div>
  );
}

/**
 * It comes later than the fields around it, and must not take what somebody is typing there already. (The editor's own
 * command would look now and take the focus a frame later.)
 */
function takeFocus({ view, isDestroyed }: Tiptap): void {
  if (isDestroyed || view.dom.closest("form")?.contains(document.activeElement) === true) return;
  view.focus();
}

/** Puts HTML where the cursor is, and goes to the first blank in it: in a template to the one that was put there. */
function insert(editor: Tiptap, html: string, isTemplate: boolean): void {
  const { from } = editor.state.selection;
  const { isEmpty } = editor;
  const chain = editor.chain().focus();
  if (isEmpty && !isTemplate) chain.setContent(html, { emitUpdate: true }).run();
  else chain.insertContent(html).run();
  goToBlank(editor, isEmpty && !isTemplate ? 0 : from);
}

/** Chooses the first blank from a place on; where there is none, what is chosen stays. */
function goToBlank(editor: Tiptap, from: number): void {
  const place = placesToFill(editor.state).find((at) => at >= from);
  if (place === undefined) return;
  const { state, view } = editor;
  view.dispatch(state.tr.setSelection(NodeSelection.create(state.doc, place)).scrollIntoView());
  view.focus();
}

function ToolButton({ editor, tool }: { editor: Tiptap; tool: Tool }) {
  const say = useSay(writingTexts);
  const on = useEditorState({ editor, selector: ({ editor: now }) => now.isActive(tool.mark) });
  const Icon = tool.icon;
  return (
    <button
      type="button"
      aria-label={say(tool.label)}
      aria-pressed={on}
      onClick={() => tool.toggle(editor)}
      className="rounded-control p-1.5 text-soft hover:bg-sunk aria-pressed:bg-act-soft aria-pressed:text-act"
    >
      <Icon size={15} aria-hidden />
    </button>
  );
}
