import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import { useSay } from "../../ui/texts/use-say";
import { OwnerBadge } from "../frame/owner-badge";
import { useTray } from "../frame/tray-data";
import type { Presence } from "./use-presence";

/** Who else has the conversation open, and who of them writes an answer; nothing where nobody does. */
export function PresenceLine({ present }: { present: readonly Presence[] }) {
  const say = useSay(conversationTexts, commonTexts);
  const { members } = useTray();
  const nameOf = (id: string) => members.find((member) => member.id === id)?.name ?? say("common.aColleague");
  return (
    <p
      role="status"
      aria-label={say("conversation.whoElseIsHere")}
      className="border-t border-hair bg-act-soft/50 px-4 py-1 text-sm text-soft empty:hidden lg:px-6"
    >
      {present.map(({ memberId, doing }) => (
        <span key={memberId} className="mr-4 inline-flex items-center gap-1.5">
          <OwnerBadge ownerId={memberId} />
          <span className={doing === "writing" ? "font-semibold text-ink" : ""}>
            {nameOf(memberId)}{" "}
            {doing === "writing" ? say("conversation.isWritingAnAnswer") : say("conversation.isLookingAtThis")}
          </span>
        </span>
      ))}
    </p>
  );
}
