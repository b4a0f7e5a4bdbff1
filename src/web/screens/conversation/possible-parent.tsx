import { useEffect } from "react";
import { useFetcher, useNavigate } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import type { loader as possibleParent } from "../../routes/conversation/possible-parent";
import type { action as join } from "../../routes/deciding/join";
import type { RowView } from "../../server/base/row-view.server";
import { notice, noticeProblem } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useOutcome } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

/** What we asked elsewhere and this may answer: joined there, it does. */
export function PossibleParent({ row }: { readonly row: RowView }) {
  const say = useSay(conversationTexts, commonTexts);
  const { tray, mayDecide } = useTray();
  const navigate = useNavigate();
  const { load, data } = useFetcher<typeof possibleParent>();
  const joining = useFetcher<typeof join>();
  const isOpen = mayDecide && row.turn === "us" && (row.standing === "to-sort" || row.standing === "our-move");
  useEffect(() => {
    if (isOpen) void load(`/${tray.slug}/possible-parent/${row.id}`);
  }, [isOpen, load, tray.slug, row.id]);
  const [first] = data ?? [];
  const done = joining.data;
  useOutcome(done, ({ problem }) => {
    if (problem !== null) return noticeProblem(problem);
    notice(say("common.mergedUndoIsInThe"));
    if (first !== undefined) void navigate(`/${tray.slug}/open/${first.conversationId}`);
  });
  if (!isOpen || first === undefined) return null;
  return (
    <button
      type="button"
      disabled={joining.state !== "idle"}
      onClick={() =>
        joining.submit({ other: row.id }, { method: "post", action: `/${tray.slug}/join/${first.conversationId}` })
      }
      className="block w-full border-t border-hair px-3 py-2 text-start hover:bg-act-soft"
    >
      <span className="block text-act">{say("conversation.itMayAnswerMergeIt", { subject: first.subject })}</span>
      <span className="mt-0.5 block text-sm text-soft">
        {say("conversation.weAskedThemThereAnd", { why: first.why })}
      </span>
    </button>
  );
}
