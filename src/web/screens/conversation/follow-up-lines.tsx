import { Check, X } from "lucide-react";
import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import type { ConversationView } from "../../server/conversation/conversation-view.server";
import { useSay } from "../../ui/texts/use-say";
import type { PostedDecision } from "../deciding/posted-decision";

type FollowUpLinesProps = {
  readonly followUps: ConversationView["followUps"];
  readonly act: ((decision: PostedDecision) => void) | undefined;
};

/** The follow-ups of a conversation, with the means to call them done or to clear them. */
export function FollowUpLines({ followUps, act }: FollowUpLinesProps) {
  const say = useSay(conversationTexts, commonTexts);
  if (followUps.length === 0) return <span className="text-soft">{say("common.none")}</span>;
  return (
    <ul className="space-y-1">
      {followUps.map(({ id, whose, text, due, isOver, isDone }) => (
        <li key={id}>
          <span className={isDone ? "text-soft line-through" : ""}>
            {text === "" ? say("conversation.toLookAtAgain") : text}
          </span>
          <span className="flex items-center">
            <span className={`min-w-0 flex-1 text-sm ${isOver ? "font-semibold text-late" : "text-soft"}`}>
              {whose}, {due}
              {isDone && say("conversation.done")}
            </span>
            {act !== undefined && !isDone && (
              <button
                type="button"
                aria-label={say("conversation.doneOf", { text: text || "follow-up" })}
                title={say("common.done")}
                onClick={() => act({ kind: "follow-up-done", followUpId: id })}
                className="-my-0.5 grid size-6 shrink-0 place-items-center rounded-control text-soft hover:text-act"
              >
                <Check size={15} aria-hidden />
              </button>
            )}
            {act !== undefined && (
              <button
                type="button"
                aria-label={say("conversation.clear", { text: text || "follow-up" })}
                title={say("conversation.clearAlone")}
                onClick={() => act({ kind: "follow-up-clear", followUpId: id })}
                className="-my-0.5 grid size-6 shrink-0 place-items-center rounded-control text-soft hover:text-ink"
              >
                <X size={14} aria-hidden />
              </button>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}
