import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import type { Message } from "../../server/conversation/conversation-view.server";
import type { ListStart } from "../../server/list/list-view.server";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { useDecisions } from "../deciding/decisions";
import { fetchPart } from "../filter/fetch-part";
import { FormFoot } from "../forms/form-foot";
import { useTray } from "../frame/tray-data";

type Leaving = NonNullable<Message["leaving"]>;

/** The offer to leave the mailing list of a message, and to settle everything that came through it. */
export function UnsubscribeOffer({ messageId, leaving }: { messageId: string; leaving: Leaving }) {
  const say = useSay(conversationTexts);
  const [isOpen, setOpen] = useState(false);
  const { mayDecide } = useTray();
  if (!mayDecide) return null;
  return (
    <>
      <button type="button" onClick={() => setOpen(true)} className="text-sm text-act hover:underline">
        {say("conversation.unsubscribe")}
      </button>
      {isOpen && <LeaveDialog messageId={messageId} leaving={leaving} onClose={() => setOpen(false)} />}
    </>
  );
}

function LeaveDialog({ messageId, leaving, onClose }: { messageId: string; leaving: Leaving; onClose: () => void }) {
  const say = useSay(conversationTexts, commonTexts);
  const { tray } = useTray();
  const { decide } = useDecisions();
  const { listId, how, page, isVerified, isImitation } = leaving;
  const open = useOpenOfList(tray.slug, listId);
  const [settles, setSettles] = useState(true);
  const fetcher = useFetcher<{ by: string | null; problem: string | null }>();
  const settleAll = () => {
    if (open === null || open === 0 || !settles || listId === null) return;
    const everything = {
      scope: "open",
      query: `${new URLSearchParams({ list: listId })}`,
      lane: null,
      count: open,
    } as const;
    decide({ kind: "settle" }, { rows: [], everything }, say("conversation.settledEverythingOf", { listId }));
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: what the answer leads to happens once for each answer
  useEffect(() => {
    if (fetcher.data?.problem !== null) return;
    notice(
      fetcher.data.by === "mail" ? say("conversation.theMessageThatUnsubscribesIs") : say("conversation.unsubscribed"),
    );
    settleAll();
    onClose();
  }, [fetcher.data]);
  const leave = () => {
    if (page === null) {
      void fetcher.submit(null, { method: "post", action: `/${tray.slug}/messages/${messageId}/unsubscribe` });
      return;
    }
    window.open(page, "_blank", "noopener,noreferrer");
    settleAll();
    onClose();
  };
  return (
    <Dialog open title={say("conversation.unsubscribeFromThisList")} description={listId ?? ""} onOpenChange={onClose}>
      <div className="space-y-3 px-4 py-3">
        <p>{how}</p>
        {isImitation ? (
          <p className="text-late">{say("conversation.itsSenderIsPerhapsNot")}</p>
        ) : (
          !isVerified && <p className="text-sm text-soft">{say("conversation.itsSenderIsNotVerified")}</p>
        )}
        {listId !== null && open !== null && open > 0 && (
          <Tick checked={settles} onTick={setSettles}>
            {say("conversation.settleAllOfThisList", { open })}
          </Tick>
        )}
        <FormFoot problem={fetcher.data?.problem} onClose={onClose}>
          <Button look="filled" disabled={isImitation || fetcher.state !== "idle"} onClick={leave}>
            {page === null ? say("conversation.unsubscribeAtOnce") : say("conversation.openItsPage")}
          </Button>
        </FormFoot>
      </div>
    </Dialog>
  );
}

/** How many conversations of a list are open; null until that is known. */
function useOpenOfList(slug: string, listId: string | null): number | null {
  const [count, setCount] = useState<number | null>(null);
  useEffect(() => {
    if (listId === null) return;
    let isGone = false;
    fetchPart<ListStart>(slug, { scope: "open", filter: { list: [listId] } }, "start", new URLSearchParams())
      .then(({ total }) => !isGone && setCount(total))
      // Without the number there is only no offer to settle them.
      .catch(() => undefined);
    return () => {
      isGone = true;
    };
  }, [slug, listId]);
  return count;
}
