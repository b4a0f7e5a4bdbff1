import { Check, X } from "lucide-react";
import type { ConversationView } from "../../server/conversation/conversation-view.server";
import type { PostedDecision } from "../deciding/posted-decision";

type FollowUpLinesProps = {
  readonly followUps: ConversationView["followUps"];
  readonly act: ((decision: PostedDecision) => void) | undefined;
};

/** The follow-ups of a conversation, with the means to call them done or to clear them. */
export function FollowUpLines({ followUps, act }: FollowUpLinesProps) {
  if (followUps.length === 0) return <span className="text-soft">none</span>;
  return (
    <ul className="space-y-1">
      {followUps.map(({ id, whose, text, due, isOver, isDone }) => (
        <li key={id}>
          <span className={isDone ? "text-soft line-through" : ""}>{text === "" ? "to look at again" : text}</span>
          <span className="flex items-center">
            <span className={`min-w-0 flex-1 text-sm ${isOver ? "font-semibold text-late" : "text-soft"}`}>
              {whose}, {due}
              {isDone && ", done"}
            </span>
            {act !== undefined && !isDone && (
              <button
                type="button"
                aria-label={`Done: ${text || "follow-up"}`}
                title="Done"
                onClick={() => act({ kind: "follow-up-done", followUpId: id })}
                className="-my-0.5 grid size-6 shrink-0 place-items-center rounded-control text-soft hover:text-act"
              >
                <Check size={15} aria-hidden />
              </button>
            )}
            {act !== undefined && (
              <button
                type="button"
                aria-label={`Clear: ${text || "follow-up"}`}
                title="Clear"
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
