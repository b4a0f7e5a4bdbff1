import { readInstant } from "../../../core/kernel/instant";
import { conversationTexts } from "../../../texts/en/conversation";
import type { ConversationView } from "../../server/conversation/conversation-view.server";
import type { ExpectationView } from "../../server/conversation/expectation-view.server";
import { useSay } from "../../ui/texts/use-say";
import type { PostedDecision } from "../deciding/posted-decision";
import { useTray } from "../frame/tray-data";

type ExpectationLinesProps = {
  readonly view: Pick<ConversationView, "expectations" | "row">;
  readonly act: ((decision: PostedDecision) => void) | undefined;
};

const ACT = "inline-flex min-h-6 items-center text-start text-act underline-offset-2 hover:underline";

/** What is awaited, from whom and how it stands; what is over stays as long as it is the newest. */
export function ExpectationLines({ view: { expectations, row }, act }: ExpectationLinesProps) {
  const say = useSay(conversationTexts);
  const shown = expectations.filter(({ isOpen }, at) => isOpen || at === expectations.length - 1);
  if (shown.length === 0) {
    return (
      <span className="text-soft">
        {row.standing === "waiting" ? say("conversation.withoutADay") : say("conversation.noReply")}
      </span>
    );
  }
  return (
    <ul className="space-y-1.5">
      {shown.map((expectation) => (
        <li key={expectation.id}>
          <span className={`block ${expectation.isOpen ? "" : "text-soft"}`}>{expectation.whom}</span>
          <span className={`block text-sm ${expectation.isOver ? "text-late" : "text-soft"}`}>{expectation.state}</span>
          {act !== undefined && <Acts expectation={expectation} act={act} />}
        </li>
      ))}
    </ul>
  );
}

type ActsProps = { readonly expectation: ExpectationView; readonly act: (decision: PostedDecision) => void };

function Acts({ expectation: { id, whom, isOpen, answeredBy }, act }: ActsProps) {
  const say = useSay(conversationTexts);
  const { dateChoices } = useTray();
  const more = dateChoices[2];
  return (
    <span className="flex flex-wrap gap-x-3 text-sm">
      {isOpen && more !== undefined && (
        <button
          type="button"
          className={ACT}
          aria-label={say("conversation.giveUntil", { whom, words: more.words })}
          onClick={() => act({ kind: "extend", expectationId: id, until: readInstant(more.at) })}
        >
          {say("conversation.until", { words: more.words })}
        </button>
      )}
      {isOpen && (
        <button
          type="button"
          className={ACT}
          aria-label={say("conversation.stopWaitingFor", { whom })}
          onClick={() => act({ kind: "withdraw", expectationId: id })}
        >
          {say("conversation.withdraw")}
        </button>
      )}
      {answeredBy !== null && (
        <button type="button" className={ACT} onClick={() => act({ kind: "acknowledge", messageId: answeredBy })}>
          {say("conversation.thatWasNoAnswerYet")}
        </button>
      )}
    </span>
  );
}
