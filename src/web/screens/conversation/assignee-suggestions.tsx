import { useEffect } from "react";
import { useFetcher } from "react-router";
import { type MemberId, trustedId } from "../../../core/kernel/ids";
import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import type { loader as suggestAssignees } from "../../routes/conversation/assignee-suggestions";
import type { RowView } from "../../server/base/row-view.server";
import { useSay } from "../../ui/texts/use-say";
import { LoadBar } from "../frame/load-bar";
import { OwnerBadge } from "../frame/owner-badge";
import { useTray } from "../frame/tray-data";
import type { ConversationDesk } from "../list/list-screen";

const SHOWN = 3;

/** Of what is nobody's: who could take it and why, the three likeliest side by side; a click gives it to her. */
export function AssigneeSuggestions({ row, act }: { row: RowView; act: ConversationDesk["act"] }) {
  const say = useSay(conversationTexts, commonTexts);
  const { tray, mayDecide, member } = useTray();
  const { load, data } = useFetcher<typeof suggestAssignees>();
  const isOpen = mayDecide && row.ownerId === null && (row.standing === "to-sort" || row.standing === "our-move");
  useEffect(() => {
    if (isOpen) void load(`/${tray.slug}/assignee-suggestions/${row.id}`);
  }, [isOpen, load, tray.slug, row.id]);
  if (!isOpen || data === undefined) return null;
  const shown = data.filter(({ isAway }) => !isAway).slice(0, SHOWN);
  return (
    <section aria-label={say("conversation.suggestedOwners")} className="border-t border-hair px-3 py-2">
      <h3 className="text-sm text-soft">{say("conversation.suggestedOwners")}</h3>
      <ul className="mt-1">
        {shown.map(({ id, name, open, load: desk, reasons }) => (
          <li key={id}>
            <button
              type="button"
              aria-label={say("conversation.assignTo", {
                what: id === member.id ? say("conversation.youInside") : name,
              })}
              onClick={() => act({ kind: "assign", ownerId: trustedId<MemberId>(id) })}
              className="grid w-full grid-cols-[26px_minmax(0,1fr)_auto] items-start gap-x-2 rounded-control py-1 text-start hover:bg-act-soft"
            >
              <OwnerBadge ownerId={id} />
              <span className="truncate leading-5">{id === member.id ? say("common.you") : name}</span>
              <LoadBar load={desk} open={open} />
              {reasons.length > 0 && (
                <span className="col-span-2 col-start-2 text-sm leading-4 text-soft">{reasons.join(", ")}</span>
              )}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
