import { Node, NodeViewContent, type NodeViewProps, NodeViewWrapper, ReactNodeViewRenderer } from "@tiptap/react";
import { PASSAGE_ATTRIBUTE } from "../../../core/templates/blank";
import { templatesTexts } from "../../../texts/en/templates";
import { useSay } from "../../ui/texts/use-say";

export const PASSAGE = "passage";

/** A passage that is left out unless whoever writes takes it in; where a template is written, its question is asked for. */
export const passageNode = (isTemplate: boolean) =>
  Node.create({
    name: PASSAGE,
    group: "block",
    content: "block+",
    defining: true,
    addAttributes: () => ({
      question: {
        default: "",
        parseHTML: (element) => element.getAttribute(PASSAGE_ATTRIBUTE),
        renderHTML: ({ question }) => ({ [PASSAGE_ATTRIBUTE]: question }),
      },
    }),
    parseHTML: () => [{ tag: `div[${PASSAGE_ATTRIBUTE}]` }],
    renderHTML: ({ HTMLAttributes }) => ["div", HTMLAttributes, 0],
    addNodeView: () => ReactNodeViewRenderer(isTemplate ? WrittenPassage : OfferedPassage),
  });

const FRAME = "my-2.5 border-l-2 border-dotted border-soft pl-3";
const LINE = "flex flex-wrap items-center gap-2 text-sm text-soft select-none";

function OfferedPassage({ node, editor, getPos }: NodeViewProps) {
  const say = useSay(templatesTexts);
  const place = () => getPos() ?? 0;
  const takeIn = () =>
    editor
      .chain()
      .focus()
      .command(({ tr }) => Boolean(tr.replaceWith(place(), place() + node.nodeSize, node.content)))
      .run();
  const leaveOut = () =>
    editor
      .chain()
      .focus()
      .command(({ tr }) => Boolean(tr.delete(place(), place() + node.nodeSize)))
      .run();
  return (
    <NodeViewWrapper className={FRAME}>
      <NodeViewContent className="text-soft italic" />
      <p className={LINE} contentEditable={false}>
        {say("templates.leftOutUnless", { question: node.attrs.question })}
        <button type="button" onClick={takeIn} className="min-h-6 text-act underline underline-offset-2">
          {say("templates.takeItIn")}
        </button>
        <button type="button" onClick={leaveOut} className="min-h-6 hover:text-act hover:underline">
          {say("templates.removePassage")}
        </button>
      </p>
    </NodeViewWrapper>
  );
}

function WrittenPassage({ node, updateAttributes }: NodeViewProps) {
  const say = useSay(templatesTexts);
  return (
    <NodeViewWrapper className={FRAME}>
      <p className={LINE} contentEditable={false}>
        <input
          aria-label={say("templates.whenItBelongs")}
          placeholder={say("templates.whenItBelongsExample")}
          value={node.attrs.question}
          onChange={(event) => updateAttributes({ question: event.target.value })}
          className="h-7 w-full max-w-md rounded-control border border-rule bg-paper px-2 text-ink placeholder:text-soft"
        />
      </p>
      <NodeViewContent />
    </NodeViewWrapper>
  );
}
