import { X } from "lucide-react";
import { type MemberId, trustedId } from "../../../core/kernel/ids";
import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import type { RowView } from "../../server/base/row-view.server";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import type { ConversationDesk } from "../list/list-screen";

type FollowersProps = { readonly row: RowView; readonly act: ConversationDesk["act"] | undefined };

/** Who is kept informed of a conversation: each can be taken off, and another one named. */
export function Followers({ row, act }: FollowersProps) {
  const say = useSay(conversationTexts, commonTexts);
  const { members, member } = useTray();
  const nameOf = (id: string) =>
    id === member.id ? "you" : (members.find((one) => one.id === id)?.name ?? say("common.aFormerColleague"));
  const others = members.filter(({ id }) => !row.followerIds.some((one) => one === id) && id !== row.ownerId);
  return (
    <>
      {row.followerIds.length === 0 && act === undefined && (
        <span className="text-soft">{say("conversation.nobody")}</span>
      )}
      {row.followerIds.map((id) => (
        <span key={id} className="flex items-center gap-1">
          <span className="min-w-0 truncate">{nameOf(id)}</span>
          {act !== undefined && (
            <button
              type="button"
              aria-label={say("conversation.noLongerFollowedBy", { name: nameOf(id) })}
              onClick={() => act({ kind: "follow", memberId: id, follows: false })}
              className="grid size-6 shrink-0 place-items-center rounded-control text-soft hover:text-ink"
            >
              <X size={14} aria-hidden />
            </button>
          )}
        </span>
      ))}
      {act !== undefined && others.length > 0 && (
        <Select
          label={say("conversation.haveAColleagueFollowIt")}
          look="quiet"
          value=""
          choices={[
            ["", row.followerIds.length === 0 ? say("conversation.nobodyAdd") : say("common.add")],
            ...others.map(({ id }) => [id, nameOf(id)] as const),
          ]}
          onChoose={(id) => id !== "" && act({ kind: "follow", memberId: trustedId<MemberId>(id), follows: true })}
        />
      )}
    </>
  );
}
