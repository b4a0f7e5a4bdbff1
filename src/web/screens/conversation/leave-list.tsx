import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import type { Message } from "../../server/conversation/conversation-view.server";
import type { ListStart } from "../../server/list/list-view.server";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { notice } from "../../ui/notices";
import { useDecisions } from "../deciding/decisions";
import { useTray } from "../frame/tray-data";
import { fetchPart } from "../narrowing/fetch-part";

type Leaving = NonNullable<Message["leaving"]>;

/** The offer to leave the mailing list of a message, and to settle everything that came through it. */
export function LeaveList({ messageId, leaving }: { messageId: string; leaving: Leaving }) {
  const [isOpen, setOpen] = useState(false);
  const { mayDecide } = useTray();
  if (!mayDecide) return null;
  return (
    <>
      <button type="button" onClick={() => setOpen(true)} className="text-sm text-act hover:underline">
        Unsubscribe…
      </button>
      {isOpen && <LeaveDialog messageId={messageId} leaving={leaving} onClose={() => setOpen(false)} />}
    </>
  );
}

function LeaveDialog({ messageId, leaving, onClose }: { messageId: string; leaving: Leaving; onClose: () => void }) {
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
    decide({ kind: "settle" }, { rows: [], everything }, `Settled: everything of ${listId}`);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: what the answer leads to happens once for each answer
  useEffect(() => {
    if (fetcher.data?.problem !== null) return;
    notice(fetcher.data.by === "mail" ? "The message that unsubscribes is on its way" : "Unsubscribed");
    settleAll();
    onClose();
  }, [fetcher.data]);
  const leave = () => {
    if (page === null) {
      void fetcher.submit(null, { method: "post", action: `/${tray.slug}/messages/${messageId}/leave-list` });
      return;
    }
    window.open(page, "_blank", "noopener,noreferrer");
    settleAll();
    onClose();
  };
  return (
    <Dialog open title="Unsubscribe from this list?" description={listId ?? ""} onOpenChange={onClose}>
      <div className="space-y-3 px-4 py-3">
        <p>{how}</p>
        {isImitation ? (
          <p className="text-late">
            Its sender is perhaps not who it seems. Unsubscribing would only tell them that somebody reads this. Mark it
            as junk instead.
          </p>
        ) : (
          !isVerified && (
            <p className="text-sm text-soft">
              Its sender is not verified: whoever it is learns that somebody reads this address.
            </p>
          )
        )}
        {listId !== null && open !== null && open > 0 && (
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={settles}
              onChange={(event) => setSettles(event.target.checked)}
              className="size-4 accent-act"
            />
            {open === 1 ? "Settle what came through it" : `Settle all ${open.toLocaleString("en")} open of this list`}
          </label>
        )}
        {fetcher.data?.problem != null && (
          <p role="alert" className="text-late">
            {fetcher.data.problem}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="filled" disabled={isImitation || fetcher.state !== "idle"} onClick={leave}>
            {page === null ? "Unsubscribe" : "Open its page"}
          </Button>
        </div>
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
    fetchPart<ListStart>(slug, { scope: "open", narrowing: { list: [listId] } }, "start", new URLSearchParams())
      .then(({ total }) => !isGone && setCount(total))
      // Without the number there is only no offer to settle them.
      .catch(() => undefined);
    return () => {
      isGone = true;
    };
  }, [slug, listId]);
  return count;
}
