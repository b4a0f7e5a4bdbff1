import { useState } from "react";
import { conversationTexts } from "../../../texts/en/conversation";
import type { CorrespondenceItem } from "../../server/conversation/conversation-view.server";
import { useSay } from "../../ui/texts/use-say";
import { MessageItem } from "./message-item";
import { NoteItem } from "./note-item";

// The newest exchange is what one came for; what was before it opens with one click.
const SHOWN = 5;

/** The correspondence as one continuous page, oldest first, with notes between the messages. */
export function Correspondence({
  items,
  conversationId,
  worksByKey = false,
}: {
  items: readonly CorrespondenceItem[];
  conversationId: string;
  /** Whether keys are about its newest message. */
  worksByKey?: boolean;
}) {
  const say = useSay(conversationTexts);
  const alone = items.filter(({ type }) => type === "message").length === 1;
  const newest = items.findLast(({ type }) => type === "message");
  const [whole, setWhole] = useState(false);
  const folded = whole ? 0 : Math.max(0, items.length - SHOWN);
  return (
    <div className="flex scroll-mb-24 flex-col pb-6 lg:scroll-mb-0">
      {folded > 0 && (
        <button
          type="button"
          onClick={() => setWhole(true)}
          className="self-end pt-2.5 text-sm text-act hover:underline"
        >
          {say("conversation.earlierItemsFolded", { folded })}
        </button>
      )}
      {items
        .slice(folded)
        .map((item) =>
          item.type === "note" ? (
            <NoteItem key={item.id} note={item} conversationId={conversationId} />
          ) : (
            <MessageItem
              key={item.id}
              message={item}
              conversationId={conversationId}
              alone={alone}
              worksByKey={worksByKey && item === newest}
            />
          ),
        )}
    </div>
  );
}
